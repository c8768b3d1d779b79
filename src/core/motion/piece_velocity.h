// SPDX-License-Identifier: MIT
// How fast a piece goes at a place.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Returns the velocity, against the course, of a point of the piece at the end of the tick; zero for one that
// stands still.
inline Vec3 piece_velocity(const StepContext& context, PieceId piece, const Vec3& point_C) {
  const PieceMotion* motion = context.world.motion_of(piece);
  return motion != nullptr ? motion->velocity_at(context.now.time).at(point_C) : Vec3(0.0);
}

}  // namespace lagniappe
