// SPDX-License-Identifier: MIT
// The runs behind the figures, and all cells of a matrix, on several threads.
#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <mutex>
#include <thread>

#include "lagniappe/timing.h"

namespace lagniappe {
namespace {

template <typename R>
struct Timed {
  R run;
  double seconds = 0.0;  // It took.
};

template <typename Make>
auto timed(const Make& make) {
  const auto begin = std::chrono::steady_clock::now();
  auto run = make();
  const std::chrono::duration<double> took = std::chrono::steady_clock::now() - begin;
  return Timed<decltype(run)>{std::move(run), took.count()};
}

// Work by number, on several threads, until it is done or stopped.
class Workers {
 public:
  Workers(unsigned threads, const std::function<bool(double)>& progress)
      : threads_(std::max(1u, threads)), progress_(progress) {}

  // Does `work(i)` for all i; `from` and `to` are the shares of the whole before and after.
  template <typename Work>
  bool each(std::size_t count, double from, double to, const Work& work) {
    std::atomic<std::size_t> next = 0;
    std::atomic<bool> stopped = false;
    const auto go = [&] {
      for (std::size_t i = next++; i < count && !stopped; i = next++) {
        work(i);
        const double share = from + (to - from) * static_cast<double>(i + 1) / static_cast<double>(count);
        if (progress_ && !told(share)) stopped = true;
      }
    };
    std::vector<std::thread> others;
    for (unsigned t = 1; t < threads_; ++t) others.emplace_back(go);
    go();
    for (std::thread& other : others) other.join();
    return !stopped;
  }

 private:
  bool told(double share) {
    const std::lock_guard one(told_);
    return progress_(share);
  }

  unsigned threads_;
  const std::function<bool(double)>& progress_;
  std::mutex told_;
};

class Matrix {
 public:
  Matrix(const TimingSource& source, const TimingAsk& ask) : source_(source), ask_(ask) {
    for (const double rate : ask.draw_rates) {
      DisplayClock clock = ask.clock;
      clock.frames_per_second = rate;
      times_.push_back(frame_times(clock, source.seconds));
    }
    presses_ = presses_in(source.script, source.seconds);
    ticked_.resize(ask.tick_rates.size());
    in_frames_.resize(ask.draw_rates.size());
  }

  std::optional<std::vector<TimingRow>> make(Workers& workers) {
    const std::size_t ticked = ticked_.size();
    const std::size_t runs = 1 + ticked + (any_in_frame() ? in_frames_.size() : 0);
    // The exact way is the longest: it begins first.
    const bool ran = workers.each(runs, 0.0, 0.4, [&](std::size_t i) {
      if (i == 0) {
        exact_run_ = ticks(kExactTickRate).run;
      } else if (i <= ticked) {
        ticked_[i - 1] = ticks(ask_.tick_rates[i - 1]);
      } else {
        in_frames_[i - 1 - ticked] = frames(times_[i - 1 - ticked]);
      }
    });
    if (!ran) return std::nullopt;
    const ExactWay plain(exact_run_, source_.profile, false), smoothed(exact_run_, source_.profile, true);
    std::vector<TimingRow> rows(ticked * times_.size() * ask_.drawings.size());
    const bool measured = workers.each(rows.size(), 0.4, 1.0, [&](std::size_t i) {
      const std::size_t drawing = i % ask_.drawings.size(), column = i / ask_.drawings.size() % times_.size(),
                        row = i / ask_.drawings.size() / times_.size();
      rows[i] =
          cell(row, column, ask_.drawings[drawing], ask_.drawings[drawing].eye_smoothing ? smoothed : plain);
    });
    if (!measured) return std::nullopt;
    return rows;
  }

 private:
  bool any_in_frame() const {
    return std::any_of(ask_.drawings.begin(), ask_.drawings.end(),
                       [](const Drawing& d) { return d.method == DrawMethod::InFrame; });
  }

