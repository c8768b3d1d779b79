// SPDX-License-Identifier: MIT
// Collects triangles in a piece's own frame.
#pragma once

#include <vector>

#include "lagniappe/shapes.h"

namespace lagniappe {

class Mesh {
 public:
  void triangle(const Vec3& a, const Vec3& b, const Vec3& c) { triangles_.push_back({a, b, c}); }
  // Corners counter-clockwise seen from outside.
  void quad(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& d) {
    triangle(a, b, c);
    triangle(a, c, d);
  }
  void box(const Vec3& low, const Vec3& high) {
    const Vec3 a(low.x, low.y, low.z), b(high.x, low.y, low.z), c(high.x, low.y, high.z),
        d(low.x, low.y, high.z);
    const Vec3 up(0.0, high.y - low.y, 0.0);
    quad(a, b, c, d);
    quad(d + up, c + up, b + up, a + up);
    quad(d, c, c + up, d + up);
    quad(b, a, a + up, b + up);
    quad(c, b, b + up, c + up);
    quad(a, d, d + up, a + up);
  }
  std::vector<Triangle>& triangles() { return triangles_; }

 private:
  std::vector<Triangle> triangles_;
};

}  // namespace lagniappe
