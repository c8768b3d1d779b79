// SPDX-License-Identifier: MIT
#include "motion/behaviours/common.h"

#include <algorithm>

#include "motion/eye.h"

namespace lagniappe {

Vec3 felt_air(const StepContext& context, const Body& body, const Vec3& foot_C, double before_end) {
  const Segment axis = body.axis(foot_C);
  const Surroundings here = body.world.surroundings(0.5 * (axis.a_C + axis.b_C), context.now.time - before_end);
  return here.wind_C * context.profile.air.wind_share;
}

Vec3 blown_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C, double grip) {
  const Vec3 wind = body.flat(felt_air(context, body, foot_C));
  const double held = grip * context.profile.gravity * context.profile.air.wind_time, speed = length(wind);
  return speed > held ? wind * (1.0 - held / speed) : Vec3(0.0);
}

void take(const Slid& slid, CharacterState& state) {
  state.foot_C = slid.foot_C;
  state.velocity_C = slid.velocity_C;
  state.wall_normal_C = slid.wall_normal_C;
  state.slides = static_cast<std::uint16_t>(state.slides + slid.slides);
  state.stepped = state.stepped || slid.stepped;
}

Vec3 along_known_wall(const StepContext& context, const Vec3& target_C, const Vec3& wall_C) {
  const double into = -dot(target_C, wall_C), size = length(target_C);
  if (wall_C == Vec3(0.0) || into <= 0.0) return target_C;
  const double kept = context.profile.walls.kept.at(degrees(std::asin(std::clamp(into / size, 0.0, 1.0))));
  return unit_or(across(target_C, wall_C), Vec3(0.0)) * (size * kept) - wall_C * into;
}

void lift_eye(const StepContext& context, const Slid& slid, CharacterState& state) {
  // One rolls up over an edge from where it is met: on the average half of the way from there.
  hold_eye_back(context, slid.lifted, 0.5 * (1.0 + slid.lifted_at), state);
}

}  // namespace lagniappe
