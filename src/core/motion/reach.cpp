// SPDX-License-Identifier: MIT
#include "motion/reach.h"

#include "lagniappe/handling.h"

namespace lagniappe {

Box neighbourhood_of(const StepContext& context, const CharacterState& state) {
  const Values& p = context.profile;
  const double fastest = std::max(
      {length(state.velocity_C), length(state.ground_velocity_C) + p.ground.sprint_speed, p.air.speed,
       take_off_speed(p.gravity, p.jump.height), p.ground.gather.growth > 0.0 ? p.ground.gather.highest : 0.0});
  const double way = fastest * context.dt + p.gravity * context.dt * context.dt;
  const double step = std::max({p.ground.highest_step, p.ground.snap_distance, p.air.highest_step});
  const double tread = p.capsule.radius + p.ground.shortest_tread;
  const Segment axis = capsule_axis(state, p.capsule.radius);
  return bounds(axis).grown(p.capsule.radius + way + std::max(step, tread) + 4.0 * kGroundTouch);
}

}  // namespace lagniappe
