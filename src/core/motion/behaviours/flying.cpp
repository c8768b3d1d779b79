// SPDX-License-Identifier: MIT
#include <algorithm>

#include "math/integrators.h"
#include "motion/behaviours/common.h"
#include "motion/behaviours/ways.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

// Goes by what an integrator gave, with nothing underfoot.
void go_free(const StepContext& context, const Body& body, const Vec3& target_C, double share,
             const Moved& moved, CharacterState& state) {
  context.note(entry::Intent{target_C, share});
  tell_change(context, entry::Change::Why::Intent, moved.velocity - state.velocity_C);
  take(slide_in_air(context, body, state.foot_C,
                    context.pushes.beyond(moved.displacement - context.pushes.carried_C), moved.velocity, {}),
       state);
  state.acceleration_C = Vec3(0.0);
}

}  // namespace

void fly(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Fly& values = context.profile.fly;
  const Intent intent = flight_intent(context, state);
  const Vec3 target = intent.direction_C * (intent.share * values.speed);
  go_free(context, body, target, intent.share,
          approach_exponential(state.velocity_C, target, values.time, context.dt), state);
}

// Who is faster along the push than thrust would take him keeps that: thrust only turns it.
void float_freely(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Float& values = context.profile.floating;
  const Intent intent = flight_intent(context, state);
  const double along = dot(state.velocity_C, intent.direction_C);
  const Vec3 target = intent.direction_C * std::max(values.speed * intent.share, along);
  const bool thrusts = intent.share > 0.0 && values.thrust > 0.0;
  go_free(context, body, target, intent.share,
          approach_steady(state.velocity_C, thrusts ? target : state.velocity_C, values.thrust * intent.share,
                          context.dt),
          state);
}

}  // namespace lagniappe
