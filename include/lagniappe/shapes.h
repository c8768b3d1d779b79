// SPDX-License-Identifier: MIT
// Plain geometric values. Positions are in the course frame (suffix _C), in metres.
#pragma once

#include <algorithm>
#include <limits>

#include "lagniappe/vector.h"

namespace lagniappe {

// a_C == b_C is allowed: a point, which is a ball when it is given a radius.
struct Segment {
  Vec3 a_C, b_C;
};

// Two-sided; winding is ignored. Zero area is allowed and means the longest edge, or the point.
struct Triangle {
  Vec3 v0_C, v1_C, v2_C;
};

inline Segment moved(const Segment& s, const Vec3& by_C) { return {s.a_C + by_C, s.b_C + by_C}; }

// Closed on all sides. An empty box has low > high; it contains nothing, and joining it changes nothing.
struct Box {
  Vec3 low_C = Vec3(std::numeric_limits<double>::infinity());
  Vec3 high_C = Vec3(-std::numeric_limits<double>::infinity());

  bool empty() const { return low_C.x > high_C.x || low_C.y > high_C.y || low_C.z > high_C.z; }
  Vec3 centre() const { return 0.5 * (low_C + high_C); }
  Vec3 size() const { return high_C - low_C; }
  bool contains(const Vec3& p_C) const {
    return p_C.x >= low_C.x && p_C.y >= low_C.y && p_C.z >= low_C.z && p_C.x <= high_C.x && p_C.y <= high_C.y &&
           p_C.z <= high_C.z;
  }
  bool overlaps(const Box& other) const {
    return low_C.x <= other.high_C.x && low_C.y <= other.high_C.y && low_C.z <= other.high_C.z &&
           other.low_C.x <= high_C.x && other.low_C.y <= high_C.y && other.low_C.z <= high_C.z;
  }
  void join(const Vec3& p_C) {
    low_C = glm::min(low_C, p_C);
    high_C = glm::max(high_C, p_C);
  }
  void join(const Box& other) {
    low_C = glm::min(low_C, other.low_C);
    high_C = glm::max(high_C, other.high_C);
  }
  Box grown(double by) const { return {low_C - Vec3(by), high_C + Vec3(by)}; }
};

inline Box bounds(const Segment& s) { return {glm::min(s.a_C, s.b_C), glm::max(s.a_C, s.b_C)}; }
inline Box bounds(const Triangle& t) {
  return {glm::min(t.v0_C, glm::min(t.v1_C, t.v2_C)), glm::max(t.v0_C, glm::max(t.v1_C, t.v2_C))};
}

}  // namespace lagniappe
