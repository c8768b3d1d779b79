// SPDX-License-Identifier: MIT
// On a ladder: an upright body goes along its middle line, at one distance before its front or its back.
#pragma once

#include "ledges/wall_grip.h"

namespace lagniappe {

// The grip on a ladder that is level with a foot, on the side of it that `out_C` points to (its front_C, or
// against that). Does not look whether the way there is free.
WallAnswer grip_ladder(const ClimbShape& shape, const Ladder& ladder, PieceId piece, const Vec3& foot_C,
                       const Vec3& out_C);

// The same grip, as the ladder is now. REQUIRES: a grip that was found.
WallAnswer ladder_now(const ClimbShape& shape, const Ladder& ladder, const WallGrip& grip);

// Goes so many m up along it: until the hands are at its end, or something is in the way.
WallWay follow_ladder(const World& world, const ClimbShape& shape, const Ladder& ladder, const WallGrip& grip,
                      double up);

// Whichever of its ends is up.
inline Vec3 upper_end(const Ladder& ladder, const Vec3& up_C) {
  return ladder.base_C + ladder.along_C * (dot(ladder.along_C, up_C) > 0.0 ? ladder.height : 0.0);
}

// The corner of the way to a grip: away from the ladder first, as far as the foot is nearer than the grip, so
// that nobody goes through a stile.
Vec3 corner_before_grip(const WallGrip& grip, const Vec3& foot_C, const Vec3& up_C);

}  // namespace lagniappe
