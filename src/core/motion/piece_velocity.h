// SPDX-License-Identifier: MIT
// How fast a piece goes at a place.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Returns the velocity, against the course, of a point of the piece at the end of the tick; zero for one that
// stands still.
inline Vec3 piece_velocity(const StepContext& context, PieceId piece, const Vec3& point_C) {
  if (!context.world.moves(piece)) return Vec3(0.0);
  return context.world.piece_velocity(piece, context.now.time).at(point_C);
}

}  // namespace lagniappe
