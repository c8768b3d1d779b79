// SPDX-License-Identifier: MIT
#include "motion/moving.h"

#include <algorithm>

#include "motion/contact_kind.h"
#include "motion/eye.h"
#include "motion/footing_change.h"
#include "motion/jumping.h"
#include "motion/piece_velocity.h"
#include "motion/slide.h"

namespace lagniappe {
namespace {

// s over which a piece has to stay ahead of a fall to be parted from: a real body does not notice shorter
// drops.
constexpr double kDropTime = 0.1;
// s after which it is ahead, if it ever is: an instant, but for rounding.
constexpr double kPartTime = 1e-3;
// s between looks at whether it does, and to which that is found.
constexpr double kSupportLooks = 0.01, kSupportFound = 1e-5;
// s before an instant, for what was until then.
constexpr double kJustBefore = 1e-7;
// Share of a way along the ground that has to lead away from what pushes; less would be a way through the wall.
constexpr double kGentlestPush = 0.1;

// The part of a rotation that turns about `up`, in radians.
double turn_about(const Quat& q, const Vec3& up) {
  return wrap_angle(2.0 * std::atan2(q.x * up.x + q.y * up.y + q.z * up.z, q.w));
}

// Look and body turn with what carries.
void turn_along(double yaw, CharacterState& state) {
  state.carried_yaw += static_cast<float>(yaw);
  state.yaw = wrap_angle(state.yaw + yaw);
  state.facing = wrap_angle(state.facing + yaw);
}

// Where collide and slide brings the capsule.
Vec3 shifted(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& shift_C) {
  return slide_in_air(context, body, foot_C, shift_C, Vec3(0.0), {}).foot_C;
}

// A piece that moves, as the world tells it.
struct Mover {
  const World& world;
  PieceId piece;

