// SPDX-License-Identifier: MIT
// The kinds of pieces as rows: what each is called in a course, its keys with units and ranges, what it
// becomes. Reader, writer, schema, command line and, later, the editor walk them; each is written down once, in
// src/core/course/shapes.h.
#pragma once

#include <span>
#include <string_view>
#include <vector>

#include "lagniappe/course.h"

namespace lagniappe {

// A key of a piece in a course's document.
struct PieceKey {
  enum class Type { Number, Whole, Size, List, Text, Flag } type;  // Size: three numbers, each in the range.
  std::string_view name;
  std::string_view unit;  // Empty where it has none.
  double low = 0.0, high = 0.0;
  bool above_low = false;  // The low end itself is out.
  std::string_view help;
  bool needed = true;
  double least = 0.0;  // Either way: what is nearer to zero is refused.
};

struct PieceKind {
  std::string_view name;  // As "kind" says it.
  std::string_view help;
  std::vector<PieceKey> keys;  // Besides those that all pieces have.
};

// In the order of the alternatives of Shape.
std::span<const PieceKind> piece_kinds();
const PieceKind& kind_of(const Shape& shape);

// Returns how many triangles the shape is made of at most, without making them.
std::size_t most_triangles(const Shape& shape);

}  // namespace lagniappe
