// SPDX-License-Identifier: GPL-3.0-or-later
// The pads as they are: each one's sticks raw and shaped, its triggers and what is down, by the values in
// force; and the instants of the last presses.
#pragma once

#include <QStringList>
#include <QWidget>

#include "devices/pads.h"

namespace lagniappe::app {

class ScreenPad;

class DevicesPane : public QWidget {
  Q_OBJECT
 public:
  DevicesPane(const DriveSession& session, const Pads& pads, const ScreenPad& screen_pad,
              QWidget* parent = nullptr);

  void refresh();  // Once a beat, while it is shown.
  // Everything that is written in it, line by line.
  QStringList lines() const;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  struct Shown {
    QString name;
    Sticks sticks;
    std::optional<std::pair<double, double>> triggers;
    QStringList words;
    bool operator==(const Shown&) const = default;
  };
  std::vector<Shown> shown_now() const;
  QStringList words_of(const Shown& device, const QStringList& down) const;
  void note_presses();
  double paint_device(QPainter& painter, const Shown& device, double y) const;
  double paint_lines(QPainter& painter, const QStringList& lines, double y) const;
  QStringList head() const;
  QStringList tail() const;

  const DriveSession& session_;
  const Pads& pads_;
  const ScreenPad& screen_pad_;
  std::vector<Shown> shown_;
  QStringList head_, presses_;
  std::uint64_t revision_ = 0;
  std::size_t seen_ = 0;  // Ticks whose presses are noted.
};

}  // namespace lagniappe::app
