// SPDX-License-Identifier: MIT
#include "motion/behaviours.h"

#include <algorithm>

#include "math/integrators.h"
#include "motion/slide.h"

namespace lagniappe {
namespace {

// Follows `target` as the response says; `wished` chooses between its going and its stopping values.
MovedSmooth respond(const Response& response, const Vec3& velocity, const Vec3& acceleration,
                    const Vec3& target, bool wished, double dt) {
  const double time = wished ? response.time : response.stop_time;
  const auto plain = [](const Moved& m) { return MovedSmooth{m.velocity, Vec3(0.0), m.displacement}; };
  switch (response.model) {
    case Response::Model::Instant:
      return {target, Vec3(0.0), target * dt};
    case Response::Model::Steady:
      return plain(
          approach_steady(velocity, target, wished ? response.acceleration : response.deceleration, dt));
    case Response::Model::Exponential:
      return plain(approach_exponential(velocity, target, time, dt));
    case Response::Model::Smooth:
      return approach_smooth(velocity, acceleration, target, time, dt);
  }
  return {target, Vec3(0.0), target * dt};
}

void take(const Slid& slid, CharacterState& state) {
  state.foot_C = slid.foot_C;
  state.velocity_C = slid.velocity_C;
  state.slides = static_cast<std::uint16_t>(slid.slides);
  state.stepped = slid.stepped;
}

// On a slope too steep to walk, steering does not push uphill; otherwise it would be climbed by pushing into
// it.
Wish without_uphill(const Wish& wish, const Ground& ground, const Vec3& up_C) {
  if (ground.verdict != Verdict::Steep) return wish;
  const Vec3 downhill = unit_or(across(ground.normal_C, up_C), Vec3(0.0));
  const Vec3 asked = wish.direction_C * wish.share;
  const Vec3 kept = asked - downhill * std::min(dot(asked, downhill), 0.0);
  return {unit_or(kept, Vec3(0.0)), length(kept)};
}

}  // namespace

double full_ground_speed(const StepContext& context) {
  const Profile::Ground& ground = context.profile.ground;
  return context.input.held.has(Action::Sprint) ? ground.sprint_speed : ground.speed;
}

void move_on_ground(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  const Vec3 target = wish.direction_C * (wish.share * full_ground_speed(context));
  context.note(entry::Wish{target, wish.share});
  const MovedSmooth moved = respond(context.profile.ground.response, flattened(state.velocity_C, body.up_C),
                                    body.flat(state.acceleration_C), target, wish.share > 0.0, context.dt);
  const Slid slid = slide_on_ground(context, body, state.foot_C, body.flat(moved.displacement),
                                    body.flat(moved.velocity), state.ground.normal_C);
  state.travelled += length(body.flat(slid.foot_C - state.foot_C));
  take(slid, state);
  state.acceleration_C = moved.acceleration;
  state.eye_offset_C -= body.up_C * slid.lifted;
}

void move_in_air(const StepContext& context, const Body& body, const Wish& asked, CharacterState& state) {
  const Profile& profile = context.profile;
  const Wish wish = without_uphill(asked, state.ground, body.up_C);
  const double full_speed = std::max(profile.air.speed, state.run_up_speed);
  const Vec3 target = wish.direction_C * (wish.share * full_speed);
  context.note(entry::Wish{target, wish.share});

  const MovedSmooth level = respond(profile.air.response, body.flat(state.velocity_C),
                                    body.flat(state.acceleration_C), target, wish.share > 0.0, context.dt);
  const MovedScalar fall =
      fall_capped(dot(state.velocity_C, body.up_C), profile.gravity, profile.terminal_speed, context.dt);
  const Vec3 motion = body.flat(level.displacement) + body.up_C * fall.displacement;
  const Vec3 velocity = body.flat(level.velocity) + body.up_C * fall.velocity;
  take(slide_in_air(context, body, state.foot_C, motion, velocity), state);
  state.acceleration_C = level.acceleration;
}

void move_in_flight(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Fly& fly = context.profile.fly;
  const Wish wish = wish_in_flight(context, state);
  const double speed = context.input.held.has(Action::Sprint) ? fly.sprint_speed : fly.speed;
  const Vec3 target = wish.direction_C * (wish.share * speed);
  context.note(entry::Wish{target, wish.share});
  const Moved moved = approach_exponential(state.velocity_C, target, fly.time, context.dt);
  take(slide_in_air(context, body, state.foot_C, moved.displacement, moved.velocity), state);
  state.acceleration_C = Vec3(0.0);
}

}  // namespace lagniappe
