// SPDX-License-Identifier: MIT
// What is underfoot: probe and judge.
#pragma once

#include "motion/context.h"

namespace lagniappe {

struct GroundFound {
  Ground ground;
  double gap =
      0.0;  // m from the foot down to where the capsule would rest; meaningless where nothing was found.
};

// Sweeps down by `reach` and judges what is met: by the true face under the contact, by its surface, and by how
// far the centre stands beyond it. Beyond an edge, ground within a step's height under the centre still bears:
// that is a stair, not a ledge. Faces too steep to stand on still bear where they hold the capsule from two
// sides.
GroundFound probe_ground(const StepContext& context, const Body& body, const Vec3& foot_C, double reach);

// Returns the face that bears the most among those that are touched: ground before what is none, walkable
// before steep, then the more upright. None if the capsule rests on nothing. Several faces meet on an edge: the
// tread bears, not the riser.
const WorldContact* bearing_face(const StepContext& context, const Body& body, const Touching& touching);

// Whether a face of this surface and with this normal may be walked on.
bool walkable(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C);

// Whether a grounded motion goes on along such a face when it meets it; if not, the face is a wall to it.
bool leads_on(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C);

}  // namespace lagniappe
