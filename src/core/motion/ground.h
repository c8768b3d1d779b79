// SPDX-License-Identifier: MIT
// What is underfoot: probe and judge.
#pragma once

#include "motion/context.h"

namespace lagniappe {

struct GroundFound {
  Ground ground;
  double gap = 0.0;         // m down to where the capsule would rest; meaningless where nothing was found.
  Vec3 foot_C = Vec3(0.0);  // Where it would rest: under where it was, but for walls that lean.
};

// Goes down by `reach`, along walls, and judges what is met: by the true face under the contact, by its
// surface, and by how far the centre stands beyond it. Beyond an edge, ground within a step's height under the
// centre still bears: that is a stair, not a ledge. Faces too steep to stand on still bear where they hold the
// capsule from two sides.
GroundFound probe_ground(const StepContext& context, const Body& body, const Vec3& foot_C, double reach);

// Returns what bears among what is touched: the lowest under the foot. A rim that the round of the foot touches
// from the side bears only where nothing bears lower. Several faces meet on an edge: the tread bears, not the
// riser. None if the capsule rests on nothing.
const WorldContact* bearing_contact(const StepContext& context, const Body& body, const Touching& touching);

// The same, whether it is ground or not.
const WorldContact* lowest_contact(const StepContext& context, const Body& body, const Touching& touching);

// Returns the normal by which what bears is judged: the face's, but the contact's on the rim of a wall.
Vec3 bearing_normal(const StepContext& context, const Body& body, const WorldContact& bearing);

}  // namespace lagniappe
