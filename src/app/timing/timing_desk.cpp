// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/timing_desk.h"

#include <algorithm>
#include <thread>

namespace lagniappe::app {
namespace {

constexpr ShownFigure kFigures[] = {
    {QT_TR_NOOP("lag"), "ms", QT_TR_NOOP("the shift in time that best fits the drawn way to the exact one"), 1,
     [](const TimingFigures& f) { return f.body.lag * 1e3; }},
    {QT_TR_NOOP("jitter"), "mm",
     QT_TR_NOOP("root mean square of the drawn steps' second differences, less the exact way's"), 2,
     [](const TimingFigures& f) { return f.body.jitter * 1e3; }},
    {QT_TR_NOOP("pop"), "mm", QT_TR_NOOP("the largest single one of those"), 1,
     [](const TimingFigures& f) { return f.body.pop * 1e3; }},
    {QT_TR_NOOP("apart"), "mm",
     QT_TR_NOOP("greatest distance of the run itself from the same inputs at 480 ticks/s"), 2,
     [](const TimingFigures& f) { return f.apart * 1e3; }},
    {QT_TR_NOOP("inside"), "mm", QT_TR_NOOP("deepest that the drawn body is in what is drawn solid"), 1,
     [](const TimingFigures& f) { return f.inside * 1e3; }},
    {QT_TR_NOOP("input age"), "ms", QT_TR_NOOP("from a press to the first frame that shows it, in the mean"), 1,
     [](const TimingFigures& f) { return f.age.mean * 1e3; }},
    {QT_TR_NOOP("dropped"), "s", QT_TR_NOOP("time of long frames that was not made up for"), 2,
     [](const TimingFigures& f) { return f.dropped; }},
};

// m along the exact way since a moment, by its ticks.
class Along {
 public:
  Along(const ExactWay& exact, double from) : exact_(exact), from_(from) {}

  double at(double moment) const {
    constexpr double kStep = 1.0 / kExactTickRate;
    const double end = std::abs(moment - from_);
    const double way = moment < from_ ? -1.0 : 1.0;
    double sum = 0.0;
    for (double t = 0.0; t < end; t += kStep)
      sum += length(exact_.body(from_ + way * std::min(t + kStep, end)) - exact_.body(from_ + way * t));
    return way * sum;
  }
  // Of a place beside it: where it is at the moment, and from there along the way.
  double of(const Vec3& place_C, double moment) const {
    constexpr double kStep = 1.0 / kExactTickRate;
    const Vec3 ahead = unit_or(exact_.body(moment + kStep) - exact_.body(moment - kStep), Vec3(0.0));
    return at(moment) + dot(place_C - exact_.body(moment), ahead);
  }

