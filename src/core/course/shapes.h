// SPDX-License-Identifier: MIT
// The rows of the shapes.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>

#include "course/round_shapes.h"
#include "course/shape_row.h"
#include "course/tube_shape.h"

namespace lagniappe {

// An angle that the document has in degrees.
template <typename Number>
struct InDegrees {
  Number& radians;
};
template <typename Number>
InDegrees(Number&) -> InDegrees<Number>;

template <>
struct ShapeRow<shape::Block> {
  static constexpr std::string_view kKind = "block", kHelp = "A cuboid on its base.";
  static void fields(auto& s, auto&& f) { f(row_key::size("Width, height and depth."), s.size); }
  static void make(const shape::Block& s, Mesh& mesh) {
    mesh.box({-s.size.x / 2, 0.0, -s.size.z / 2}, {s.size.x / 2, s.size.y, s.size.z / 2});
  }
  static std::size_t most_triangles(const shape::Block&) { return 12; }
};

template <>
struct ShapeRow<shape::Ramp> {
  static constexpr std::string_view kKind = "ramp", kHelp = "A wedge that rises towards -Z.";
  static void fields(auto& s, auto&& f) { f(row_key::size("Width, height at -Z, and depth."), s.size); }
  static void make(const shape::Ramp& s, Mesh& mesh) {
    const double x = s.size.x / 2, y = s.size.y, z = s.size.z / 2;
    const Vec3 a(-x, 0, -z), b(x, 0, -z), c(x, 0, z), d(-x, 0, z), top_a(-x, y, -z), top_b(x, y, -z);
    mesh.quad(a, b, c, d);
    mesh.quad(d, c, top_b, top_a);
    mesh.quad(b, a, top_a, top_b);
    mesh.triangle(c, b, top_b);
    mesh.triangle(a, d, top_a);
  }
  static std::size_t most_triangles(const shape::Ramp&) { return 12; }
};

template <>
struct ShapeRow<shape::Stairs> {
  static constexpr std::string_view kKind = "stairs", kHelp = "A solid flight that rises towards -Z.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("width", "Of the treads."), s.width);
    f(row_key::length("rise", "From one tread to the next."), s.rise);
    f(row_key::length("run", "Depth of a tread."), s.run);
    f(row_key::treads("Of treads."), s.count);
  }
  // One closed outline, not a pile of boxes: no faces inside.
  static void make(const shape::Stairs& s, Mesh& mesh) {
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
  static std::size_t most_triangles(const shape::Stairs& s) {
    return 8 * static_cast<std::size_t>(s.count) + 4;
  }
};

template <>
struct ShapeRow<shape::SpiralStairs> {
  static constexpr std::string_view kKind = "spiral-stairs", kHelp = "Treads around an axis, beginning at -Z.";
  // Longest arc, in radians, that one straight side of a tread stands for.
  static constexpr double kArc = kPi / 24.0;

  static void fields(auto& s, auto&& f) {
    f(row_key::length_or_none("inner", "Radius at which the treads begin."), s.inner);
    f(row_key::length("outer", "Radius at which they end."), s.outer);
    f(row_key::length("rise", "From one tread to the next, and the thickness of each."), s.rise);
    f(row_key::angle("angle", 0.1, 90.0, "Per tread; positive: to the left, seen from above."),
      InDegrees{s.angle});
    f(row_key::treads("Of treads."), s.count);
  }
  static std::optional<RowFault> fault(const shape::SpiralStairs& s) {
    if (s.outer <= s.inner) return RowFault{"outer", "the outer radius must be larger than the inner one"};
    return std::nullopt;
  }
  static void make(const shape::SpiralStairs& s, Mesh& mesh) {
    for (int i = 0; i < s.count; ++i) tread(s, i, mesh);
  }
  static std::size_t most_triangles(const shape::SpiralStairs& s) {
    return 104 * static_cast<std::size_t>(s.count);
  }

