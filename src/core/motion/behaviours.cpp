// SPDX-License-Identifier: MIT
#include "motion/behaviours.h"

#include <algorithm>

#include "motion/respond.h"
#include "motion/slide.h"

namespace lagniappe {
namespace {

// Grip of nothing at all would make responses endless.
constexpr double kLeastGrip = 1e-3;

double grip_of(const CharacterState& state) { return std::max(state.ground.surface.friction, kLeastGrip); }

void take(const Slid& slid, CharacterState& state) {
  state.foot_C = slid.foot_C;
  state.velocity_C = slid.velocity_C;
  state.wall_normal_C = slid.wall_normal_C;
  state.slides = static_cast<std::uint16_t>(slid.slides);
  state.stepped = slid.stepped;
}

// What is wished while pushing along a wall that was there a tick ago: the way along it keeps the share of
// speed that goes with the angle of the push; the push into it stays, so that the wall's end and steps are
// found.
Vec3 along_known_wall(const StepContext& context, const Vec3& target_C, const Vec3& wall_C) {
  const double into = -dot(target_C, wall_C), size = length(target_C);
  if (wall_C == Vec3(0.0) || into <= 0.0) return target_C;
  const double kept = context.profile.walls.kept.at(degrees(std::asin(std::clamp(into / size, 0.0, 1.0))));
  return unit_or(across(target_C, wall_C), Vec3(0.0)) * (size * kept) - wall_C * into;
}

// Rise of the eye is taken back from the drawn place, and catches up.
void lift_eye(const Body& body, const Slid& slid, CharacterState& state) {
  state.eye_offset_C -= body.up_C * slid.lifted;
}

// Moves by what an integrator gave, across up, along the ground and around what is on it.
void go_along_ground(const StepContext& context, const Body& body, const Wish& wish, const Moved& moved,
                     CharacterState& state) {
  const Slid slid =
      slide_on_ground(context, body, state.foot_C, body.flat(moved.displacement), body.flat(moved.velocity),
                      state.ground.normal_C, {wish.direction_C, state.wall_normal_C});
  state.travelled += length(body.flat(slid.foot_C - state.foot_C));
  take(slid, state);
  lift_eye(body, slid, state);
}

}  // namespace

double full_ground_speed(const StepContext& context) {
  const Profile::Ground& ground = context.profile.ground;
  return context.input.held.has(Action::Sprint) ? ground.sprint_speed : ground.speed;
}

void move_on_ground(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  const Profile::Ground& ground = context.profile.ground;
  const double slope = slope_along(wish.direction_C, state.ground.normal_C, body.up_C);
  const double full_speed = full_ground_speed(context) * ground.slope_speed.at(degrees(slope));
  const Vec3 asked = wish.direction_C * (wish.share * full_speed);
  const Vec3 target = along_known_wall(context, asked, state.wall_normal_C);
  context.note(entry::Wish{asked, wish.share});
  const MovedSmooth moved =
      respond(ground.response, flattened(state.velocity_C, body.up_C, ground.speed_on_slopes),
              body.flat(state.acceleration_C), target, wish.share > 0.0, grip_of(state), context.dt);
  go_along_ground(context, body, wish, {moved.velocity, moved.displacement}, state);
  state.acceleration_C = moved.acceleration;
}

namespace {

// Down the slope by gravity less friction, which acts against the velocity; across it by steering.
Moved skid_down(const StepContext& context, const Body& body, const Wish& wish, const CharacterState& state) {
  const Profile::Skid& skid = context.profile.skid;
  const Vec3& normal = state.ground.normal_C;
  // On the level, where only the surface forbids walking, steering is all there is.
  if (dot(normal, body.up_C) > kLevel) {
    const Vec3 target = wish.direction_C * (wish.share * skid.steering_speed);
    return approach_exponential(across(state.velocity_C, normal), across(target, normal), skid.steering_time,
                                context.dt);
  }
  const Vec3 down = unit_or(across(-body.up_C, normal), Vec3(0.0)), side = cross(normal, down);
  const double pull = context.profile.gravity * dot(down, -body.up_C);
  const double drag =
      context.profile.gravity * dot(normal, body.up_C) * skid.friction * state.ground.surface.friction;
  const MovedScalar along =
      slide_with_friction(dot(state.velocity_C, down), pull, drag, context.profile.terminal_speed, context.dt);
  const double steered = dot(wish.direction_C, side) * wish.share * skid.steering_speed;
  const Moved across_it =
      approach_exponential(side * dot(state.velocity_C, side), side * steered, skid.steering_time, context.dt);
  return {down * along.velocity + across_it.velocity, down * along.displacement + across_it.displacement};
}

// On walkable ground what is left of a skid runs out, towards the pace that is wished for.
void run_out(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  const SpeedOnSlopes measure = context.profile.ground.speed_on_slopes;
  const Vec3 target = wish.direction_C * (wish.share * full_ground_speed(context));
  context.note(entry::Wish{target, wish.share});
  const Moved moved = approach_exponential(flattened(state.velocity_C, body.up_C, measure), target,
                                           context.profile.skid.run_out_time / grip_of(state), context.dt);
  go_along_ground(context, body, wish, moved, state);
}

}  // namespace

void move_skidding(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  state.acceleration_C = Vec3(0.0);
  if (state.grounded()) return run_out(context, body, wish, state);
  context.note(entry::Wish{wish.direction_C * (wish.share * context.profile.skid.steering_speed), wish.share});
  const Moved moved = skid_down(context, body, wish, state);
  AirSlide how;
  how.skidding = true;
  take(slide_in_air(context, body, state.foot_C, moved.displacement, moved.velocity, how), state);
}

void move_in_air(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  const Profile& profile = context.profile;
  const Vec3 level_velocity = body.flat(state.velocity_C);
  // Who is faster already, from a run-up or carried, keeps that along the wish; steering alone does not gain
  // it.
  const double full_speed = std::max(profile.air.speed, std::max(dot(level_velocity, wish.direction_C), 0.0));
  const Vec3 asked = wish.direction_C * (wish.share * full_speed);
  const Vec3 target = along_known_wall(context, asked, state.wall_normal_C);
  context.note(entry::Wish{asked, wish.share});

  const MovedSmooth level = respond(profile.air.response, level_velocity, body.flat(state.acceleration_C),
                                    target, wish.share > 0.0, 1.0, context.dt);
  const MovedScalar fall =
      fall_capped(dot(state.velocity_C, body.up_C), profile.gravity, profile.terminal_speed, context.dt);
  const Vec3 motion = body.flat(level.displacement) + body.up_C * fall.displacement;
  const Vec3 velocity = body.flat(level.velocity) + body.up_C * fall.velocity;
  AirSlide how;
  how.highest_step = profile.air.highest_step;
  const Slid slid = slide_in_air(context, body, state.foot_C, motion, velocity, how);
  take(slid, state);
  lift_eye(body, slid, state);
  state.acceleration_C = level.acceleration;
}

void move_in_flight(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Fly& fly = context.profile.fly;
  const Wish wish = wish_in_flight(context, state);
  const double speed = context.input.held.has(Action::Sprint) ? fly.sprint_speed : fly.speed;
  const Vec3 target = wish.direction_C * (wish.share * speed);
  context.note(entry::Wish{target, wish.share});
  const Moved moved = approach_exponential(state.velocity_C, target, fly.time, context.dt);
  take(slide_in_air(context, body, state.foot_C, moved.displacement, moved.velocity, {}), state);
  state.acceleration_C = Vec3(0.0);
}

}  // namespace lagniappe
