// SPDX-License-Identifier: MIT
// Ways straight up and down: what a snap, a step and standing up have room for.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// A way straight up or down that goes along walls and ends at everything else; downwards also where something
// bears that is touched together with a wall.
struct UprightWay {
  Vec3 foot_C;                   // Where the foot is then; walls that lean have moved it across up.
  double gone;                   // m along the direction.
  std::optional<WorldHit> stop;  // What ended it; nothing if all of it was free.
};
// Goes `most` along `direction_C`, up or down.
UprightWay upright_way(const StepContext& context, const Body& body, const Vec3& foot_C,
                       const Vec3& direction_C, double most);

}  // namespace lagniappe
