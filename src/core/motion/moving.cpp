// SPDX-License-Identifier: MIT
#include "motion/moving.h"

#include <algorithm>

#include "motion/slide.h"

namespace lagniappe {
namespace {

// A push of which more than this share goes up or down lifts; less moves along the ground.
constexpr double kLiftShare = 0.7;

// The part of a rotation that turns about `up`, in radians.
double turn_about(const Quat& q, const Vec3& up) {
  return wrap_angle(2.0 * std::atan2(q.x * up.x + q.y * up.y + q.z * up.z, q.w));
}

// Where collide and slide brings the capsule.
Vec3 shifted(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& shift_C) {
  return slide_in_air(context, body, foot_C, shift_C, Vec3(0.0), {}).foot_C;
}

bool standing_on_something(const CharacterState& state) {
  return state.ground.verdict == Verdict::Walkable || state.ground.verdict == Verdict::Steep;
}

// Pushed along the ground rather than into it, by as much as clears the piece.
Vec3 along_ground(const Body& body, const WorldPush& push) {
  if (std::abs(dot(push.normal_C, body.up_C)) > kLiftShare) return push.shift_C;
  const Vec3 flat = body.flat(push.normal_C);
  return flat * (length(push.shift_C) / length_squared(flat));
}

}  // namespace

Vec3 ground_velocity(const StepContext& context, const Ground& ground) {
  const PieceMotion* motion = context.world.motion_of(ground.piece);
  return motion != nullptr ? motion->velocity_at(context.now.time).at(ground.point_C) : Vec3(0.0);
}

Vec3 inherited_velocity(const StepContext& context, const Vec3& ground_velocity_C, const Vec3& up_C) {
  switch (context.profile.jump.inherits) {
    case Profile::Jump::Inherits::All:
      return ground_velocity_C;
    case Profile::Jump::Inherits::Horizontal:
      return across(ground_velocity_C, up_C);
    case Profile::Jump::Inherits::None:
      break;
  }
  return Vec3(0.0);
}

void carry(const StepContext& context, const Body& body, CharacterState& state) {
  state.velocity_C -= state.ground_velocity_C;
  state.ground_velocity_C = Vec3(0.0);
  state.carried = false;
  state.carried_yaw = 0.0f;
  if (!standing_on_something(state)) return;
  const PieceMotion* motion = context.world.motion_of(state.ground.piece);
  if (motion == nullptr) return;

  const RigidPose before = motion->pose_at(state.time), after = motion->pose_at(context.now.time);
  const auto along = [&](const Vec3& p_C) { return after.point(before.back(p_C)); };
  const Quat turned = after.rotation_CP * glm::conjugate(before.rotation_CP);
  const double yaw = turn_about(turned, body.up_C);
  // The resting point goes with the piece; the capsule stays upright over it.
  const Vec3 shift = along(state.ground.point_C) - state.ground.point_C +
                     glm::angleAxis(yaw, body.up_C) * (state.foot_C - state.ground.point_C) -
                     (state.foot_C - state.ground.point_C);
  state.carried = true;
  const Vec3 wanted = state.foot_C + shift;
  if (length_squared(shift) > 0.0)
    state.foot_C = shifted(context, body.without(state.ground.piece), state.foot_C, shift);
  context.note(entry::Carry{state.ground.piece, shift, yaw, length(wanted - state.foot_C) > kGroundTouch});

  state.carried_yaw = static_cast<float>(yaw);
  state.yaw = wrap_angle(state.yaw + yaw);
  state.facing = wrap_angle(state.facing + yaw);
  const Quat about_up = glm::angleAxis(yaw, body.up_C);
  state.velocity_C = about_up * state.velocity_C;
  state.acceleration_C = about_up * state.acceleration_C;
  state.ground.point_C = along(state.ground.point_C);
  state.ground.normal_C = turned * state.ground.normal_C;
  state.ground_trend_C = turned * Vec3(state.ground_trend_C);
  state.ground_velocity_C = ground_velocity(context, state.ground);
}

void take_pushes(const StepContext& context, const Body& body, CharacterState& state) {
  // What is in the midst of a piece is not taken along by it; once it is past, there is a way out again.
  if (state.crushed) return;
  const PieceId carrier = state.carried ? state.ground.piece : kNoPiece;
  for (int push_number = 0; push_number < kMostPlanes; ++push_number) {
    const auto push =
        context.world.first_push(body.axis(state.foot_C), body.radius, state.time, context.now.time, carrier);
    if (!push) return;
    const Vec3 shift = standing_on_something(state) ? along_ground(body, *push) : push->shift_C;
    const Vec3 wanted = state.foot_C + shift;
    state.foot_C = shifted(context, body.without(push->piece), state.foot_C, shift);
    const bool blocked = length(wanted - state.foot_C) > kGroundTouch;
    context.note(entry::Push{push->piece, shift, push->point_C, push->normal_C, blocked});
    if (blocked) return;
  }
}

}  // namespace lagniappe
