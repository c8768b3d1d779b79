// SPDX-License-Identifier: MIT
#include "motion/upright.h"

#include <algorithm>

#include "lagniappe/turns.h"
#include "math/integrators.h"
#include "motion/climbing.h"
#include "motion/footing_change.h"
#include "motion/holding.h"
#include "motion/look.h"
#include "motion/push_out.h"

namespace lagniappe {
namespace {

// m/s2: what pulls less is nothing, else rounding would say where down is.
constexpr double kWeightless = 1e-3;
// rad: rounding turns nobody.
constexpr double kLeastTurn = 1e-11;
// Of a turn that does not fit, to which the share that does is found.
constexpr int kHalvings = 6;

// rad that is left of a turn by `angle` after `dt` at most at `rate`, the last of it smoothly over `time`; what
// is turned to has itself come `ahead` rad farther in that time, evenly.
double left_of_turn(double angle, double ahead, double rate, double time, double dt) {
  if (time <= 0.0) return std::max(angle - rate * dt, 0.0);
  const double even = rate * time;  // Beyond this the rate is what bounds it.
  if (angle - ahead <= even) {
    const double kept = decay_share(time, dt);
    const double left = (angle - ahead) * kept + ahead * (time / dt) * (1.0 - kept);
    return std::max(left, angle - rate * dt);
  }
  const double linear = std::min((angle - even) / rate, dt);
  return (angle - rate * linear) * decay_share(time, dt - linear);
}

bool is_free(const StepContext& context, const CharacterState& state) {
  const double radius = context.profile.capsule.radius;
  std::array<WorldContact, 1> touched;
  return context.world.contacts(capsule_axis(state, radius), radius - context.profile.capsule.margin, touched,
                                context.now) == 0;
}

// Whether neither end of the body went through a face on the way.
bool went_through_nothing(const StepContext& context, const CharacterState& from, const CharacterState& state) {
  const double radius = context.profile.capsule.radius;
  const Segment before = capsule_axis(from, radius), after = capsule_axis(state, radius);
  return !context.world.cast_ray(before.a_C, after.a_C - before.a_C, context.now) &&
         !context.world.cast_ray(before.b_C, after.b_C - before.b_C, context.now);
}

// Whether there is room for a body that was turned by so many rad: if need be a little aside, by no more than
// its head went.
bool fits(const StepContext& context, double turned_by, const CharacterState& from, CharacterState& state) {
  if (!is_free(context, state)) {
    StepContext silent = context;
    silent.ledger = nullptr;
    const PushedOut out = push_out(silent, Body(silent, state), state.foot_C);
    if (out.crushed || length(out.foot_C - state.foot_C) > turned_by * state.capsule_height) return false;
    state.foot_C = out.foot_C;
  }
  return went_through_nothing(context, from, state);
}

// Who stands on his head is turned forwards, as rounding would choose otherwise.
Vec3 axis_of_turn(const CharacterState& state, const Vec3& target_C) {
  constexpr double kOnHisHead = 1e-6;
  const Vec3 up = state.up_C();
  if (length(cross(up, target_C)) > kOnHisHead || dot(up, target_C) > 0.0) return axis_between(up, target_C);
  return cross(up, look_direction(state.frame_CB, state.facing, 0.0));
}

// Keeps the round of the foot as far from the ground's plane as it was: touching, but on an edge, which bears
// it from the side.
void stay_on_ground(double radius, const CharacterState& from, CharacterState& state) {
  const Vec3 up = state.up_C(), &normal = state.ground.normal_C;
  const double upright = dot(up, normal);
  constexpr double kFlattest = 0.2;
  if (upright < kFlattest) return;
  const Vec3 went = state.foot_C + up * radius - (from.foot_C + from.up_C() * radius);
  state.foot_C -= up * (dot(went, normal) / upright);
}

CharacterState turned(const StepContext& context, const CharacterState& from, const Quat& turn) {
  CharacterState state = from;
  state.frame_CB = glm::normalize(turn * from.frame_CB);
  const bool on_ground = held_by_ground(from);
  if (!on_ground && !from.holding()) {
    const Vec3 centre = centre_of_mass(context.profile, from);
    state.foot_C = centre + turn * (from.foot_C - centre);
  }
  if (on_ground) stay_on_ground(context.profile.capsule.radius, from, state);
  state.acceleration_C = turn * from.acceleration_C;
  if (on_ground) state.ground_trend_C = turn * Vec3(from.ground_trend_C);
  if (from.wall_normal_C != Vec3(0.0))
    state.wall_normal_C = unit_or(across(from.wall_normal_C, state.up_C()), Vec3(0.0));
  return state;
}

// rad to turn about the axis. About the foot the centre of mass goes along, and the pull is another there: by
// how much after one such turn tells where that ends.
double angle_to_turn(const StepContext& context, const Vec3& axis, double angle, const CharacterState& state) {
  if (!held_by_ground(state) && !state.holding()) return angle;
  const CharacterState once = turned(context, state, glm::angleAxis(angle, axis));
  const Felt there =
      feel(context.world, centre_of_mass(context.profile, once), context.now.time, context.felt.own_gravity);
  constexpr double kMostFollowed = 0.9;
  const double more = std::atan2(dot(cross(once.up_C(), there.up_C), axis), dot(once.up_C(), there.up_C));
  const double follows = more / angle;
  return std::abs(follows) < kMostFollowed ? std::min(angle / (1.0 - follows), kPi) : angle;
}

void turn_towards_pull(const StepContext& context, const Vec3& target_C, CharacterState& state) {
  const Vec3 up = state.up_C(), axis = axis_of_turn(state, target_C);
  const double straight = angle_between(up, target_C);
  if (straight < kLeastTurn) return;
  const double angle = angle_to_turn(context, axis, straight, state);
  const Profile::Upright& values = context.profile.upright;
  const double ahead =
      context.felt.up_C != Vec3(0.0) ? std::min(angle_between(context.felt.up_C, target_C), angle) : 0.0;
  const double left = left_of_turn(angle, ahead, values.turn_rate, values.time, context.dt);
  const double wanted = angle - left;
  if (!(wanted > 0.0)) return;
  CharacterState now = state;
  const auto goes = [&](double share) {
    now = turned(context, state, glm::angleAxis(wanted * share, axis));
    return fits(context, wanted * share, state, now);
  };
  // Who is in the midst of something is turned all the same: it is for push-out to find the way.
  double share = 1.0;
  if (!goes(1.0) && is_free(context, state)) {
    double high = 1.0;
    share = 0.0;
    for (int i = 0; i < kHalvings; ++i) {
      const double middle = 0.5 * (share + high);
      (goes(middle) ? share : high) = middle;
    }
    goes(share);
  }
  state = now;
  come_to_gap(context, state);
  context.note(entry::Upright{angle, wanted * share, values.turn_rate * context.dt, share == 1.0});
}

}  // namespace

Vec3 centre_of_mass(const Values& values, const CharacterState& state) {
  const Vec3 up = state.up_C();
  if (state.lying()) return state.foot_C + up * values.capsule.radius;
  const double share = state.capsule_height / values.capsule.height;
  return state.foot_C + up * (values.capsule.centre_of_mass * share);
}

Felt feel(const World& world, const Vec3& point_C, double time, double own_gravity) {
  Felt felt;
  const Surroundings here = world.surroundings(point_C, time);
  if (!here.gravity) return felt;
  felt.gravity = *here.gravity;
  felt.says = true;
  felt.own_gravity = own_gravity;
  felt.pull_C = felt.gravity.of(own_gravity);
  const double strength = length(felt.pull_C);
  if (strength > kWeightless) felt.up_C = felt.pull_C / -strength;
  return felt;
}

Felt turn_upright(const StepContext& context, CharacterState& state) {
  const Felt now =
      feel(context.world, centre_of_mass(context.profile, state), context.now.time, context.felt.own_gravity);
  const Hold::Kind held = state.hold.kind;
  const bool on_its_way = state.holding() && held != Hold::Kind::Hang && held != Hold::Kind::Climb;
  if (now.up_C != Vec3(0.0) && !on_its_way) turn_towards_pull(context, now.up_C, state);
  return now;
}

}  // namespace lagniappe
