// SPDX-License-Identifier: MIT
// The figures of drawn frames.
#include "lagniappe/timing.h"

#include <algorithm>
#include <cmath>

#include "lagniappe/turns.h"
#include "world/overlap.h"

namespace lagniappe {
namespace {

constexpr double kHomeAside = 0.25;  // s around being put home in which nothing is compared.
constexpr double kMostLag = 1.0;     // s.
constexpr double kNearTick = 1e-6;   // Of a tick, as in scripts.

// Frames that can be compared.
std::vector<bool> comparable(const std::vector<DrawnFrame>& frames, const ExactWay& exact) {
  std::vector<bool> fine(frames.size());
  for (std::size_t i = 0; i < frames.size(); ++i) {
    const double moment = frames[i].moment;
    fine[i] = moment <= exact.seconds() && exact.put_home(moment) == frames[i].put_home &&
              exact.put_home(moment - kHomeAside) == frames[i].put_home;
  }
  return fine;
}

// A drawn way and the exact one.
class Fit {
 public:
  Fit(const std::vector<DrawnFrame>& frames, const ExactWay& exact, bool of_eye)
      : frames_(frames), exact_(exact), of_eye_(of_eye), fine_(comparable(frames, exact)) {}

  // Least squares by Gauss and Newton: how far to shift the exact way back in time.
  // Nearly there by some of the frames, then by all of them.
  double lag() const {
    constexpr std::size_t kSome = 500;
    double lag = 0.0;
    for (const std::size_t stride : {std::max<std::size_t>(frames_.size() / kSome, 1), std::size_t{1}}) {
      for (int round = 0; round < 10; ++round) {
        const double by = correction(lag, stride);
        lag = std::clamp(lag + by, -kMostLag, kMostLag);
        if (std::abs(by) < 1e-7) break;
      }
    }
    return lag;
  }

  WayFigures figures() const {
    WayFigures figures;
    figures.lag = lag();
    double squares = 0.0;
    std::size_t count = 0;
    for (std::size_t i = 0; i < frames_.size(); ++i) {
      if (!fine_[i]) continue;
      figures.farthest = std::max(figures.farthest, length(drawn(i) - exact_at(frames_[i].moment)));
      if (i == 0 || i + 1 == frames_.size() || !fine_[i - 1] || !fine_[i + 1]) continue;
      const double off = second_difference_off(i, figures.lag);
      squares += off * off;
      ++count;
      if (off > figures.pop) figures.pop = off, figures.pop_at = frames_[i].moment;
    }
    figures.jitter = count > 0 ? std::sqrt(squares / static_cast<double>(count)) : 0.0;
    return figures;
  }

 private:
  Vec3 drawn(std::size_t i) const { return of_eye_ ? frames_[i].eye_C : frames_[i].pose.foot_C; }
  Vec3 exact_at(double moment) const { return of_eye_ ? exact_.eye(moment) : exact_.body(moment); }

  double correction(double lag, std::size_t stride) const {
    constexpr double kStep = 1.0 / kExactTickRate;
    double along = 0.0, square = 0.0;
    for (std::size_t i = 0; i < frames_.size(); i += stride) {
      if (!fine_[i]) continue;
      const double moment = frames_[i].moment - lag;
      const Vec3 velocity = (exact_at(moment + kStep) - exact_at(moment - kStep)) / (2.0 * kStep);
      along += dot(exact_at(moment) - drawn(i), velocity);
      square += length_squared(velocity);
    }
    return square > 1e-9 ? along / square : 0.0;
  }

  double second_difference_off(std::size_t i, double lag) const {
    const Vec3 seen = drawn(i + 1) - drawn(i) * 2.0 + drawn(i - 1);
    const Vec3 meant = exact_at(frames_[i + 1].moment - lag) - exact_at(frames_[i].moment - lag) * 2.0 +
                       exact_at(frames_[i - 1].moment - lag);
    return length(seen - meant);
  }

