// SPDX-License-Identifier: MIT
#include "motion/eye.h"

#include <algorithm>
#include <cmath>

#include "math/integrators.h"

namespace lagniappe {

void hold_eye_back(const StepContext& context, double by, double share, CharacterState& state) {
  constexpr double kSettled = 20.0;  // Time constants after which nothing is left.
  const double time = context.profile.smoothing.time;
  // It will settle over the whole part: by so much too much.
  const double early = time > 0.0 ? std::exp(std::min(share * context.dt / time, kSettled)) : 1.0;
  state.eye_offset -= by * early;
}

void settle_eye(const StepContext& context, CharacterState& state) {
  const Profile::Ground& ground = context.profile.ground;
  const double step = std::max({ground.highest_step, ground.snap_distance, context.profile.air.highest_step});
  const double most = std::min(step, context.profile.smoothing.largest);
  const double left = state.eye_offset * decay_share(context.profile.smoothing.time, context.dt);
  state.eye_offset = std::clamp(left, -most, most);
}

}  // namespace lagniappe
