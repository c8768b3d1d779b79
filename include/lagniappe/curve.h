// SPDX-License-Identifier: MIT
#pragma once

#include <array>

#include "lagniappe/vector.h"

namespace lagniappe {

// A number that depends on another: straight lines between points, even beyond the first and the last. Without
// points it is 1 everywhere.
struct Curve {
  static constexpr int kMostPoints = 8;
  std::array<Vec2, kMostPoints> points{};  // x rising.
  int count = 0;

  double at(double x) const {
    if (count == 0) return 1.0;
    if (x <= points[0].x) return points[0].y;
    for (int i = 1; i < count; ++i) {
      const Vec2 &a = points[i - 1], &b = points[i];
      if (x <= b.x) return a.y + (b.y - a.y) * ((x - a.x) / (b.x - a.x));
    }
    return points[count - 1].y;
  }
};

}  // namespace lagniappe
