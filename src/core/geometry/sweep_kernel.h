// SPDX-License-Identifier: MIT
// The exact sweep against one triangle whose normal is known.
#pragma once

#include <algorithm>

#include "geometry/tolerances.h"
#include "lagniappe/capsule_queries.h"

namespace lagniappe {

// How far the swept axis stays from the triangle's plane.
struct PlaneGap {
  double low, high;  // Of the axis' heights over the plane during the whole motion.
  double start;      // Least distance at the start; negative where the axis crosses the plane.

  PlaneGap(const Segment& axis, const Vec3& motion_C, const Triangle& t, const Vec3& normal_C) {
    const double along = dot(motion_C, normal_C);
    const double a = dot(axis.a_C - t.v0_C, normal_C), b = dot(axis.b_C - t.v0_C, normal_C);
    low = std::min(a, b) + std::min(along, 0.0);
    high = std::max(a, b) + std::max(along, 0.0);
    start = std::max(std::min(a, b), -std::max(a, b));
  }
  // What stays out of the plane's reach, or would enter it by less than a touch, is free.
  bool apart(double radius) const { return low > radius - kTouch || high < -(radius - kTouch); }
};

// As the public sweep_fraction(). REQUIRES: `normal_C` is the triangle's unit normal (by the winding), or zero
// if it has no area. What can be told from the normal alone is: most candidates never reach the closed forms.
// Fractions above `bound` may be left out.
std::optional<double> sweep_fraction(const Segment& axis, double radius, const Vec3& motion_C,
                                     const Triangle& triangle, const Vec3& normal_C, double bound);

}  // namespace lagniappe
