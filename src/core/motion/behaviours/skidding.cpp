// SPDX-License-Identifier: MIT
#include "math/integrators.h"
#include "motion/behaviours/common.h"
#include "motion/behaviours/ways.h"
#include "motion/ground.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

using Why = entry::Change::Why;

// Down the slope by gravity less friction, which acts against the velocity; across it by steering, and wind.
Moved skid_down(const StepContext& context, const Body& body, const Intent& intent, const CharacterState& state,
                double grip, const Vec3& blown) {
  const Profile::Skid& skid = context.profile.skid;
  const Vec3& normal = state.ground.normal_C;
  // On the level, where only the surface forbids walking, steering is all there is.
  if (dot(normal, body.up_C) > kLevel) {
    const Vec3 target = intent.direction_C * (intent.share * skid.steering_speed) + blown;
    return approach_exponential(across(state.velocity_C, normal), across(target, normal), skid.steering_time,
                                context.dt);
  }
  const Vec3 down = unit_or(across(-body.up_C, normal), Vec3(0.0)), side = cross(normal, down);
  const double pull = context.profile.gravity * dot(down, -body.up_C);
  const double drag = context.profile.gravity * dot(normal, body.up_C) * grip;
  const MovedScalar along =
      slide_with_friction(dot(state.velocity_C, down), pull, drag, context.profile.terminal_speed, context.dt);
  const double steered = dot(intent.direction_C, side) * intent.share * skid.steering_speed + dot(blown, side);
  const Moved across_it =
      approach_exponential(side * dot(state.velocity_C, side), side * steered, skid.steering_time, context.dt);
  return {down * along.velocity + across_it.velocity, down * along.displacement + across_it.displacement};
}

// By its causes: gravity is what it is without friction and steering.
void tell_skid(const StepContext& context, const Body& body, const Intent& intent, const CharacterState& state,
               double grip, const Vec3& blown) {
  if (context.ledger == nullptr) return;
  const auto with = [&](bool steers, double some_grip, const Vec3& wind) {
    const Intent asked = steers ? intent : Intent{Vec3(0.0), 0.0};
    return skid_down(context, body, asked, state, some_grip, wind).velocity;
  };
  const Vec3 none(0.0), pulled = with(false, 0.0, none), slowed = with(false, grip, none),
                        steered = with(true, grip, none);
  context.note(
      entry::Gravity{pulled - state.velocity_C, context.profile.gravity, context.profile.terminal_speed, 0.0});
  tell_change(context, Why::Grip, slowed - pulled);
  tell_change(context, Why::Intent, steered - slowed);
  tell_change(context, Why::Wind, with(true, grip, blown) - steered);
}

}  // namespace

void skid(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  state.acceleration_C = Vec3(0.0);
  const double grip = context.profile.skid.friction * state.ground.surface.friction;
  const Vec3 blown = blown_on_ground(context, body, state.foot_C, grip);
  context.note(entry::Intent{intent.direction_C * (intent.share * context.profile.skid.steering_speed),
                             intent.share, blown});
  tell_skid(context, body, intent, state, grip, blown);
  const Moved moved = skid_down(context, body, intent, state, grip, blown);
  AirSlide how;
  how.skidding = true;
  how.frame_velocity_C = state.ground_velocity_C;
  how.stop_after = stop_after(context);
  if (context.stop != nullptr) context.stop->way_C = moved.displacement;
  const Slid slid =
      slide_in_air(context, body, state.foot_C, context.pushes.beyond(moved.displacement), moved.velocity, how);
  note_stop(context, slid, state.foot_C, [&](double seconds) {
    StepContext sooner = context;
    sooner.dt = seconds;
    return context.pushes.beyond(skid_down(sooner, body, intent, state, grip, blown).displacement);
  });
  take(slid, state);
}

}  // namespace lagniappe
