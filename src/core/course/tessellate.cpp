// SPDX-License-Identifier: MIT
// Pieces to triangles.
#include <algorithm>
#include <cmath>

#include "lagniappe/course.h"

namespace lagniappe {
namespace {

// Longest arc, in radians, that one straight side of a spiral tread stands for.
constexpr double kArc = kPi / 24.0;

// Collects triangles in a piece's own frame.
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

struct Tessellate {
  Mesh& mesh;

  void operator()(const shape::Block& s) const {
    mesh.box({-s.size.x / 2, 0.0, -s.size.z / 2}, {s.size.x / 2, s.size.y, s.size.z / 2});
  }

  void operator()(const shape::Ramp& s) const {
    const double x = s.size.x / 2, y = s.size.y, z = s.size.z / 2;
    const Vec3 a(-x, 0, -z), b(x, 0, -z), c(x, 0, z), d(-x, 0, z), top_a(-x, y, -z), top_b(x, y, -z);
    mesh.quad(a, b, c, d);
    mesh.quad(d, c, top_b, top_a);
    mesh.quad(b, a, top_a, top_b);
    mesh.triangle(c, b, top_b);
    mesh.triangle(a, d, top_a);
  }

  // One closed outline, not a pile of boxes: no faces inside.
  void operator()(const shape::Stairs& s) const {
    const double x = s.width / 2, front = s.count * s.run / 2, back = -front;
    for (int i = 0; i < s.count; ++i) {
      const double z = front - i * s.run, next_z = i + 1 == s.count ? back : front - (i + 1) * s.run;
      const double y = i * s.rise, top = (i + 1) * s.rise;
      mesh.quad({-x, y, z}, {x, y, z}, {x, top, z}, {-x, top, z});
      mesh.quad({-x, top, z}, {x, top, z}, {x, top, next_z}, {-x, top, next_z});
      mesh.quad({x, 0, z}, {x, 0, next_z}, {x, top, next_z}, {x, top, z});
      mesh.quad({-x, 0, next_z}, {-x, 0, z}, {-x, top, z}, {-x, top, next_z});
    }
    const double top = s.count * s.rise;
    mesh.quad({x, 0, back}, {-x, 0, back}, {-x, top, back}, {x, top, back});
    mesh.quad({-x, 0, back}, {x, 0, back}, {x, 0, front}, {-x, 0, front});
  }

  void operator()(const shape::SpiralStairs& s) const {
    for (int i = 0; i < s.count; ++i) tread(s, i);
  }

  void tread(const shape::SpiralStairs& s, int index) const {
    const double low = index * s.rise, high = low + s.rise;
    const int parts = std::max(1, static_cast<int>(std::ceil(std::abs(s.angle) / kArc - 1e-9)));
    const auto at = [&](double radius, double turn, double y) {
      return Vec3(-std::sin(turn) * radius, y, -std::cos(turn) * radius);
    };
    // Always to the left, whichever way the flight turns, so that faces are wound outwards.
    const double begin = index * s.angle + std::min(s.angle, 0.0), whole = std::abs(s.angle);
    for (int k = 0; k < parts; ++k) {
      const double a = begin + whole * k / parts, b = begin + whole * (k + 1) / parts;
      mesh.quad(at(s.outer, a, low), at(s.outer, b, low), at(s.outer, b, high), at(s.outer, a, high));
      mesh.quad(at(s.outer, a, high), at(s.outer, b, high), at(s.inner, b, high), at(s.inner, a, high));
      mesh.quad(at(s.inner, a, low), at(s.inner, b, low), at(s.outer, b, low), at(s.outer, a, low));
      mesh.quad(at(s.inner, b, low), at(s.inner, a, low), at(s.inner, a, high), at(s.inner, b, high));
    }
    const double end = begin + whole;
    mesh.quad(at(s.inner, begin, low), at(s.outer, begin, low), at(s.outer, begin, high),
              at(s.inner, begin, high));
    mesh.quad(at(s.outer, end, low), at(s.inner, end, low), at(s.inner, end, high), at(s.outer, end, high));
  }

  void operator()(const shape::Triangles& s) const {
    for (const auto& [i, j, k] : s.triangles) mesh.triangle(s.vertices[i], s.vertices[j], s.vertices[k]);
  }

  void operator()(const shape::Model& s) const {
    if (s.mesh) (*this)(*s.mesh);
  }
};

}  // namespace

std::vector<Triangle> own_triangles_of(const Piece& piece) {
  Mesh mesh;
  std::visit(Tessellate{mesh}, piece.shape);
  return std::move(mesh.triangles());
}

std::vector<Triangle> triangles_of(const Piece& piece) {
  std::vector<Triangle> triangles = own_triangles_of(piece);
  const Quat rotation = rotation_of(piece.turn);
  const bool turned = piece.turn != Vec3(0.0);  // Unturned pieces keep their coordinates to the bit.
  for (Triangle& t : triangles) {
    for (Vec3* v : {&t.v0_C, &t.v1_C, &t.v2_C}) *v = (turned ? rotation * *v : *v) + piece.at_C;
  }
  return triangles;
}

}  // namespace lagniappe