  Timed<TickedRun> ticks(int rate) const {
    return timed([&] {
      return ticked_run(source_.start, source_.inputs_at(rate), source_.profile, source_.world, rate);
    });
  }
  Timed<FrameRun> frames(const std::vector<double>& times) const {
    return timed([&] {
      return run_in_frames(source_.start, source_.script, source_.profile, source_.world, times,
                           ask_.longest_catch_up);
    });
  }

  TimingRow cell(std::size_t row, std::size_t column, const Drawing& drawing, const ExactWay& exact) const {
    TimingRow made{ask_.tick_rates[row], ask_.draw_rates[column], drawing, {}, 0.0};
    const bool in_frame = drawing.method == DrawMethod::InFrame;
    const auto& of_ticks = ticked_[row];
    const auto& of_frames = in_frames_[column];
    TimingFigures& f = made.figures;
    const std::vector<DrawnFrame> drawn =
        in_frame ? drawn_frames(of_frames.run, drawing, source_.profile)
                 : drawn_frames(of_ticks.run, times_[column], drawing, source_.profile, ask_.longest_catch_up,
                                &f.dropped);
    if (in_frame) f.dropped = of_frames.run.dropped;
    f.apart = in_frame ? farthest_apart(of_frames.run, exact) : farthest_apart(of_ticks.run, exact);
    f.body = way_figures(drawn, exact, false);
    f.eye = way_figures(drawn, exact, true);
    f.look_farthest = look_farthest(drawn, exact);
    const DeepestInside inside = deepest_inside(drawn, source_.profile, source_.world);
    f.inside = inside.depth, f.inside_at = inside.moment;
    f.age = press_age(drawn, presses_, drawing.method, made.tick_rate, false);
    f.age_whole = press_age(drawn, presses_, drawing.method, made.tick_rate, true);
    const double steps =
        static_cast<double>(in_frame ? of_frames.run.states.size() : of_ticks.run.inputs.size());
    made.step_seconds = steps > 0.0 ? (in_frame ? of_frames.seconds : of_ticks.seconds) / steps : 0.0;
    return made;
  }

  const TimingSource& source_;
  const TimingAsk& ask_;
  std::vector<std::vector<double>> times_;  // Of each draw rate.
  std::vector<double> presses_;
  TickedRun exact_run_;
  std::vector<Timed<TickedRun>> ticked_;    // Of each tick rate.
  std::vector<Timed<FrameRun>> in_frames_;  // Of each draw rate.
};

}  // namespace

TimingAsk whole_matrix() {
  TimingAsk ask;
  ask.tick_rates = {20, 30, 60, 120, 144, 240};
  ask.draw_rates = {30, 60, 75, 144, 240};
  ask.drawings.clear();
  for (int method = 0; method < kDrawMethods; ++method)
    ask.drawings.emplace_back().method = static_cast<DrawMethod>(method);
  return ask;
}

TimingSource source_of(const Take& take, const World& world) {
  return {take.start, script_of(take), take.seconds(), take.profile, world, &take};
}

std::vector<InputFrame> TimingSource::inputs_at(int tick_rate) const {
  return take != nullptr ? inputs_at_rate(take->inputs, take->tick_rate, tick_rate)
                         : frames_of(script, tick_rate, seconds);
}

std::optional<std::vector<TimingRow>> timing_rows(const TimingSource& source, const TimingAsk& ask,
                                                  unsigned threads,
                                                  const std::function<bool(double share)>& progress) {
  Workers workers(threads, progress);
  return Matrix(source, ask).make(workers);
}

std::string timing_csv(const std::vector<TimingRow>& rows) {
  std::string out = "hz,draw_hz,drawing,lag_ms,lag_m,jitter_m,pop_m,inside_m,apart_m,dropped_s,step_us\n";
  for (const TimingRow& row : rows) {
    const TimingFigures& f = row.figures;
    fmt::format_to(std::back_inserter(out), "{},{},{},{},{},{},{},{},{},{},{}\n", row.tick_rate, row.draw_rate,
                   word_of(row.drawing), f.body.lag * 1e3, f.body.farthest, f.body.jitter, f.body.pop, f.inside,
                   f.apart, f.dropped, row.step_seconds * 1e6);
  }
  return out;
}

}  // namespace lagniappe
