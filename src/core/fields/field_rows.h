// SPDX-License-Identifier: MIT
// The rows of the shapes of fields.
#pragma once

#include <array>
#include <utility>

#include "fields/line_points.h"
#include "lagniappe/field.h"

namespace lagniappe {

// A direction of a document as a unit vector; zero where it is none. What is unit stays as it is to the last
// bit, so that a course that is written and read again is the same.
inline Vec3 direction_as_written(const Vec3& v) {
  constexpr double kRounding = 4e-15;
  return std::abs(length_squared(v) - 1.0) < kRounding ? v : unit_or(v, Vec3(0.0));
}

// Written out for each shape of a field, with
//   kKind, kHelp        its name in documents, and what it is
//   Written             what documents have of it; written(shape) and made(Written) go from one to the other
//   fields(w, f)        calls f(DocumentKey, value) for each value of it, in the document's order
// and, where values may not fit each other, fault(Written).
template <typename Shape>
struct FieldRow;

// Where a document has what the shape has.
template <typename Shape>
struct AsWritten {
  using Written = Shape;
  static const Shape& written(const Shape& s) { return s; }
  static const Shape& made(const Written& s) { return s; }
};

template <>
struct FieldRow<field::Uniform> : AsWritten<field::Uniform> {
  static constexpr std::string_view kKind = "uniform", kHelp = "Pulls one way everywhere in a box.";
  static void fields(auto& s, auto&& f) {
    f(row_key::size("Of the box."), s.size);
    f(DocumentKey{DocumentKey::Type::Size, "direction", "", -1e6, 1e6, false,
                  "The way it pulls, in its own frame; down where it is not said.", false},
      s.direction);
  }
  static field::Uniform made(field::Uniform s) {
    s.direction = direction_as_written(s.direction);
    return s;
  }
  static std::optional<RowFault> fault(const field::Uniform& s) {
    if (s.direction != Vec3(0.0)) return std::nullopt;
    return RowFault{"direction", "it is no direction: all three numbers are 0"};
  }
};

template <>
struct FieldRow<field::Ball> : AsWritten<field::Ball> {
  static constexpr std::string_view kKind = "ball", kHelp = "Pulls to a point.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "From the point to its surface."), s.radius);
  }
};

template <>
struct FieldRow<field::Pill> : AsWritten<field::Pill> {
  static constexpr std::string_view kKind = "pill", kHelp = "Pulls to a stretch along its own Y.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "From the stretch to its surface."), s.radius);
    f(row_key::length_or_none("length", "Of the stretch."), s.length);
  }
};

template <>
struct FieldRow<field::Ring> : AsWritten<field::Ring> {
  static constexpr std::string_view kKind = "ring", kHelp = "Pulls to a circle around its own Y.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "Of the circle."), s.radius);
    f(row_key::length("thickness", "From the circle to its surface."), s.thickness);
  }
};

template <>
struct FieldRow<field::Slab> : AsWritten<field::Slab> {
  static constexpr std::string_view kKind = "slab",
                                    kHelp =
                                        "Pulls to the middle plane of a box, across its own Y, from both "
                                        "sides.";
  static void fields(auto& s, auto&& f) {
    f(row_key::size("Of the box; its surface is half its height away."), s.size);
  }
};

template <>
struct FieldRow<field::Path> {
  static constexpr std::string_view kKind = "path", kHelp = "Pulls to a line through points.";
  struct Written {
    std::vector<Vec3> points;
    bool closed = false;
    double radius = 0.0;
  };
  static Written written(const field::Path& s) { return {s.line.points(), s.line.closed(), s.radius}; }
  static field::Path made(const Written& w) { return {SmoothPath(w.points, w.closed), w.radius}; }
  static void fields(auto& w, auto&& f) {
    f(row_key::points("Of the line, from \"at\"; it goes through them without corners."), w.points);
    f(row_key::closed(), w.closed);
    f(row_key::length("radius", "From the line to its surface."), w.radius);
  }
  static std::optional<RowFault> fault(const Written& w) { return fault_of_line(w.points, w.closed); }
};

// In the order of Field::Falloff; a curve has no word.
inline constexpr std::array<std::string_view, 4> kFalloffWords = {"constant", "linear", "inverse",
                                                                  "inverse-square"};

}  // namespace lagniappe
