// SPDX-License-Identifier: MIT
// Angles are radians in code and degrees in files. What is written must read back to the same bits.
#pragma once

#include <array>
#include <charconv>
#include <cmath>

#include "lagniappe/vector.h"

namespace lagniappe {

// Returns degrees that radians() makes `angle` of, bit for bit, wherever there are any: always for an angle
// that was read from a file. Of several the one that is written shortest, as a person would have. Else the
// nearest.
inline double exact_degrees(double angle) {
  if (angle == 0.0) return angle;
  const auto digits = [](double x) {
    std::array<char, 32> text;
    return std::to_chars(text.data(), text.data() + text.size(), x).ptr - text.data();
  };
  const double nearest = degrees(angle);
  // Two roundings, each of half a unit in the last place, lie between: a few neighbours are enough.
  constexpr int kNeighbours = 4;
  double at = nearest, best = nearest;
  for (int i = 0; i < kNeighbours; ++i) at = std::nextafter(at, -INFINITY);
  bool found = false;
  for (int i = -kNeighbours; i <= kNeighbours; ++i, at = std::nextafter(at, INFINITY)) {
    if (radians(at) != angle || (found && digits(at) >= digits(best))) continue;
    best = at;
    found = true;
  }
  return best;
}

}  // namespace lagniappe
