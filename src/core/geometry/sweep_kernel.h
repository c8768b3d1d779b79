// SPDX-License-Identifier: MIT
// The exact sweep against one triangle whose normal is known.
#pragma once

#include "lagniappe/capsule_queries.h"

namespace lagniappe {

// As the public sweep_fraction(). REQUIRES: `normal_C` is the triangle's unit normal (by the winding), or zero if
// it has no area. What can be told from the normal alone is: most candidates never reach the closed forms. Fractions
// above `bound` may be left out.
std::optional<double> sweep_fraction(const Segment& axis, double radius, const Vec3& motion_C,
                                     const Triangle& triangle, const Vec3& normal_C, double bound);

}  // namespace lagniappe
