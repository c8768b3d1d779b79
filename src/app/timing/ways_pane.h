// SPDX-License-Identifier: GPL-3.0-or-later
// The ways of all tick rates over one another, in plan and elevation, how far apart they are over time, and
// where each first parts from 480 ticks a second, with what both solvers did there.
#pragma once

#include <QWidget>

#include "timing/timing_desk.h"

class QLabel;
class QListWidget;

namespace lagniappe::app {

class WaysPicture : public QWidget {
  Q_OBJECT
 public:
  WaysPicture(TimingDesk& desk, QWidget* parent = nullptr);
  // A run at one of the tick rates.
  struct Way {
    int rate = 60;
    std::vector<Vec3> feet_C;
    std::vector<double> apart;            // m, of each tick.
    double most = 0.0;                    // m.
    std::optional<std::size_t> parts_at;  // The first tick that is farther than kParted.
  };
  static constexpr double kParted = 0.01;  // m.
  const std::vector<Way>& ways() const { return ways_; }
  void gather();
  void choose(std::size_t way) { chosen_ = way, update(); }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  void paint_ways(QPainter& painter, const QRectF& rect, bool plan) const;
  void paint_apart(QPainter& painter, const QRectF& rect) const;

  TimingDesk& desk_;
  std::vector<Way> ways_;
  std::size_t chosen_ = 0;
};

class WaysPane : public QWidget {
  Q_OBJECT
 public:
  explicit WaysPane(TimingDesk& desk, QWidget* parent = nullptr);

  void refresh();  // While it is shown.
  WaysPicture& picture() { return *picture_; }
  QListWidget& list() { return *list_; }
  QString why() const;  // What is said of the chosen rate.

 private:
  void fill();
  void show_why(int row);
  QString ledger_words(const TickedRun& run, std::size_t tick) const;

  TimingDesk& desk_;
  WaysPicture* picture_;
  QListWidget* list_;
  QLabel* why_;
  bool stale_ = true;
};

}  // namespace lagniappe::app
