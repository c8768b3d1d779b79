// SPDX-License-Identifier: MIT
// Whether two convex bodies are near each other, by Gilbert, Johnson and Keerthi's walk on their difference
// ("A fast procedure for computing the distance between complex objects in three-dimensional space", 1988); the
// nearest points of its simplices by Ericson, "Real-Time Collision Detection", 5.1.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>

#include "lagniappe/vector.h"

namespace lagniappe {

namespace convex {

// Up to four corners of the difference.
struct Simplex {
  std::array<Vec3, 4> corner;
  int count = 0;
};

// Each reduces the simplex to what holds its point nearest to the origin, and returns that.
inline Vec3 nearest_of_two(Simplex& s) {
  const Vec3 a = s.corner[0], b = s.corner[1], ab = b - a;
  const double size = length_squared(ab), t = size > 0.0 ? std::clamp(-dot(a, ab) / size, 0.0, 1.0) : 0.0;
  if (t <= 0.0) return s.count = 1, a;
  if (t >= 1.0) return s.corner[0] = b, s.count = 1, b;
  return a + ab * t;
}

inline Vec3 nearest_of_three(Simplex& s) {
  const Vec3 a = s.corner[0], b = s.corner[1], c = s.corner[2];
  const Vec3 ab = b - a, ac = c - a, normal = cross(ab, ac);
  const double d1 = -dot(ab, a), d2 = -dot(ac, a), d3 = -dot(ab, b), d4 = -dot(ac, b), d5 = -dot(ab, c),
               d6 = -dot(ac, c);
  const double va = d3 * d6 - d5 * d4, vb = d5 * d2 - d1 * d6, vc = d1 * d4 - d3 * d2;
  const bool flat = length_squared(normal) <= 0.0;
  if (!flat && va > 0.0 && vb > 0.0 && vc > 0.0) return normal * (dot(a, normal) / length_squared(normal));
  // On one of its sides.
  std::array<Simplex, 3> sides = {Simplex{{a, b}, 2}, Simplex{{b, c}, 2}, Simplex{{c, a}, 2}};
  Vec3 best(0.0);
  double least = -1.0;
  for (Simplex& side : sides) {
    const Vec3 p = nearest_of_two(side);
    if (least >= 0.0 && length_squared(p) >= least) continue;
    least = length_squared(p);
    best = p;
    s = side;
  }
  return best;
}

inline Vec3 nearest_of_four(Simplex& s) {
  const std::array<Vec3, 4> v = s.corner;
  constexpr int kFaces[4][4] = {{0, 1, 2, 3}, {0, 2, 3, 1}, {0, 3, 1, 2}, {1, 3, 2, 0}};
  Vec3 best(0.0);
  double least = -1.0;
  for (const auto& [i, j, k, other] : kFaces) {
    const Vec3 normal = cross(v[j] - v[i], v[k] - v[i]);
    const double origin = -dot(v[i], normal), inside = dot(v[other] - v[i], normal);
    if (inside != 0.0 && origin * inside > 0.0) continue;
    Simplex face{{v[i], v[j], v[k]}, 3};
    const Vec3 p = nearest_of_three(face);
    if (least >= 0.0 && length_squared(p) >= least) continue;
    least = length_squared(p);
    best = p;
    s = face;
  }
  return best;
}

inline Vec3 nearest(Simplex& s) {
  if (s.count == 2) return nearest_of_two(s);
  if (s.count == 3) return nearest_of_three(s);
  return s.count == 4 ? nearest_of_four(s) : s.corner[0];
}

}  // namespace convex

// Whether two convex bodies come within `reach` of each other. `support(direction)` returns the point of their
// difference (first less second) that lies furthest that way. REQUIRES: reach > 0.
template <typename Support>
bool convex_within(const Support& support, double reach) {
  constexpr int kMostSteps = 64;
  constexpr double kRounding = 1e-14;  // Of the square of the distance.
  convex::Simplex simplex;
  Vec3 nearest = support(Vec3(1.0, 0.0, 0.0));
  simplex.corner[simplex.count++] = nearest;
  for (int step = 0; step < kMostSteps; ++step) {
    const double square = length_squared(nearest);
    if (square <= reach * reach) return true;
    const Vec3 corner = support(-nearest);
    const double along = dot(nearest, corner);
    // No point lies nearer than the plane through the corner.
    if (along > 0.0 && along * along > reach * reach * square) return false;
    if (square - along <= kRounding * square) return false;
    simplex.corner[simplex.count++] = corner;
    nearest = convex::nearest(simplex);
  }
  return length_squared(nearest) <= reach * reach;
}

}  // namespace lagniappe
