// SPDX-License-Identifier: MIT
// Nearest points of segments and triangles: the parts that lagniappe::closest is made of.
#pragma once

#include "lagniappe/capsule_queries.h"

namespace lagniappe {

struct SegmentPair {
  double s, t;  // Parameters in [0, 1] on the first and the second segment.
  Vec3 first_C, second_C;
};

// Ericson 5.1.9. Parallel and zero-length segments are allowed.
SegmentPair closest_points(const Segment& first, const Segment& second);

// Returns the unit normal by the winding, or zero where the triangle has no area.
Vec3 winding_normal(const Triangle& triangle);

}  // namespace lagniappe