  const std::vector<DrawnFrame>& frames_;
  const ExactWay& exact_;
  bool of_eye_;
  std::vector<bool> fine_;
};

double overlap_of(const DrawnFrame& frame, const Values::Capsule& capsule, const World& world) {
  const Pose& pose = frame.pose;
  CharacterState lies;
  lies.foot_C = pose.foot_C - pose.up_C() * frame.smoothed;
  lies.frame_CB = pose.frame_CB;
  lies.facing = pose.facing;
  lies.capsule_height = pose.capsule_height;
  lies.lie_length = static_cast<float>(pose.lie_length);
  lies.lie_pitch = static_cast<float>(pose.lie_pitch);
  return deepest_overlap(world, capsule_axis(lies, capsule.radius), capsule.radius, frame.pieces_at);
}

// Whether a frame shows what tick `first` did, the first that a press is in.
bool shows(const DrawnFrame& frame, std::int64_t first, DrawMethod method) {
  const auto run = static_cast<std::int64_t>(frame.tick);
  if (method != DrawMethod::Interpolated) return run > first;
  return run > first + 1 || (run > first && frame.blend > kNearTick);
}

}  // namespace

ExactWay::ExactWay(const TickedRun& run, const Profile& profile, bool eye_smoothing) {
  for (const CharacterState& state : run.states) {
    Pose pose = interpolate(state, state, 1.0);
    if (!eye_smoothing) pose.foot_C = state.foot_C;
    true_feet_.push_back(state.foot_C);
    feet_.push_back(pose.foot_C);
    eyes_.push_back(eyes_of(pose, profile.capsule));
    looks_.push_back(look_direction(state.frame_CB, state.yaw, state.pitch));
    put_home_.push_back(state.times_put_home);
  }
}

std::size_t ExactWay::tick_before(double moment) const {
  const double tick = std::floor(std::max(moment, 0.0) * kExactTickRate + kNearTick);
  return std::min(static_cast<std::size_t>(tick), feet_.size() - 1);
}

Vec3 ExactWay::at(const std::vector<Vec3>& places, double moment) const {
  const std::size_t tick = tick_before(moment);
  if (tick + 1 >= places.size() || put_home_[tick] != put_home_[tick + 1]) return places[tick];
  const double share = std::max(moment, 0.0) * kExactTickRate - static_cast<double>(tick);
  return places[tick] + (places[tick + 1] - places[tick]) * share;
}

Vec3 ExactWay::look(double moment) const { return unit_or(at(looks_, moment), looks_[tick_before(moment)]); }

WayFigures way_figures(const std::vector<DrawnFrame>& frames, const ExactWay& exact, bool of_eye) {
  return Fit(frames, exact, of_eye).figures();
}

double look_farthest(const std::vector<DrawnFrame>& frames, const ExactWay& exact) {
  const std::vector<bool> fine = comparable(frames, exact);
  double farthest = 0.0;
  for (std::size_t i = 0; i < frames.size(); ++i) {
    if (!fine[i]) continue;
    const Vec3 drawn = look_direction(frames[i].pose.frame_CB, frames[i].look.x, frames[i].look.y);
    // A look that is set at once is there within one exact tick.
    const double off = std::min(angle_between(drawn, exact.look(frames[i].moment)),
                                angle_between(drawn, exact.look(frames[i].moment + 1.0 / kExactTickRate)));
    farthest = std::max(farthest, off);
  }
  return farthest;
}

DeepestInside deepest_inside(const std::vector<DrawnFrame>& frames, const Profile& profile,
                             const World& world) {
  DeepestInside deepest;
  const DrawnFrame* last = nullptr;
  for (const DrawnFrame& frame : frames) {
    // What is drawn again where it was has been asked about.
    const bool again = last != nullptr && last->pieces_at == frame.pieces_at &&
                       last->pose.foot_C == frame.pose.foot_C && last->tick == frame.tick;
    last = &frame;
    if (again) continue;
    const double depth = overlap_of(frame, profile.capsule, world);
    if (depth > deepest.depth) deepest = {depth, frame.moment};
  }
  return deepest;
}

PressAge press_age(const std::vector<DrawnFrame>& frames, std::span<const double> presses, DrawMethod method,
                   int tick_rate, bool whole_ticks) {
  PressAge age;
  std::size_t known = 0;  // The first frame at or after the press.
  for (const double press : presses) {
    while (known < frames.size() && frames[known].moment < press) ++known;
    if (known == frames.size()) break;
    // By the display's clock the press is as long before that frame as by the run's.
    const double pressed_at = frames[known].at - (frames[known].moment - press);
    std::size_t seen = known;
    if (method == DrawMethod::InFrame) {
      // Within the frame's time, or, waiting for the next to begin, in the one after that.
      if (frames[seen].moment <= press) ++seen;
      if (whole_ticks) seen = known + 1;
    } else {
      const double in_ticks = press * tick_rate;
      const auto first = static_cast<std::int64_t>(whole_ticks ? std::ceil(in_ticks - kNearTick)
                                                               : std::floor(in_ticks + kNearTick));
      while (seen < frames.size() && !shows(frames[seen], first, method)) ++seen;
    }
    if (seen >= frames.size()) break;
    const double took = frames[seen].at - pressed_at;
    age.mean += took;
    age.worst = std::max(age.worst, took);
    ++age.presses;
  }
  if (age.presses > 0) age.mean /= age.presses;
  return age;
}

std::vector<double> presses_in(const InputScript& script, double seconds) {
  std::vector<double> presses;
  for (const InputChange& change : script.changes) {
    if (change.press.bits != 0 && change.at < seconds) presses.push_back(change.at);
  }
  return presses;
}

double farthest_apart(const TickedRun& run, const ExactWay& exact) {
  double apart = 0.0;
  for (std::size_t i = 0; i < run.states.size(); ++i) {
    const double moment = static_cast<double>(i) / run.tick_rate;
    if (run.states[i].times_put_home != exact.put_home(moment)) continue;
    apart = std::max(apart, length(run.states[i].foot_C - exact.foot(moment)));
  }
  return apart;
}

double farthest_apart(const FrameRun& run, const ExactWay& exact) {
  double apart = 0.0;
  for (std::size_t i = 0; i < run.states.size(); ++i) {
    if (run.states[i].times_put_home != exact.put_home(run.moments[i])) continue;
    apart = std::max(apart, length(run.states[i].foot_C - exact.foot(run.moments[i])));
  }
  return apart;
}

}  // namespace lagniappe
