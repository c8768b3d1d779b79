// SPDX-License-Identifier: MIT
#include "lagniappe/drawn_frames.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <utility>

#include "lagniappe/fixed_step_clock.h"

namespace lagniappe {
namespace {

constexpr double kLongestStep = 0.1;  // s, see step().
constexpr std::array<std::string_view, kDrawMethods> kWords = {"ticked", "interpolated", "ahead", "chase",
                                                               "in-frame"};

// In [-1, 1], by the number of a frame: splitmix64, Steele, Lea, Flood, "Fast Splittable Pseudorandom Number
// Generators" (2014).
double uneven(std::uint64_t seed, std::uint64_t frame) {
  std::uint64_t z = seed + (frame + 1) * 0x9e3779b97f4a7c15ull;
  z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ull;
  z = (z ^ (z >> 27)) * 0x94d049bb133111ebull;
  return double((z ^ (z >> 31)) >> 11) * 0x1p-52 - 1.0;
}

// What is drawn between two states. Who was put home in between is where that put him.
void draw_between(const CharacterState& before, const CharacterState& now, double blend, bool smoothing,
                  DrawnFrame& frame) {
  const CharacterState& from = before.times_put_home != now.times_put_home ? now : before;
  frame.pose = interpolate(before, now, blend);
  frame.put_home = now.times_put_home;
  frame.pieces_at = from.time + (now.time - from.time) * blend;
  frame.smoothed = from.eye_offset + (now.eye_offset - from.eye_offset) * blend;
  if (smoothing) return;
  frame.pose.foot_C -= frame.pose.up_C() * std::exchange(frame.smoothed, 0.0);
}

Vec2 look_between(const CharacterState& before, const CharacterState& now, double blend) {
  if (before.times_put_home != now.times_put_home) return {now.yaw, now.pitch};
  return {wrap_angle(before.yaw + wrap_angle(now.yaw - before.yaw) * blend),
          before.pitch + (now.pitch - before.pitch) * blend};
}

// What the hand has turned the look by since the tick, `blend` of one so long ago.
Vec2 turned_since(const CharacterState& now, const InputFrame& next, double blend, double tick_seconds) {
  if (blend <= 0.0) return Vec2(0.0);
  const Vec2 turned = turned_until(next, blend, tick_seconds);
  const double set_at = next.look_at;
  if (!next.look || blend < set_at) return turned;
  const Vec2 set(wrap_angle(next.look->x - now.yaw), next.look->y - now.pitch);
  return set + turned - turned_until(next, set_at, tick_seconds);
}

double rate_of_lag(double time_constant) { return time_constant > 0.0 ? 1.0 / time_constant : INFINITY; }

// What all frames of a drawing have in common, from one to the next.
class Drawer {
 public:
  Drawer(const Drawing& drawing, const Profile& profile)
      : profile_(profile),
        body_(drawing.method == DrawMethod::Chase ? drawing.chase_rate : INFINITY),
        eye_(rate_of_lag(drawing.camera_lag)) {}

  // The rest of a frame whose pose is as its method has it.
  void finish(DrawnFrame& frame) {
    const double seconds = frames_.empty() ? 0.0 : frame.moment - frames_.back().moment;
    const bool anew = !frames_.empty() && frame.put_home != frames_.back().put_home;
    frame.pose.foot_C = body_.follow(frame.pose.foot_C, seconds, anew);
    frame.eye_C = eye_.follow(eyes_of(frame.pose, profile_.capsule), seconds, anew);
    frames_.push_back(frame);
  }
  std::vector<DrawnFrame>& frames() { return frames_; }

