// SPDX-License-Identifier: GPL-3.0-or-later
// The scale of a value: its sane range as a band, the default as a tick, the reference as a hollow mark, the
// value as a dot that is dragged.
#pragma once

#include <QWidget>

#include "lagniappe/profile_fields.h"

namespace lagniappe::app {

class ScaleStrip : public QWidget {
  Q_OBJECT
 public:
  explicit ScaleStrip(const ProfileField& field, QWidget* parent = nullptr);
  void show_values(double now, double reference);

 signals:
  void dragged(double value, bool begins);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;

 private:
  double x_of(double value) const;
  double value_at(double x) const;

  const ProfileField& field_;
  double low_, high_;  // Of the scale: the sane range and some of what lies beyond.
  double standard_, now_ = 0.0, reference_ = 0.0;
};

}  // namespace lagniappe::app
