// SPDX-License-Identifier: GPL-3.0-or-later
// The shown take at every tick rate, draw rate and way to draw it: measured on a thread, and what of it is
// looked at. No widget.
#pragma once

#include <QObject>
#include <array>
#include <map>

#include "lagniappe/lagniappe.h"
#include "session/drive_session.h"
#include "session/newest_job.h"

namespace lagniappe::app {

// What is drawn of a run in one cell of the matrix.
struct TimingCell {
  std::size_t tick_rate = 2, draw_rate = 1, drawing = 1;  // Of the ask's lists.
  bool operator==(const TimingCell&) const = default;
};

// Figures that the matrix can show.
struct ShownFigure {
  const char *name, *unit, *what;
  int digits;
  double (*get)(const TimingFigures&);  // In the unit; the larger the worse.
};
std::span<const ShownFigure> shown_figures();

// A measured take. Never changed after it is made.
struct TimingStudy {
  std::uint64_t revision = 0;
  std::size_t ticks = 0;
  Take take;
  std::shared_ptr<const Place> place;
  TimingAsk ask;
  std::vector<TimingRow> rows;
  double since = 0.0;  // s of the shown take that come before what is measured.
  TickedRun exact_run;
  std::vector<TickedRun> ticked;  // At each of the ask's tick rates.
  std::unique_ptr<ExactWay> exact;

  const TimingRow& row(const TimingCell& cell) const;
  TimingSource source() const { return source_of(take, place->world); }
};

// A moment of a way as one sees it go: metres along the exact way.
struct StripPoint {
  double moment, along;
};
struct StripFrame {
  double moment;
  double along, exact;  // m, drawn and as it should be.
  double gap;           // m between the two.
  double step;          // m that the drawn place went since the frame before.
  Vec3 drawn_C, exact_C;
};
struct Strip {
  double from = 0.0, seconds = 0.25;  // Of the run.
  std::vector<StripPoint> exact, ticks;
  std::vector<StripFrame> frames;
};

// What one frame goes, m, and what it should.
struct FrameStep {
  double drawn, exact;
};

class TimingDesk : public QObject {
  Q_OBJECT
 public:
  static constexpr double kWindow = 0.25;    // s of a strip.
  static constexpr double kLongest = 120.0;  // s, the last of a take, that are measured.

  explicit TimingDesk(DriveSession& session, QObject* parent = nullptr);

  // Measures what is shown, unless that has been or somebody drives.
  void refresh();
  const TimingStudy* study() const { return study_.get(); }
  std::shared_ptr<const TimingStudy> shared_study() const { return study_; }
  bool busy() const { return job_.busy(); }

  std::size_t figure() const { return figure_; }
  void set_figure(std::size_t figure);
  // B is the one that is chosen, A what it is compared with.
  const TimingCell& a() const { return a_; }
  const TimingCell& b() const { return b_; }
  void choose(const TimingCell& cell);
  void compare_with(const TimingCell& cell);
  // Where strips begin, s.
  double from() const { return from_; }
  void set_from(double seconds);
  Strip strip(const TimingCell& cell);
  // The steps of a strip's frames. Empty for motion in the frame itself, whose run would have to be run for it.
  std::vector<FrameStep> steps(const TimingCell& cell) const;
  // The run at one of the ask's tick rates. REQUIRES: study() is not null.
  const TickedRun& ticks(std::size_t rate) const { return study_->ticked[rate]; }

 signals:
  void measured();  // Or there is nothing to measure any more.
  void progressed(double share);
  void chosen();  // Cells, figure or moment.

 private:
  void forget();
  const std::vector<DrawnFrame>& frames(const TimingCell& cell);

  DriveSession& session_;
  NewestJob job_;
  std::shared_ptr<const TimingStudy> study_;
  std::uint64_t asked_ = 0;
  std::size_t asked_ticks_ = 0;
  double from_ = 0.0;
  std::size_t figure_ = 1;
  TimingCell a_{1, 3, 0}, b_{2, 3, 1};
  std::map<std::array<std::size_t, 3>, std::vector<DrawnFrame>> frames_;
};

}  // namespace lagniappe::app
