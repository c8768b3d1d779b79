// SPDX-License-Identifier: MIT
// Stepping up onto what blocks a character.
#pragma once

#include "motion/context.h"
#include "motion/planes.h"

namespace lagniappe {

struct StepLimits {
  double highest;        // m above the ground line.
  Vec3 ground_normal_C;  // The ground line: through the foot, along this plane. Up itself in the air.
  Vec3 resting_C;        // Where it rests: over an edge that it stands on it rolls on, which is no other step.
  bool in_air = false;   // Brought as far onto the tread as it takes to stand: nobody can hang on at its edge.
};

struct Stepped {
  Vec3 foot_C;
  double left;  // Share of the way that is still to be gone: the next riser, or a wall, is in the way.
};

// Tries to go on over `blocked` by `flat_rest_C` (across up): up as far as head room allows, forward, down. The
// step is judged where a tread would have to be, one shortest tread beyond the riser, however short the tick's
// motion is; so the verdict does not depend on the tick rate. Heights count from the ground line, so a kerb on
// a slope is as high as one on the flat. Returns where the foot then stands; nothing if refused: the ledger has
// the reason.
std::optional<Stepped> try_step(const StepContext& context, const Body& body, const Vec3& foot_C,
                                const Vec3& flat_rest_C, const WorldHit& blocked, const Planes& walls,
                                const StepLimits& limits);

}  // namespace lagniappe