 private:
  const ExactWay& exact_;
  double from_;
};

// The last of a take, as one of its own.
Take last_of(const Recording& recording, double seconds) {
  const auto most = static_cast<std::size_t>(seconds * recording.take.tick_rate);
  const std::size_t all = recording.run.ticks(), first = all > most ? all - most : 0;
  return first == 0 ? recording.take : part_of(recording.take, first, all, recording.run.state(first));
}

}  // namespace

std::span<const ShownFigure> shown_figures() { return kFigures; }

const TimingRow& TimingStudy::row(const TimingCell& cell) const {
  return rows[(cell.tick_rate * ask.draw_rates.size() + cell.draw_rate) * ask.drawings.size() + cell.drawing];
}

TimingDesk::TimingDesk(DriveSession& session, QObject* parent)
    : QObject(parent), session_(session), job_(*this) {}

void TimingDesk::refresh() {
  if (!session_.has_shown() || session_.live()) return;
  const Recording& shown = session_.shown();
  if (asked_ == session_.revision() && asked_ticks_ == shown.run.ticks()) return;
  asked_ = session_.revision();
  asked_ticks_ = shown.run.ticks();
  if (asked_ticks_ == 0 || !is_worth_keeping(shown)) return forget();
  auto study = std::make_shared<TimingStudy>();
  study->revision = asked_;
  study->ticks = asked_ticks_;
  study->take = last_of(shown, kLongest);
  study->since = shown.take.seconds() - study->take.seconds();
  study->place = shown.place;
  study->ask = whole_matrix();
  job_.start([this, study](const NewestJob::Handle& handle) {
    const TimingSource source = study->source();
    const unsigned threads = std::max(1u, std::thread::hardware_concurrency());
    auto rows = timing_rows(source, study->ask, threads, [&](double share) {
      handle.deliver([this, share] { emit progressed(share); });
      return handle.wanted();
    });
    if (!rows) return;
    study->rows = std::move(*rows);
    study->exact_run = ticked_run(source.start, source.inputs_at(kExactTickRate), source.profile, source.world,
                                  kExactTickRate);
    study->exact = std::make_unique<ExactWay>(study->exact_run, source.profile, true);
    for (const int rate : study->ask.tick_rates) {
      if (!handle.wanted()) return;
      study->ticked.push_back(
          ticked_run(source.start, source.inputs_at(rate), source.profile, source.world, rate));
    }
    handle.finish([this, study] {
      study_ = study;
      frames_.clear();
      // Where it can be seen best: around what is most uneven.
      from_ = std::clamp(study_->row(a_).figures.body.pop_at - 0.5 * kWindow, 0.0,
                         std::max(study_->take.seconds() - kWindow, 0.0));
      emit measured();
    });
  });
}

// Figures are not those of what is shown any more.
void TimingDesk::forget() {
  job_.give_up();
  if (study_ == nullptr) return;
  study_.reset();
  frames_.clear();
  emit measured();
}

void TimingDesk::set_figure(std::size_t figure) {
  figure_ = figure;
  emit chosen();
}

void TimingDesk::choose(const TimingCell& cell) {
  b_ = cell;
  emit chosen();
}

void TimingDesk::compare_with(const TimingCell& cell) {
  a_ = cell;
  emit chosen();
}

void TimingDesk::set_from(double seconds) {
  if (study_ == nullptr) return;
  from_ = std::clamp(seconds, 0.0, std::max(study_->take.seconds() - kWindow, 0.0));
  emit chosen();
}

const std::vector<DrawnFrame>& TimingDesk::frames(const TimingCell& cell) {
  const std::array key{cell.tick_rate, cell.draw_rate, cell.drawing};
  if (const auto found = frames_.find(key); found != frames_.end()) return found->second;
  const TimingSource source = study_->source();
  DisplayClock clock = study_->ask.clock;
  clock.frames_per_second = study_->ask.draw_rates[cell.draw_rate];
  const std::vector<double> times = frame_times(clock, source.seconds);
  const Drawing& drawing = study_->ask.drawings[cell.drawing];
  std::vector<DrawnFrame> made =
      drawing.method == DrawMethod::InFrame
          ? drawn_frames(run_in_frames(source.start, source.script, source.profile, source.world, times),
                         drawing, source.profile)
          : drawn_frames(ticks(cell.tick_rate), times, drawing, source.profile);
  return frames_.emplace(key, std::move(made)).first->second;
}

// Of the window alone, and of the time before it that a chase remembers.
std::vector<FrameStep> TimingDesk::steps(const TimingCell& cell) const {
  constexpr double kRemembered = 1.0;  // s.
  std::vector<FrameStep> steps;
  const Drawing& drawing = study_->ask.drawings[cell.drawing];
  if (drawing.method == DrawMethod::InFrame) return steps;
  const double rate = study_->ask.draw_rates[cell.draw_rate], until = from_ + kWindow;
  std::vector<double> times = {0.0};
  for (double k = std::max(std::ceil((from_ - kRemembered) * rate), 1.0); k / rate <= until; ++k)
    times.push_back(k / rate);
  const std::vector<DrawnFrame> frames =
      drawn_frames(study_->ticked[cell.tick_rate], times, drawing, study_->take.profile, INFINITY);
  const ExactWay& exact = *study_->exact;
  for (std::size_t i = 2; i < frames.size(); ++i) {
    if (frames[i].moment < from_) continue;
    steps.push_back({length(frames[i].pose.foot_C - frames[i - 1].pose.foot_C),
                     length(exact.body(frames[i].moment) - exact.body(frames[i - 1].moment))});
  }
  return steps;
}

Strip TimingDesk::strip(const TimingCell& cell) {
  Strip strip;
  if (study_ == nullptr) return strip;
  strip.from = from_;
  strip.seconds = kWindow;
  const ExactWay& exact = *study_->exact;
  const Along along(exact, from_);
  const double until = from_ + kWindow;
  for (double t = from_; t <= until; t += 1.0 / kExactTickRate) strip.exact.push_back({t, along.at(t)});
  if (study_->ask.drawings[cell.drawing].method != DrawMethod::InFrame) {
    const TickedRun& run = ticks(cell.tick_rate);
    for (std::size_t i = 0; i < run.states.size(); ++i) {
      const double moment = double(i) / run.tick_rate;
      if (moment < from_ - 1e-9 || moment > until + 1e-9) continue;
      const CharacterState& s = run.states[i];
      strip.ticks.push_back({moment, along.of(interpolate(s, s, 1.0).foot_C, moment)});
    }
  }
  const std::vector<DrawnFrame>& all = frames(cell);
  for (std::size_t i = 0; i < all.size(); ++i) {
    const DrawnFrame& frame = all[i];
    if (frame.moment < from_ - 1e-9 || frame.moment > until + 1e-9) continue;
    const Vec3 right_C = exact.body(frame.moment), drawn_C = frame.pose.foot_C;
    strip.frames.push_back({frame.moment, along.of(drawn_C, frame.moment), along.at(frame.moment),
                            length(drawn_C - right_C), i > 0 ? length(drawn_C - all[i - 1].pose.foot_C) : 0.0,
                            drawn_C, right_C});
  }
  return strip;
}

}  // namespace lagniappe::app
