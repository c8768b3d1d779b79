// SPDX-License-Identifier: MIT
// On a wall that can be climbed: an upright body goes over it at one distance, round corners, curves and ribs.
// Where the body is at that distance is the wall's offset surface (the points at radius + gap from it); it is
// followed by short steps along the tangent plane, each put right by the distance itself.
#pragma once

#include "ledges/wall_grip.h"

namespace lagniappe {

// The grip on the wall that hands reach within `reach` m beyond the skin, from a foot in a direction; or on the
// ladder that the hands or the body meet there.
WallAnswer wall_ahead(const World& world, const ClimbShape& shape, const Vec3& foot_C, const Vec3& towards_C,
                      double reach);

// The same grip, as its wall is now. REQUIRES: a grip that was found.
WallAnswer wall_now(const World& world, const ClimbShape& shape, const WallGrip& grip);

// The same, for a body that was turned meanwhile and so is farther from the wall, or nearer to it, than by its
// own motion.
WallAnswer wall_after_turn(const World& world, const ClimbShape& shape, const WallGrip& grip);

// Goes so many m to the right of who faces the wall and up along it; on a ladder only up.
WallWay follow_wall(const World& world, const ClimbShape& shape, const WallGrip& grip, const Vec2& way);

}  // namespace lagniappe
