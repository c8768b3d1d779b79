// SPDX-License-Identifier: GPL-3.0-or-later
// From the stick to the way on the ground, drawn: the plan with the camera's axes, the stick limited and not,
// and the methods that lay it onto the ground; the slope with its normal; and the numbers.
#pragma once

#include <QWidget>

#include "session/intent_facts.h"

namespace lagniappe::app {

class IntentPicture : public QWidget {
  Q_OBJECT
 public:
  explicit IntentPicture(const DriveSession& session, QWidget* parent = nullptr);

  void refresh();                               // Once a beat, while it is shown.
  QStringList lines() const { return lines_; }  // The numbers, as they are shown.

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  void paint_plan(QPainter& painter, const QRectF& area) const;
  void paint_slope(QPainter& painter, const QRectF& area) const;
  void tell();

  const DriveSession& session_;
  std::optional<IntentFacts> facts_;
  QStringList lines_;
  std::uint64_t revision_ = 0;
  std::size_t playhead_ = 0;
};

}  // namespace lagniappe::app
