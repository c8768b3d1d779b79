// SPDX-License-Identifier: MIT
// Smallest rotations.
#pragma once

#include <algorithm>

#include "lagniappe/vector.h"

namespace lagniappe {

// rad between two unit vectors, exact for small ones too.
inline double angle_between(const Vec3& a, const Vec3& b) { return std::atan2(length(cross(a, b)), dot(a, b)); }

// Returns the unit axis about which `from` turns to `to` by the smallest angle; where they are the same or
// opposite one across them. Both are unit.
inline Vec3 axis_between(const Vec3& from, const Vec3& to) {
  const Vec3 other = std::abs(from.x) < 0.8 ? Vec3(1, 0, 0) : Vec3(0, 1, 0);
  return unit_or(cross(from, to), glm::normalize(cross(from, other)));
}

// Returns the smallest rotation that takes `from` to `to`.
inline Quat smallest_turn(const Vec3& from, const Vec3& to) {
  return glm::angleAxis(angle_between(from, to), axis_between(from, to));
}

}  // namespace lagniappe
