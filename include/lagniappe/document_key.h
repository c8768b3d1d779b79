// SPDX-License-Identifier: MIT
// A key of a row in a course's document: what readers, writers, schemas and editors need to know of it.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace lagniappe {

// Size: three numbers, each in the range.
struct DocumentKey {
  enum class Type { Number, Whole, Size, List, Text, Flag } type;
  std::string_view name;
  std::string_view unit;  // Empty where it has none.
  double low = 0.0, high = 0.0;
  bool above_low = false;  // The low end itself is out.
  std::string_view help;
  bool needed = true;
  double least = 0.0;  // Either way: what is nearer to zero is refused.
};

// One kind of what a list of the document holds.
struct DocumentKind {
  std::string_view name;  // As "kind" says it.
  std::string_view help;
  std::vector<DocumentKey> keys;  // Besides those that all of the list have.
};

// What is wrong with values that are each in their range: at which key, and why.
struct RowFault {
  std::string_view key;
  std::string what;
};

namespace row_key {

inline constexpr double kMostSize = 1e5;

constexpr DocumentKey length(std::string_view name, std::string_view help) {
  return {DocumentKey::Type::Number, name, "m", 0.0, kMostSize, true, help};
}
constexpr DocumentKey length_or_none(std::string_view name, std::string_view help) {
  return {DocumentKey::Type::Number, name, "m", 0.0, kMostSize, false, help};
}
constexpr DocumentKey text(std::string_view name, std::string_view help, bool needed) {
  return {DocumentKey::Type::Text, name, "", 0.0, 0.0, false, help, needed};
}
constexpr DocumentKey velocity(std::string_view name, std::string_view help, bool needed) {
  return {DocumentKey::Type::Size, name, "m/s", -1000.0, 1000.0, false, help, needed};
}
constexpr DocumentKey size(std::string_view help) {
  return {DocumentKey::Type::Size, "size", "m", 0.0, kMostSize, true, help};
}

}  // namespace row_key
}  // namespace lagniappe