  RigidPose frame(double time) const { return world.piece_frame(piece, time); }
  RigidVelocity velocity(double time) const { return world.piece_velocity(piece, time); }
  // Where a point has come to that goes with it.
  Vec3 went(const Vec3& p_C, double from_time, double to_time) const {
    return frame(to_time).point(frame(from_time).back(p_C));
  }
};

// Whether, from `time` on, the piece underfoot goes down faster than one falls who has what it gave until then.
// `known_until`: the last time that the world can be asked about.
bool falls_away(const Values& profile, const Mover& mover, const CharacterState& state, double time,
                double known_until) {
  const Vec3 up = state.up_C(), foot_P = mover.frame(state.time).back(state.foot_C);
  const Vec3 foot = mover.frame(time).point(foot_P);
  const double given = dot(mover.velocity(time - kJustBefore).at(foot), up);
  const bool knows = mover.world.knows_ahead();
  if (!knows && known_until <= time) return false;
  // Where it is not known, it goes on as it does until then.
  const double speed = dot(mover.velocity(time).at(foot), up);
  const double growth =
      knows ? 0.0
            : (dot(mover.velocity(known_until).at(mover.frame(known_until).point(foot_P)), up) - speed) /
                  (known_until - time);
  const auto ahead = [&](double seconds) {
    const double piece = knows ? dot(mover.frame(time + seconds).point(foot_P) - foot, up)
                               : speed * seconds + 0.5 * growth * seconds * seconds;
    return given * seconds - 0.5 * profile.gravity * seconds * seconds - piece;
  };
  return ahead(kPartTime) > kTouch && ahead(kDropTime) > kGroundTouch;
}

// Whether two pieces move about the capsule as one, in this tick.
bool move_alike(const Mover& a, const Mover& b, const Body& body, const CharacterState& state, double to_time) {
  for (const double time : {0.5 * (state.time + to_time), to_time}) {
    for (const Vec3& end : {body.low_C, body.high_C}) {
      const Vec3 p = state.foot_C + end;
      if (length(a.went(p, state.time, time) - b.went(p, state.time, time)) > kTouch) return false;
    }
  }
  return true;
}

// Goes `shift_C` along the ground, round walls and up steps, with nothing lost.
Slid pushed_along_ground(const StepContext& context, const Body& body, const WorldPush& push,
                         const CharacterState& state) {
  const Vec3& ground = state.ground.normal_C;
  const Vec3 flat = unit_or(body.flat(push.shift_C), Vec3(0.0));
  const Vec3 laid = laid_on(flat, ground, body.up_C, SpeedOnSlopes::Level);
  const double clears = dot(laid, push.normal_C);
  if (clears <= kGentlestPush) return Slid{state.foot_C, Vec3(0.0)};
  GroundSlide how;
  how.plain = true;
  how.measure = SpeedOnSlopes::Level;
  how.resting_C = state.ground.point_C;
  return slide_on_ground(context, body.without(push.piece), state.foot_C,
                         flat * (dot(push.shift_C, push.normal_C) / clears), Vec3(0.0), ground, how);
}

Slid pushed(const StepContext& context, const Body& body, const WorldPush& push, const CharacterState& state) {
  const ContactKind kind = contact_kind(context.profile, Surface{}, push.normal_C, body.up_C);
  const bool upright = kind == ContactKind::Ground || kind == ContactKind::Ceiling;
  if (held_by_ground(state) && !upright) return pushed_along_ground(context, body, push, state);
  return slide_in_air(context, body.without(push.piece), state.foot_C, push.shift_C, Vec3(0.0), {});
}

// A piece that strikes gives a share of its speed.
void strike(const StepContext& context, const WorldPush& push, CharacterState& state) {
  const double share = context.profile.walls.strike;
  if (share <= 0.0) return;
  const Vec3 own = piece_velocity(context, push.piece, push.point_C) - state.ground_velocity_C;
  const double wanted = share * dot(own, push.normal_C), has = dot(state.velocity_C, push.normal_C);
  if (wanted > has) state.velocity_C += push.normal_C * (wanted - has);
}

}  // namespace

Vec3 ground_velocity(const StepContext& context, const CharacterState& state) {
  return piece_velocity(context, state.ground.piece, state.foot_C) +
         drift_of(context.world, state.ground, context.now.time);
}

Vec3 drift_of(const World& world, const Ground& ground, double time) {
  const Vec3 drift = world.surface_drift(ground.piece, time);
  return drift == Vec3(0.0) ? drift : across(drift, ground.normal_C);
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

double until_support_falls(const World& world, const Values& profile, const CharacterState& state,
                           double most) {
  if (!held_by_ground(state)) return most;
  if (!world.moves(state.ground.piece) || !world.knows_ahead()) return most;
  const Mover mover{world, state.ground.piece};
  const auto falls = [&](double seconds) {
    return falls_away(profile, mover, state, state.time + seconds, state.time + most);
  };
  if (falls(0.0)) return most;
  const int looks = static_cast<int>(std::ceil(most / kSupportLooks));
  double low = 0.0;
  for (int i = 1; i <= looks; ++i) {
    double high = most * i / looks;
    if (falls(high)) {
      while (high - low > kSupportFound) {
        const double middle = 0.5 * (low + high);
        (falls(middle) ? high : low) = middle;
      }
      return std::min(high + kPartTime, most);  // It is seen that much ahead.
    }
    low = high;
  }
  return most;
}

// Along with the surface of a piece that stands still.
static Carried go_with_belt(const StepContext& context, const Body& body, const Vec3& drift,
                            CharacterState& state) {
  const Vec3 shift = drift * context.dt, wanted = state.foot_C + shift;
  state.carried = true;
  state.foot_C = shifted(context, body.among_still(), state.foot_C, shift);
  context.note(entry::Carry{state.ground.piece, shift, 0.0, length(wanted - state.foot_C) > kGroundTouch});
  state.ground.point_C += shift;
  state.ground_velocity_C = ground_velocity(context, state);
  return {shift, state.ground.piece};
}

Carried carry(const StepContext& context, const Body& body, CharacterState& state) {
  state.ground_velocity_C = Vec3(0.0);
  if (!held_by_ground(state)) return {};
  const Vec3 drift = drift_of(context.world, state.ground, state.time);
  if (!context.world.moves(state.ground.piece))
    return drift != Vec3(0.0) ? go_with_belt(context, body, drift, state) : Carried{};
  const Mover mover{context.world, state.ground.piece};
  const Vec3 given = mover.velocity(state.time - kJustBefore).at(state.foot_C);
  if (falls_away(context.profile, mover, state, state.time, context.now.time)) {
    state.ground_velocity_C = given;
    leave_ground(context, state);
    state.ground = Ground{};
    return {};
  }

  const RigidPose before = mover.frame(state.time), after = mover.frame(context.now.time);
  const auto along = [&](const Vec3& p_C) { return after.point(before.back(p_C)); };
  const Quat turned = after.rotation_CP * glm::conjugate(before.rotation_CP);
  const double yaw = turn_about(turned, body.up_C);
  // The resting point goes with the piece; the capsule stays upright over it.
  const Vec3 shift = along(state.ground.point_C) - state.ground.point_C +
                     glm::angleAxis(yaw, body.up_C) * (state.foot_C - state.ground.point_C) -
                     (state.foot_C - state.ground.point_C) + drift * context.dt;
  state.carried = true;
  const Vec3 wanted = state.foot_C + shift;
  if (length_squared(shift) > 0.0) state.foot_C = shifted(context, body.among_still(), state.foot_C, shift);
  context.note(entry::Carry{state.ground.piece, shift, yaw, length(wanted - state.foot_C) > kGroundTouch});

  turn_along(yaw, state);
  const Quat about_up = glm::angleAxis(yaw, body.up_C);
  state.velocity_C = about_up * state.velocity_C;
  state.acceleration_C = about_up * state.acceleration_C;
  state.ground.point_C = along(state.ground.point_C);
  state.ground.normal_C = turned * state.ground.normal_C;
  state.ground_trend_C = turned * Vec3(state.ground_trend_C);
  state.ground_velocity_C = ground_velocity(context, state);
  return {shift, state.ground.piece};
}

Carried go_with_hold(const StepContext& context, const Body& body, CharacterState& state) {
  if (!context.world.moves(state.hold.piece)) return {};
  const Mover mover{context.world, state.hold.piece};
  const Vec3 shift = mover.went(state.foot_C, state.time, context.now.time) - state.foot_C;
  const Quat turned =
      mover.frame(context.now.time).rotation_CP * glm::conjugate(mover.frame(state.time).rotation_CP);
  const double yaw = turn_about(turned, body.up_C);
  const Vec3 wanted = state.foot_C + shift;
  state.carried = true;
  if (length_squared(shift) > 0.0) state.foot_C = shifted(context, body.among_still(), state.foot_C, shift);
  context.note(entry::Carry{state.hold.piece, shift, yaw, length(wanted - state.foot_C) > kGroundTouch});
  turn_along(yaw, state);
  return {shift, state.hold.piece};
}

Carried accompany(const StepContext& context, const Body& body, CharacterState& state) {
  if (held_by_ground(state) || !context.world.has_movers()) return {};
  const double dt = context.dt;
  const double way = length(state.velocity_C) * dt + context.profile.gravity * dt * dt;
  std::array<WorldContact, kMostContacts> near;
  const std::size_t count = context.world.contacts(
      body.axis(state.foot_C), body.radius + way + context.profile.air.highest_step, near, body.now);
  if (count == 0) return {};
  const Mover first{context.world, near[0].piece};
  for (std::size_t i = 0; i < count; ++i) {
    if (!context.world.moves(near[i].piece)) return {};
    const Mover other{context.world, near[i].piece};
    if (other.piece != first.piece && !move_alike(first, other, body, state, context.now.time)) return {};
  }
  const Vec3 shift = first.went(state.foot_C, state.time, context.now.time) - state.foot_C;
  state.foot_C += shift;
  return {shift, near[0].piece};
}

Pushes take_pushes(const StepContext& context, const Body& body, const Carried& carried,
                   CharacterState& state) {
  Pushes pushes;
  pushes.carried_C = carried.shift_C;
  // What is in the midst of a piece is not taken along by it; once it is past, there is a way out again.
  if (state.crushed) return pushes;
  while (pushes.count < kMostPlanes) {
    const auto push = context.world.first_push(body.axis(state.foot_C), body.radius, state.time,
                                               context.now.time, carried.by);
    if (!push) break;
    const Slid slid = pushed(context, body, *push, state);
    const Vec3 shift = slid.foot_C - state.foot_C;
    state.foot_C = slid.foot_C;
    hold_eye_back(context, slid.lifted, 0.0, state);
    strike(context, *push, state);
    pushes.shift_C[pushes.count++] = shift;
    const bool blocked = dot(push->shift_C - shift, push->normal_C) > kGroundTouch;
    context.note(entry::Push{push->piece, shift, push->point_C, push->normal_C, blocked});
    if (blocked) break;
  }
  return pushes;
}

}  // namespace lagniappe