 private:
  static void tread(const shape::SpiralStairs& s, int index, Mesh& mesh) {
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
};

template <>
struct ShapeRow<shape::Ladder> {
  static constexpr std::string_view kKind = "ladder",
                                    kHelp = "Two stiles with rungs, climbed along its middle.";
  static constexpr double kStile = 0.05, kDepth = 0.07, kRung = 0.035;  // m: width, depth; thickness.
  static constexpr double kMostRungs = 1000.0;

  static void fields(auto& s, auto&& f) {
    f(row_key::length("width", "Over both stiles."), s.width);
    f(row_key::length("height", "Of the stiles."), s.height);
    f(row_key::length("spacing", "From rung to rung, and of the lowest over the base."), s.spacing);
  }
  static std::optional<RowFault> fault(const shape::Ladder& s) {
    if (s.width < 3.0 * kStile) return RowFault{"width", "a ladder is at least 0.15 m wide"};
    if (s.spacing < 2.0 * kRung) return RowFault{"spacing", "rungs are at least 0.07 m apart"};
    if (s.spacing > s.height) return RowFault{"spacing", "the lowest rung must not be over the top"};
    if (s.height / s.spacing > kMostRungs) return RowFault{"height", "a ladder has at most 1000 rungs"};
    return std::nullopt;
  }
  // A rung at the very top is level with the ends of the stiles.
  static int rungs(const shape::Ladder& s) { return static_cast<int>(std::floor(s.height / s.spacing + 1e-9)); }
  static void make(const shape::Ladder& s, Mesh& mesh) {
    const double x = s.width / 2, in = x - kStile, z = kDepth / 2, half = kRung / 2;
    mesh.box({-x, 0.0, -z}, {-in, s.height, z});
    mesh.box({in, 0.0, -z}, {x, s.height, z});
    for (int i = 1; i <= rungs(s); ++i) {
      const double y = std::min(i * s.spacing, s.height - half);
      mesh.box({-in, y - half, -half}, {in, y + half, half});
    }
  }
  static std::size_t most_triangles(const shape::Ladder& s) {
    return 24 + 12 * static_cast<std::size_t>(std::max(rungs(s), 0));
  }
};

template <>
struct ShapeRow<shape::Triangles> {
  static constexpr std::string_view kKind = "triangles",
                                    kHelp = "Faces as lists, counter-clockwise seen from outside.";
  static std::array<DocumentKey, 4> keys() {
    using Type = DocumentKey::Type;
    return {DocumentKey{Type::List, "vertices", "m", 0, 0, false, "Corners, in the piece's frame."},
            DocumentKey{Type::List, "triangles", "", 0, 0, false, "Three indices of corners each."},
            DocumentKey{Type::List, "surfaces", "", 0, 0, false, "What the triangles are made of.", false},
            DocumentKey{Type::List, "surface_of", "", 0, 0, false,
                        "For each triangle 0 (the piece's surface), or one more than an index in \"surfaces\".",
                        false}};
  }
  static void make(const shape::Triangles& s, Mesh& mesh) {
    for (const auto& [i, j, k] : s.triangles) mesh.triangle(s.vertices[i], s.vertices[j], s.vertices[k]);
  }
  static std::size_t most_triangles(const shape::Triangles& s) { return s.triangles.size(); }
};

template <>
struct ShapeRow<shape::Model> {
  static constexpr std::string_view kKind = "model", kHelp = "The triangles of a model's file.";
  static std::array<DocumentKey, 1> keys() {
    return {DocumentKey{DocumentKey::Type::Text, "file", "", 0, 0, false,
                        "A plain relative name (*.glb, *.gltf, *.obj) below the course's folder."}};
  }
  static void make(const shape::Model& s, Mesh& mesh) {
    if (s.mesh) ShapeRow<shape::Triangles>::make(*s.mesh, mesh);
  }
  static std::size_t most_triangles(const shape::Model& s) { return s.mesh ? s.mesh->triangles.size() : 0; }
};

}  // namespace lagniappe
