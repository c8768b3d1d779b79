// SPDX-License-Identifier: MIT
#include "motion/look.h"

#include <algorithm>

#include "lagniappe/pose.h"
#include "lagniappe/turns.h"

namespace lagniappe {
namespace {

Vec2 within_limits(const Vec2& look, const Profile::Look& limits) {
  return {wrap_angle(look.x), std::clamp(look.y, limits.lowest_pitch, limits.highest_pitch)};
}

Vec3 direction_B(double yaw, double pitch) {
  return {-std::sin(yaw) * std::cos(pitch), std::sin(pitch), -std::cos(yaw) * std::cos(pitch)};
}

Intent normalized(const Vec3& wanted) {
  const double share = length(wanted);
  return share > 0.0 ? Intent{wanted / share, std::min(share, 1.0)} : Intent{Vec3(0.0), 0.0};
}

// A direction of the look's plane on the plane that one goes on: carried there as up is.
Vec3 on_floor(const StepContext& context, const CharacterState& state, const Vec3& direction_C) {
  const Vec3 up = state.up_C(), floor = context.up_of(state);
  constexpr double kUpsideDown = -0.999;
  if (up == floor) return direction_C;
  if (dot(up, floor) < kUpsideDown) return across(direction_C, floor);
  return smallest_turn(up, floor) * direction_C;
}

}  // namespace

Vec3 look_direction(const Quat& frame_CB, double yaw, double pitch) {
  return frame_CB * direction_B(yaw, pitch);
}

Segment capsule_axis(const CharacterState& state, double radius) {
  const Vec3 up = state.up_C();
  if (!state.lying()) return capsule_axis(state.foot_C, up, radius, state.capsule_height);
  const Vec3 middle = state.foot_C + up * radius;
  const Vec3 half = look_direction(state.frame_CB, state.facing, state.lie_pitch) *
                    (0.5 * static_cast<double>(state.lie_length));
  return {middle - half, middle + half};
}

Vec2 turned_look(const Vec2& look, const Vec2& turn, const Profile::Look& limits) {
  return within_limits(look + turn, limits);
}

Vec2 drawn_look(const CharacterState& current, const Vec2& turned_since, const Profile::Look& look,
                double blend) {
  const double still_to_turn = current.carried_yaw * (1.0 - blend);
  return within_limits(Vec2(current.yaw - still_to_turn, current.pitch) + turned_since, look);
}

Intent ground_intent(const StepContext& context, const CharacterState& state) {
  const Vec2 stick = shaped_stick(context.input.move, context.profile.look.dead_zone);
  const Values& profile = context.profile;
  const bool in_place = profile.ground.facing == Profile::Ground::Facing::TurnInPlace;
  // In place the body has turned already; half of that back is the middle of the turn.
  const double yaw = in_place ? state.facing + 0.5 * stick.x * profile.ground.turn_rate * context.dt
                              : state.yaw - context.look_back.x;
  const double s = std::sin(yaw), c = std::cos(yaw);
  const Vec3 right_B(c, 0.0, -s), forward_B(-s, 0.0, -c);
  const Vec3 wanted_C = state.frame_CB * (right_B * (in_place ? 0.0 : stick.x) + forward_B * stick.y);
  Intent intent = normalized(on_floor(context, state, wanted_C));
  intent.turning = in_place ? -stick.x * profile.ground.turn_rate : 2.0 * context.look_back.x / context.dt;
  return intent;
}

Intent flight_intent(const StepContext& context, const CharacterState& state) {
  const Vec2 stick = shaped_stick(context.input.move, context.profile.look.dead_zone);
  const double yaw = state.yaw - context.look_back.x, pitch = state.pitch - context.look_back.y;
  const Vec3 right_B(std::cos(yaw), 0.0, -std::sin(yaw));
  const double lift =
      double(context.input.held.has(Action::Jump)) - double(context.input.held.has(Action::Crouch));
  const Vec3 wanted_B = right_B * stick.x + direction_B(yaw, pitch) * stick.y + Vec3(0.0, lift, 0.0);
  return normalized(state.frame_CB * wanted_B);
}

}  // namespace lagniappe
