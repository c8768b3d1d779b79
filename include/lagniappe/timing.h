// SPDX-License-Identifier: MIT
// How well drawn frames show a run: behind by how much, how unevenly, inside of what; and how old a press is
// before it is seen. Measured against the exact way, which is the same inputs run at 480 ticks a second.
#pragma once

#include <functional>
#include <string>

#include "lagniappe/drawn_frames.h"

namespace lagniappe {

inline constexpr int kExactTickRate = 480;
// s that are measured at most, for all runs are held at once: 0.7 MB for each second of the usual rates.
inline constexpr double kLongestTiming = 600.0;

// The exact way, at any moment between its ticks straight from one to the next.
class ExactWay {
 public:
  // As it is drawn: with the smoothing of steps and snaps, or without. REQUIRES: run.tick_rate is
  // kExactTickRate.
  ExactWay(const TickedRun& run, const Profile& profile, bool eye_smoothing);

  double seconds() const { return static_cast<double>(feet_.size() - 1) / kExactTickRate; }
  Vec3 foot(double moment) const { return at(true_feet_, moment); }  // Not smoothed, whatever is asked for.
  Vec3 body(double moment) const { return at(feet_, moment); }
  Vec3 eye(double moment) const { return at(eyes_, moment); }
  Vec3 look(double moment) const;  // Unit direction.
  std::uint32_t put_home(double moment) const { return put_home_[tick_before(moment)]; }

 private:
  std::size_t tick_before(double moment) const;
  Vec3 at(const std::vector<Vec3>& places, double moment) const;

  std::vector<Vec3> true_feet_, feet_, eyes_, looks_;
  std::vector<std::uint32_t> put_home_;
};

// Of the body's drawn foot, or of the eye.
struct WayFigures {
  double lag = 0.0;       // s: the shift in time that best fits the drawn way to the exact one.
  double farthest = 0.0;  // m from the drawn to the exact place, at most.
  double jitter = 0.0;  // m: root mean square of the second differences of the drawn way, from frame to frame,
                        // less those of the exact way shifted by the lag, so that a turn does not count.
  double pop = 0.0;     // m: the largest single one,
  double pop_at = 0.0;  // and its moment, s.
};

// s from a press to the first frame that shows it.
struct PressAge {
  double mean = 0.0, worst = 0.0;
  int presses = 0;
};

struct TimingFigures {
  WayFigures body, eye;
  double look_farthest = 0.0;  // rad from the drawn to the exact look, at most.
  double inside = 0.0;     // m, deepest overlap of the drawn capsule with what is drawn solid; that steps are
                           // smoothed is meant, and left out.
  double inside_at = 0.0;  // Its moment, s.
  double apart = 0.0;      // m from the run's feet to the exact ones, at its ticks, at most.
  double dropped = 0.0;    // s that were not made up for.
  PressAge age;            // Where a press acts at its own instant within the tick,
  PressAge age_whole;      // and where it waits for the next tick to begin.
};

// Frames around those in which somebody is put home do not count: that is no motion.
WayFigures way_figures(const std::vector<DrawnFrame>& frames, const ExactWay& exact, bool of_eye);
double look_farthest(const std::vector<DrawnFrame>& frames, const ExactWay& exact);

struct DeepestInside {
  double depth = 0.0, moment = 0.0;
};
DeepestInside deepest_inside(const std::vector<DrawnFrame>& frames, const Profile& profile, const World& world);

// `presses`: instants in the run, rising. `whole_ticks`: a press acts from the first tick that begins after it.
PressAge press_age(const std::vector<DrawnFrame>& frames, std::span<const double> presses, DrawMethod method,
                   int tick_rate, bool whole_ticks);
// Returns when buttons go down in a script, before `seconds`.
std::vector<double> presses_in(const InputScript& script, double seconds);

// m between the feet of a run and the exact ones, at most.
double farthest_apart(const TickedRun& run, const ExactWay& exact);
double farthest_apart(const FrameRun& run, const ExactWay& exact);

// What is run: the same inputs at every rate. A script's by its own rule, a take's as in a retake.
struct TimingSource {
  CharacterState start;
  InputScript script;
  double seconds = 0.0;
  const Profile& profile;
  const World& world;
  const Take* take = nullptr;  // If it is one.

  std::vector<InputFrame> inputs_at(int tick_rate) const;
};
// The take must outlive it.
TimingSource source_of(const Take& take, const World& world);

// What is asked for: every tick rate with every draw rate with every drawing.
struct TimingAsk {
  std::vector<int> tick_rates = {20, 30, 60, 144};
  std::vector<double> draw_rates = {30, 60, 144};
  std::vector<Drawing> drawings = {Drawing{}};
  DisplayClock clock = {};  // Its rate is replaced by each draw rate.
  double longest_catch_up = 0.25;
};

// Six tick rates from 20 to 240, five draw rates from 30 to 240, all five ways to draw.
TimingAsk whole_matrix();

struct TimingRow {
  int tick_rate;
  double draw_rate;
  Drawing drawing;
  TimingFigures figures;
  double step_seconds;  // Mean time that a tick, or a frame of in-frame motion, took to compute here.
};

// Runs and measures on `threads` threads; rows in the order of tick rates, draw rates, drawings. Nothing if
// `progress`, asked from several threads, returned false. All but step_seconds is the same every time.
std::optional<std::vector<TimingRow>> timing_rows(const TimingSource& source, const TimingAsk& ask,
                                                  unsigned threads,
                                                  const std::function<bool(double share)>& progress = {});

// Writes the body's figures as CSV: a header, and one line for each row, numbers that read back to the same.
std::string timing_csv(const std::vector<TimingRow>& rows);

}  // namespace lagniappe
