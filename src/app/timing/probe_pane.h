// SPDX-License-Identifier: GPL-3.0-or-later
// The usual ways to ask for ground, at the playhead and over the whole take, beside the solver's verdict.
#pragma once

#include <QWidget>

#include "session/drive_session.h"
#include "session/newest_job.h"

class QLabel;
class QTableWidget;

namespace lagniappe::app {

class LinePen;

// One row of answers over the take, with the playhead.
class ProbeLanes : public QWidget {
  Q_OBJECT
 public:
  explicit ProbeLanes(DriveSession& session, QWidget* parent = nullptr);
  struct Lanes {
    std::array<ProbeLane, kGroundProbes> probes;
    std::vector<std::uint8_t> solver;
  };
  void show_lanes(std::shared_ptr<const Lanes> lanes);
  const Lanes* lanes() const { return lanes_.get(); }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;

 private:
  DriveSession& session_;
  std::shared_ptr<const Lanes> lanes_;
};

class ProbePane : public QWidget {
  Q_OBJECT
 public:
  explicit ProbePane(DriveSession& session, QWidget* parent = nullptr);

  void refresh();                 // Once a beat, while it is shown.
  void draw(LinePen& pen) const;  // The chosen probe, and the others faintly, where they asked.
  QTableWidget& table() { return *table_; }
  ProbeLanes& lanes() { return *lanes_; }

 protected:
  void changeEvent(QEvent* event) override;

 private:
  void show_answers();
  void ask_over_take();

  DriveSession& session_;
  NewestJob job_;
  QTableWidget* table_;
  ProbeLanes* lanes_;
  QLabel* words_;
  std::pair<std::uint64_t, std::size_t> shown_{};  // Recording and playhead.
  std::pair<std::uint64_t, std::size_t> asked_{};  // Recording and its ticks.
  std::array<ProbeAnswer, kGroundProbes> answers_{};
};

}  // namespace lagniappe::app
