// SPDX-License-Identifier: MIT
// A row for each shape of a piece: all that is to be known of it, in one place.
#pragma once

#include <optional>
#include <string>

#include "course/mesh.h"
#include "lagniappe/piece_kinds.h"

namespace lagniappe {

// Written out for each shape, with
//   kKind, kHelp                its name in documents, and what it is
//   fields(shape, f)            calls f(DocumentKey, value) for each value, in the document's order
//   make(shape, mesh)           its triangles, in its own frame
//   most_triangles(shape)       how many those are at most, without making them
// and, where it has one, fault(shape). What lists of corners or a file come to is read and written apart; such
// a row has keys() in place of fields().
template <typename Shape>
struct ShapeRow;

namespace row_key {

inline constexpr double kMostTreads = 10000;

// Degrees from `least` to `most`, either way.
constexpr DocumentKey angle(std::string_view name, double least, double most, std::string_view help) {
  return {DocumentKey::Type::Number, name, "degrees", -most, most, false, help, true, least};
}
constexpr DocumentKey treads(std::string_view help) {
  return {DocumentKey::Type::Whole, "count", "", 1.0, kMostTreads, false, help};
}

}  // namespace row_key
}  // namespace lagniappe
