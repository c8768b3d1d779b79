// SPDX-License-Identifier: MIT
// Leaving solids that the capsule's core overlaps.
#pragma once

#include "motion/context.h"

namespace lagniappe {

struct PushedOut {
  Vec3 foot_C;
  double depth;  // The deepest overlap found at the start; 0 where there was none.
  bool crushed;  // No way out within the rounds and the profile's limit: foot_C is where it began.
};

// Pushes the capsule out of the deepest contact, round by round, until its core is free.
PushedOut push_out(const StepContext& context, const Body& body, const Vec3& foot_C);

}  // namespace lagniappe
