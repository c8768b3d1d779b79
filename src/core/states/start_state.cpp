// SPDX-License-Identifier: MIT
#include <algorithm>

#include "lagniappe/states.h"
#include "motion/ground.h"
#include "motion/moving.h"
#include "motion/push_out.h"
#include "motion/upright.h"
#include "states/table_pass.h"

namespace lagniappe {

CharacterState start_state(const Profile& profile, const Home& home) {
  CharacterState state;
  state.foot_C = home.foot_C;
  state.frame_CB = home.frame_CB;
  state.yaw = state.facing = home.yaw;
  state.capsule_height = profile.capsule.height;
  state.home = home;
  state.state = state.came_from = chart_of(profile).fallback();
  return state;
}

namespace {

// A place on a slope or a stair is where its surface is; the round of the foot stands a little higher. Returns
// the lowest foot above `foot_C`, by no more than a step, where the capsule is free; that itself where there is
// none, or where far less aside would do: push-out sees to that.
Vec3 out_of_the_ground(const StepContext& context, const Body& body, const Vec3& foot_C) {
  constexpr int kTries = 8;
  constexpr double kFarLess = 0.5;
  const auto is_free = [&](const Vec3& foot) {
    std::array<WorldContact, 1> touched;
    return body.world.contacts(body.axis(foot), body.radius - body.margin, touched, body.now) == 0;
  };
  const double highest = std::max(context.profile.ground.highest_step, body.radius);
  for (int i = 0; i <= kTries; ++i) {
    const Vec3 lift = body.up_C * (highest * i / kTries);
    if (!is_free(foot_C + lift)) continue;
    const auto hit = i > 0 ? body.sweep(foot_C + lift, -lift) : std::nullopt;
    const Vec3 up = lift * (hit ? 1.0 - hit->hit.fraction : i > 0 ? 0.0 : 1.0);
    const PushedOut aside = push_out(context, body, foot_C);
    return !aside.crushed && length(aside.foot_C - foot_C) < kFarLess * length(up) ? foot_C : foot_C + up;
  }
  return foot_C;
}

}  // namespace

namespace {

CharacterState placed(const Profile& profile, const Home& home, const World& world, double time) {
  CharacterState state = start_state(profile, home);
  state.time = time;
  const InputFrame nothing;
  const StepContext context{nothing, profile, world, 0.0, nullptr, Moment{state.time}};
  state.foot_C = out_of_the_ground(context, Body(context, state), state.foot_C);
  const GroundFound found = probe_ground(context, Body(context, state), state.foot_C, kGroundTouch);
  if (found.ground.verdict != Verdict::Walkable) return state;
  state.ground = found.ground;
  state.ground_velocity_C = ground_velocity(context, state);
  state.ground_trend_C = state.ground.normal_C;
  state.may_jump_late = true;
  state.state = fitting_state(chart_of(profile), "Stand", Behaviour::Ground);
  return state;
}

}  // namespace

CharacterState start_state(const Profile& profile, const Home& home, const World& world, double time) {
  CharacterState state = placed(profile, home, world, time);
  const Felt felt = feel(world, centre_of_mass(profile, state), time, profile.gravity);
  if (felt.up_C != Vec3(0.0)) state.pull_C = felt.pull_C;
  const StateChart& chart = chart_of(profile);
  if (chart.state(state.state).on_entry != nullptr) {
    const InputFrame nothing;
    const CharacterState before = state;
    Values values = chart.values_in(state.state, profile);
    const StepContext context{nothing, values, world, 0.0, nullptr, Moment{state.time}};
    PassMemory memory;
    TablePass(profile, chart, context, before, values, state, memory).begin();
  }
  state.velocity_C += state.ground_velocity_C;
  return state;
}

}  // namespace lagniappe
