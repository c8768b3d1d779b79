// SPDX-License-Identifier: MIT
// Nearest points of points, segments and triangles: the parts that lagniappe::closest is made of.
#pragma once

#include "lagniappe/capsule_queries.h"

namespace lagniappe {

struct PointOnTriangle {
  Vec3 point_C;
  Feature feature;
};

// Ericson, "Real-Time Collision Detection" (2005), 5.1.5, by Voronoi regions. A triangle without area gives a
// point of its longest edge.
PointOnTriangle closest_point(const Vec3& p_C, const Triangle& triangle);

struct SegmentPair {
  double s, t;  // Parameters in [0, 1] on the first and the second segment.
  Vec3 first_C, second_C;
};

// Ericson 5.1.9. Parallel and zero-length segments are allowed.
SegmentPair closest_points(const Segment& first, const Segment& second);

// Returns the unit normal by the winding, or zero where the triangle has no area.
Vec3 winding_normal(const Triangle& triangle);

}  // namespace lagniappe
