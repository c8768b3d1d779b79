// SPDX-License-Identifier: MIT
// The rows of the round shapes: made of faces whose middles lie at most `sag` inside what they stand for (of a
// ring's inner side, outside).
#pragma once

#include <algorithm>
#include <cmath>

#include "course/shape_row.h"

namespace lagniappe {

namespace row_key {

inline constexpr double kLeastSag = 1e-4;

constexpr DocumentKey sag() {
  return {DocumentKey::Type::Number,
          "sag",
          "m",
          kLeastSag,
          1.0,
          false,
          "Between the faces and what they stand for, at most; 0.004 where it is not said.",
          false};
}

}  // namespace row_key

namespace round {

// How many straight parts a circle needs.
inline int parts_of_circle(double radius, double sag) {
  return std::max(6, static_cast<int>(std::ceil(kPi / std::acos(std::max(1.0 - sag / radius, 0.5)))));
}

// A dome's triangles begin at its pole, as four, and each row around it has four more sides than the one
// before: all have about one size. The largest is the one at a quarter's edge, half-way down, whose corners lie
// on a circle of less than 1.43 / rows radii: its sag is half of that squared.
inline int rows_of_dome(double radius, double sag) {
  return std::max(2, static_cast<int>(std::ceil(std::sqrt(1.03 * radius / sag))));
}

// The vertex `place` of a row of `row` sides a quarter.
inline Vec3 on_dome(double radius, int rows, int row, int place) {
  const double down = 0.5 * kPi * row / rows, around = row > 0 ? 0.5 * kPi * place / row : 0.0;
  return {radius * std::sin(down) * std::cos(around), radius * std::cos(down),
          -radius * std::sin(down) * std::sin(around)};
}

// The triangles of a dome on the ground, counter-clockwise seen from outside.
template <typename Take>
void make_dome(double radius, double sag, Take take) {
  const int rows = rows_of_dome(radius, sag);
  const auto at = [&](int row, int place) { return on_dome(radius, rows, row, place); };
  for (int quarter = 0; quarter < 4; ++quarter) {
    for (int row = 0; row < rows; ++row) {
      const int here = quarter * row, below = quarter * (row + 1);
      for (int k = 0; k <= row; ++k) {
        take(at(row, here + k), at(row + 1, below + k), at(row + 1, below + k + 1));
        if (k < row) take(at(row, here + k), at(row + 1, below + k + 1), at(row, here + k + 1));
      }
    }
  }
}

// A ball of which the lower half is `length` under the upper one.
inline void make_pill(double radius, double length, double sag, Mesh& mesh) {
  const int rows = rows_of_dome(radius, sag);
  const Vec3 low(0.0, radius, 0.0), high(0.0, radius + length, 0.0);
  const auto under = [&](const Vec3& v) { return low + Vec3(v.x, -v.y, v.z); };
  make_dome(radius, sag, [&](const Vec3& a, const Vec3& b, const Vec3& c) {
    mesh.triangle(high + a, high + b, high + c);
    mesh.triangle(under(a), under(c), under(b));
  });
  if (length <= 0.0) return;
  for (int k = 0; k < 4 * rows; ++k) {
    const Vec3 a = on_dome(radius, rows, rows, k), b = on_dome(radius, rows, rows, k + 1);
    mesh.quad(under(a), under(b), high + b, high + a);
  }
}

inline std::size_t most_of_pill(double radius, double sag) {
  const auto rows = static_cast<std::size_t>(rows_of_dome(radius, sag));
  return 8 * rows * rows + 8 * rows;
}

}  // namespace round

template <>
struct ShapeRow<shape::Ball> {
  static constexpr std::string_view kKind = "ball", kHelp = "A ball that rests on its base.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "Of the ball."), s.radius);
    f(row_key::sag(), s.sag);
  }
  static void make(const shape::Ball& s, Mesh& mesh) { round::make_pill(s.radius, 0.0, s.sag, mesh); }
  static std::size_t most_triangles(const shape::Ball& s) { return round::most_of_pill(s.radius, s.sag); }
};

template <>
struct ShapeRow<shape::Pill> {
  static constexpr std::string_view kKind = "pill", kHelp = "A cylinder between two halves of a ball, upright.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "Of the cylinder and the halves."), s.radius);
    f(row_key::length_or_none("length", "Between the middles of the halves."), s.length);
    f(row_key::sag(), s.sag);
  }
  static void make(const shape::Pill& s, Mesh& mesh) { round::make_pill(s.radius, s.length, s.sag, mesh); }
  static std::size_t most_triangles(const shape::Pill& s) { return round::most_of_pill(s.radius, s.sag); }
};

template <>
struct ShapeRow<shape::Ring> {
  static constexpr std::string_view kKind = "ring", kHelp = "A round tube that closes around an upright axis.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "From the axis to the middle of the tube."), s.radius);
    f(row_key::length("thickness", "Radius of the tube."), s.thickness);
    f(row_key::sag(), s.sag);
  }
  static std::optional<RowFault> fault(const shape::Ring& s) {
    if (s.thickness >= s.radius) return RowFault{"thickness", "it must be less than the ring's radius"};
    return std::nullopt;
  }
  // Half of the sag each way.
  static int around(const shape::Ring& s) { return round::parts_of_circle(s.radius + s.thickness, s.sag / 2); }
  static int across(const shape::Ring& s) { return round::parts_of_circle(s.thickness, s.sag / 2); }
  static void make(const shape::Ring& s, Mesh& mesh) {
    const int parts = around(s), sides = across(s);
    const auto at = [&](int part, int side) {
      const double u = 2.0 * kPi * (part % parts) / parts, v = 2.0 * kPi * (side % sides) / sides;
      const double out = s.radius + s.thickness * std::cos(v);
      return Vec3(out * std::cos(u), s.thickness + s.thickness * std::sin(v), -out * std::sin(u));
    };
    for (int i = 0; i < parts; ++i) {
      for (int k = 0; k < sides; ++k) mesh.quad(at(i, k), at(i + 1, k), at(i + 1, k + 1), at(i, k + 1));
    }
  }
  static std::size_t most_triangles(const shape::Ring& s) {
    return 2 * static_cast<std::size_t>(around(s)) * static_cast<std::size_t>(across(s));
  }
};

}  // namespace lagniappe
