// SPDX-License-Identifier: MIT
#pragma once

#include "lagniappe/vector.h"

namespace lagniappe {

// b + u (p + u (q + u r)).
struct Cubic {
  Vec3 p, q, r;
};

// From b to c, with the slopes that the neighbours a and d give (Catmull and Rom, 1974).
inline Cubic catmull_rom(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& d) {
  return {0.5 * (c - a), a - 2.5 * b + 2.0 * c - 0.5 * d, 0.5 * (d - a) + 1.5 * (b - c)};
}

}  // namespace lagniappe
