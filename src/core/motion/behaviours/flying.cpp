// SPDX-License-Identifier: MIT
#include "math/integrators.h"
#include "motion/behaviours/common.h"
#include "motion/behaviours/ways.h"
#include "motion/velocity_log.h"

namespace lagniappe {

void fly(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Fly& values = context.profile.fly;
  const Intent intent = flight_intent(context, state);
  const Vec3 target = intent.direction_C * (intent.share * values.speed);
  context.note(entry::Intent{target, intent.share});
  const Moved moved = approach_exponential(state.velocity_C, target, values.time, context.dt);
  tell_change(context, entry::Change::Why::Intent, moved.velocity - state.velocity_C);
  take(slide_in_air(context, body, state.foot_C,
                    context.pushes.beyond(moved.displacement - context.pushes.carried_C), moved.velocity, {}),
       state);
  state.acceleration_C = Vec3(0.0);
}

}  // namespace lagniappe
