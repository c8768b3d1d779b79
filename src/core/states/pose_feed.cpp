// SPDX-License-Identifier: MIT
#include "lagniappe/pose_feed.h"

#include <algorithm>

#include "lagniappe/handling.h"
#include "motion/stance.h"

namespace lagniappe {
namespace {

constexpr double kMostLean = radians(30.0);
constexpr double kSlowest = 0.3;  // m/s under which there is no way to lean into.

Vec3 own_velocity(const CharacterState& s) { return across(s.velocity_C - s.ground_velocity_C, s.up_C()); }

double lean_of(const CharacterState& before, const CharacterState& after, double share, double dt) {
  const Vec3 from = own_velocity(before), to = own_velocity(after);
  if (!after.grounded() || length(to) < kSlowest) return 0.0;
  const Vec3 right = unit_or(cross(to, after.up_C()), Vec3(0.0));
  return std::clamp(dot(to - from, right) / dt * share, -kMostLean, kMostLean);
}

double share_between(double value, double none, double all) {
  return all == none ? 0.0 : std::clamp((value - none) / (all - none), 0.0, 1.0);
}

}  // namespace

PoseFeed pose_feed(const CharacterState& before, const CharacterState& after, const Profile& profile,
                   double dt) {
  const StateChart& chart = chart_of(profile);
  const Values values = chart.values_in(after.state, profile);
  const Vec3 up = after.up_C(), own = after.velocity_C - after.ground_velocity_C;
  PoseFeed feed;
  feed.state = chart.name_of(after.state);
  feed.pose = chart.state(after.state).pose;
  feed.time_in_state = after.state_time;
  feed.time_on_ground = after.ground_time;
  feed.speed = after.grounded() ? length(own) : length(across(own, up));
  const double full = after.grounded() ? values.ground.speed : values.air.speed;
  feed.speed_ratio = full > 0.0 ? feed.speed / full : 0.0;
  feed.rise_speed = dot(after.velocity_C, up);
  feed.stride_phase = after.stride;
  feed.stride_length = stride_length(values.gait, feed.speed);
  feed.turn_rate = wrap_angle(after.facing - before.facing) / dt;
  feed.lean = lean_of(before, after, values.gait.lean, dt);
  if (after.ground.verdict != Verdict::None) {
    const Vec3 ahead = look_direction(after.frame_CB, after.facing, 0.0);
    feed.slope_pitch = slope_along(ahead, after.ground.normal_C, up);
    feed.slope_roll = slope_along(cross(ahead, up), after.ground.normal_C, up);
  }
  const double fall = -dot(before.velocity_C - after.ground_velocity_C, up);
  if (after.grounded() && !before.grounded())
    feed.landing = std::clamp(fall / values.gait.landing_speed, 0.0, 1.0);
  feed.crouch = share_between(after.capsule_height, values.capsule.height, crouched_height(values));
  feed.lying = share_between(after.lie_length, 0.0, values.stances.lying_length - 2.0 * values.capsule.radius);
  feed.lie_pitch = after.lie_pitch;
  if (!after.holding()) return feed;
  const Hold& hold = after.hold;
  feed.hold = name_of(hold.kind);
  feed.hold_phase = hold.phase();
  feed.hold_piece = hold.piece;
  if (hold.kind == Hold::Kind::Hang) {
    feed.hold_rim_P = hold.at_P;
    feed.hold_away_P = Vec3(hold.rim().normal_P);
    feed.hold_along_P = Vec3(hold.rim().along_P);
    feed.hold_wall = hold.rim().wall;
    return feed;
  }
  if (hold.kind == Hold::Kind::Climb) {
    feed.hold_rim_P = hold.at_P + Vec3(hold.wall().hands_P);
    feed.hold_away_P = Vec3(hold.wall().normal_P);
    feed.hold_wall = values.capsule.radius + values.climb.gap;
    feed.hold_spacing = hold.wall().spacing;
    feed.hold_over_rung = hold.wall().over_rung;
    return feed;
  }
  feed.hold_rim_P = hold.at_P + Vec3(hold.way().rim_P);
  feed.hold_from_P = hold.at_P;
  feed.hold_to_P = hold.at_P + Vec3(hold.way().to_P);
  return feed;
}

}  // namespace lagniappe
