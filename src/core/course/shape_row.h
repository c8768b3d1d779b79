// SPDX-License-Identifier: MIT
// A row for each shape of a piece: all that is to be known of it, in one place.
#pragma once

#include <optional>
#include <string>

#include "course/mesh.h"
#include "lagniappe/piece_kinds.h"

namespace lagniappe {

// What is wrong with values that are each in their range: at which key, and why.
struct ShapeFault {
  std::string_view key;
  std::string what;
};

// Written out for each shape, with
//   kKind, kHelp                its name in documents, and what it is
//   fields(shape, f)            calls f(PieceKey, value) for each value, in the document's order
//   make(shape, mesh)           its triangles, in its own frame
//   most_triangles(shape)       how many those are at most, without making them
// and, where it has one, fault(shape). What lists of corners or a file come to is read and written apart; such
// a row has keys() in place of fields().
template <typename Shape>
struct ShapeRow;

namespace key {

inline constexpr double kMostSize = 1e5;
inline constexpr double kMostTreads = 10000;

constexpr PieceKey length(std::string_view name, std::string_view help) {
  return {PieceKey::Type::Number, name, "m", 0.0, kMostSize, true, help};
}
constexpr PieceKey length_or_none(std::string_view name, std::string_view help) {
  return {PieceKey::Type::Number, name, "m", 0.0, kMostSize, false, help};
}
// Degrees from `least` to `most`, either way.
constexpr PieceKey angle(std::string_view name, double least, double most, std::string_view help) {
  return {PieceKey::Type::Number, name, "degrees", -most, most, false, help, true, least};
}
constexpr PieceKey treads(std::string_view help) {
  return {PieceKey::Type::Whole, "count", "", 1.0, kMostTreads, false, help};
}
constexpr PieceKey size(std::string_view help) {
  return {PieceKey::Type::Size, "size", "m", 0.0, kMostSize, true, help};
}

}  // namespace key
}  // namespace lagniappe
