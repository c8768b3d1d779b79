// SPDX-License-Identifier: MIT
// What is underfoot: probe, judge, snap.
#pragma once

#include "motion/context.h"

namespace lagniappe {

struct GroundFound {
  Ground ground;
  double gap =
      0.0;  // m from the foot down to where the capsule would rest; meaningless where nothing was found.
};

// Sweeps down by `reach` and judges what is met: by the true face under the contact, and by how far the centre
// stands beyond it. Beyond an edge, ground within a step's height under the centre still bears: that is a
// stair, not a ledge.
GroundFound probe_ground(const StepContext& context, const Body& body, const Vec3& foot_C, double reach);

// Returns the most upright face among those that the capsule at `foot_C` rests on, with the contact; none if it
// rests on nothing. Several faces meet on an edge: the tread bears, not the riser.
std::optional<WorldContact> bearing_face(const Body& body, const Vec3& foot_C);

// Whether a face with this normal may be walked on.
bool walkable(const Profile& profile, const Vec3& normal_C, const Vec3& up_C);

}  // namespace lagniappe
