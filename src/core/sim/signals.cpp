// SPDX-License-Identifier: MIT
#include "lagniappe/signals.h"

#include <algorithm>

namespace lagniappe {
namespace {

constexpr double kFarthestGround = 50.0;  // m; farther is not told apart.

double slope(const CharacterState& s) {
  if (s.ground.verdict == Verdict::None) return 0.0;
  return degrees(std::acos(std::clamp(dot(s.ground.normal_C, s.up_C()), -1.0, 1.0)));
}

// Along the surface on the ground, across up in the air, against what carries.
double ground_speed(const CharacterState& s) {
  const Vec3 own = s.velocity_C - s.ground_velocity_C;
  return s.grounded() ? length(own) : length(across(own, s.up_C()));
}

double distance_to_ground(const SignalView& v) {
  const Vec3 up = v.state.up_C();
  const double radius = v.profile.capsule.radius;
  const Segment ball{v.state.foot_C + up * radius, v.state.foot_C + up * radius};
  const auto hit = v.world.sweep(ball, radius, -up * kFarthestGround, {v.state.time});
  return hit ? hit->hit.fraction * kFarthestGround : kFarthestGround;
}

constexpr Signal kSignals[] = {
    {"ground_speed", "speed along ground", "m/s", [](const SignalView& v) { return ground_speed(v.state); }},
    {"rise_speed", "rise speed", "m/s",
     [](const SignalView& v) { return dot(v.state.velocity_C, v.state.up_C()); }},
    {"height", "height above start", "m",
     [](const SignalView& v) { return dot(v.state.foot_C - v.start.foot_C, v.start.up_C()); }},
    {"speed", "speed", "m/s", [](const SignalView& v) { return length(v.state.velocity_C); }},
    {"acceleration", "acceleration", "m/s2",
     [](const SignalView& v) { return length(v.state.velocity_C - v.before.velocity_C) / v.dt; }},
    {"slope", "slope", "deg", [](const SignalView& v) { return slope(v.state); }},
    {"distance_to_ground", "distance to ground", "m", distance_to_ground},
    {"capsule_height", "capsule height", "m", [](const SignalView& v) { return v.state.capsule_height; }},
    {"wish", "stick", "", [](const SignalView& v) { return std::min(length(v.input.move), 1.0); }},
    {"stick_right", "stick right", "", [](const SignalView& v) { return v.input.move.x; }},
    {"stick_forward", "stick forward", "", [](const SignalView& v) { return v.input.move.y; }},
    {"yaw", "look yaw", "deg", [](const SignalView& v) { return degrees(v.state.yaw); }},
    {"pitch", "look pitch", "deg", [](const SignalView& v) { return degrees(v.state.pitch); }},
    {"facing", "facing", "deg", [](const SignalView& v) { return degrees(v.state.facing); }},
    {"state_time", "time in state", "s", [](const SignalView& v) { return v.state.state_time; }},
    {"off_ground", "time off ground", "s",
     [](const SignalView& v) {
       return v.state.grounded() ? 0.0 : std::min(v.state.since_grounded, v.state.state_time + 60.0);
     }},
    {"travelled", "way on ground", "m", [](const SignalView& v) { return v.state.travelled; }},
    {"slides", "planes met", "", [](const SignalView& v) { return static_cast<double>(v.state.slides); }},
    {"snapped", "snapped", "m", [](const SignalView& v) { return v.state.snapped; }},
    {"penetration", "penetration", "m", [](const SignalView& v) { return v.state.penetration; }},
    {"eye_offset", "eye offset", "m",
     [](const SignalView& v) { return dot(v.state.eye_offset_C, v.state.up_C()); }},
    {"carried_speed", "speed of what carries", "m/s",
     [](const SignalView& v) { return length(v.state.ground_velocity_C); }},
    {"x", "foot x", "m", [](const SignalView& v) { return v.state.foot_C.x; }},
    {"y", "foot y", "m", [](const SignalView& v) { return v.state.foot_C.y; }},
    {"z", "foot z", "m", [](const SignalView& v) { return v.state.foot_C.z; }},
};

}  // namespace

std::span<const Signal> all_signals() { return kSignals; }

const Signal* find_signal(std::string_view key) {
  const auto found =
      std::find_if(std::begin(kSignals), std::end(kSignals), [&](const Signal& s) { return s.key == key; });
  return found == std::end(kSignals) ? nullptr : found;
}

double value_at(const Signal& signal, const Run& run, const Take& take, const World& world, std::size_t tick) {
  static const InputFrame none;
  const bool first = tick == 0;
  return signal.value({run.state(first ? 0 : tick - 1), run.state(tick), first ? none : take.inputs[tick - 1],
                       take.profile, world, run.state(0), 1.0 / run.tick_rate()});
}

}  // namespace lagniappe