 private:
  const Profile& profile_;
  Follower body_, eye_;
  std::vector<DrawnFrame> frames_;
};

// Steps of equal length in which a frame's time is moved.
int steps_in(double seconds) {
  constexpr double kShortest = 1e-6;  // s.
  return seconds < kShortest ? 0 : static_cast<int>(std::ceil(seconds / kLongestStep - 1e-9));
}

// How far from `before` to `now` a method draws.
double drawn_blend(DrawMethod method, double blend) { return method == DrawMethod::Interpolated ? blend : 1.0; }

DrawnFrame frame_of_ticks(const TickedRun& run, std::size_t tick, double at, double blend,
                          const Drawing& drawing, const Profile& profile) {
  const CharacterState &now = run.states[tick], &before = run.states[tick > 0 ? tick - 1 : 0];
  const double waiting = blend / run.tick_rate, mixed = drawn_blend(drawing.method, blend);
  DrawnFrame frame{};
  frame.at = at;
  frame.moment = (static_cast<double>(tick) + blend) / run.tick_rate;
  frame.blend = blend;
  frame.tick = static_cast<std::uint32_t>(tick);
  draw_between(before, now, mixed, drawing.eye_smoothing, frame);
  frame.look = look_between(before, now, mixed);
  if (drawing.method == DrawMethod::Ahead) {
    frame.pose.foot_C += now.velocity_C * waiting;
    frame.pieces_at += waiting;
  }
  if (drawing.look_at_draw_rate) {
    const Vec2 turned =
        tick < run.inputs.size() ? turned_since(now, run.inputs[tick], blend, 1.0 / run.tick_rate) : Vec2(0.0);
    frame.look = drawn_look(now, turned, profile.look, mixed);
  }
  return frame;
}

}  // namespace

Vec3 Follower::follow(const Vec3& goal_C, double seconds, bool begins_anew) {
  if (!begun_ || begins_anew || std::isinf(rate_)) {
    begun_ = true;
    off_C_ = Vec3(0.0);
  } else if (seconds > 0.0) {
    const double kept = std::exp(-rate_ * seconds);
    off_C_ = off_C_ * kept - (goal_C - goal_C_) * ((1.0 - kept) / (rate_ * seconds));
  }
  goal_C_ = goal_C;
  return goal_C + off_C_;
}

std::vector<double> frame_times(const DisplayClock& clock, double seconds) {
  std::vector<double> times;
  auto hitch = clock.hitches.begin();
  double at = 0.0, since = 0.0;  // `since`, and how many even frames ago, so that rounding does not add up.
  std::uint64_t even = 0;
  for (std::uint64_t frame = 0; at < seconds; ++frame) {
    times.push_back(at);
    if (hitch != clock.hitches.end() && at >= hitch->at) {
      since = at = at + hitch->seconds;
      even = 0;
      ++hitch;
    } else if (!clock.measured.empty()) {
      at += clock.measured[frame % clock.measured.size()];
    } else {
      const double off = clock.unevenness > 0.0 ? clock.unevenness * uneven(clock.seed, frame) : 0.0;
      at = since + (static_cast<double>(++even) + 0.5 * off) / clock.frames_per_second;
    }
  }
  return times;
}

std::string word_of(const Drawing& drawing) {
  const std::string word(kWords[static_cast<std::size_t>(drawing.method)]);
  return drawing.method == DrawMethod::Chase ? fmt::format("{}:{:g}", word, drawing.chase_rate) : word;
}

std::optional<Drawing> drawing_of(std::string_view word) {
  const auto colon = word.find(':');
  const auto found = std::find(kWords.begin(), kWords.end(), word.substr(0, colon));
  if (found == kWords.end()) return std::nullopt;
  Drawing drawing;
  drawing.method = static_cast<DrawMethod>(found - kWords.begin());
  if (colon == std::string_view::npos) return drawing;
  const std::string_view rate = word.substr(colon + 1);
  const auto read = std::from_chars(rate.data(), rate.data() + rate.size(), drawing.chase_rate);
  const bool fine = read.ec == std::errc{} && read.ptr == rate.data() + rate.size() &&
                    std::isfinite(drawing.chase_rate) && drawing.chase_rate > 0.0;
  if (!fine || drawing.method != DrawMethod::Chase) return std::nullopt;
  return drawing;
}

TickedRun ticked_run(const CharacterState& start, const InputScript& script, const Profile& profile,
                     const World& world, int tick_rate, double seconds) {
  return ticked_run(start, frames_of(script, tick_rate, seconds), profile, world, tick_rate);
}

TickedRun ticked_run(const CharacterState& start, std::vector<InputFrame> inputs, const Profile& profile,
                     const World& world, int tick_rate) {
  TickedRun run{tick_rate, std::move(inputs), {start}};
  run.states.reserve(run.inputs.size() + 1);
  drive(start, run.inputs, profile, world, tick_rate,
        [&](const CharacterState& state, const Ledger*) { run.states.push_back(state); });
  return run;
}

FrameRun run_in_frames(const CharacterState& start, const InputScript& script, const Profile& profile,
                       const World& world, std::span<const double> times, double longest_catch_up) {
  FrameRun run;
  InputPlayer player(script);
  for (std::size_t i = 0; i < times.size(); ++i) {
    const double passed = i > 0 ? times[i] - times[i - 1] : 0.0, moved = std::min(passed, longest_catch_up);
    CharacterState state = i > 0 ? run.states.back() : start;
    run.dropped += passed - moved;
    const int steps = steps_in(moved);
    for (int k = 0; k < steps; ++k)
      state = step(state, player.next(moved / steps), profile, world, moved / steps);
    run.at.push_back(times[i]);
    run.moments.push_back(times[i] - run.dropped);
    run.states.push_back(state);
  }
  return run;
}

std::vector<DrawnFrame> drawn_frames(const TickedRun& run, std::span<const double> times,
                                     const Drawing& drawing, const Profile& profile, double longest_catch_up,
                                     double* dropped) {
  FixedStepClock clock(run.tick_rate, longest_catch_up);
  Drawer drawer(drawing, profile);
  drawer.frames().reserve(times.size());
  std::size_t tick = 0;
  for (std::size_t i = 0; i < times.size(); ++i) {
    if (i > 0) tick += static_cast<std::size_t>(clock.advance(times[i] - times[i - 1]));
    if (tick >= run.states.size()) break;
    DrawnFrame frame = frame_of_ticks(run, tick, times[i], clock.blend(), drawing, profile);
    drawer.finish(frame);
  }
  if (dropped != nullptr) *dropped = clock.dropped_seconds();
  return std::move(drawer.frames());
}

std::vector<DrawnFrame> drawn_frames(const FrameRun& run, const Drawing& drawing, const Profile& profile) {
  Drawer drawer(drawing, profile);
  drawer.frames().reserve(run.states.size());
  for (std::size_t i = 0; i < run.states.size(); ++i) {
    const CharacterState& state = run.states[i];
    DrawnFrame frame{};
    frame.at = run.at[i];
    frame.moment = run.moments[i];
    frame.tick = static_cast<std::uint32_t>(i);
    draw_between(state, state, 1.0, drawing.eye_smoothing, frame);
    frame.look = {state.yaw, state.pitch};
    drawer.finish(frame);
  }
  return std::move(drawer.frames());
}

}  // namespace lagniappe
