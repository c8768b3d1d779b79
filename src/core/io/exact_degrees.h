// SPDX-License-Identifier: MIT
// Angles are radians in code and degrees in files. What is written must read back to the same bits.
#pragma once

#include <cmath>

#include "lagniappe/vector.h"

namespace lagniappe {

// Returns degrees that radians() makes `angle` of, bit for bit, wherever there are any: always for an angle
// that was read from a file. Else the nearest.
inline double exact_degrees(double angle) {
  const double nearest = degrees(angle);
  double below = nearest, above = nearest;
  // Two roundings, each of half a unit in the last place, lie between: a few neighbours are enough.
  for (int i = 0; i < 4; ++i) {
    if (radians(below) == angle) return below;
    if (radians(above) == angle) return above;
    below = std::nextafter(below, -INFINITY);
    above = std::nextafter(above, INFINITY);
  }
  return nearest;
}

}  // namespace lagniappe
