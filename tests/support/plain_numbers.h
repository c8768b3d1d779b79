// SPDX-License-Identifier: MIT
// Numbers as they stand in files, whatever locale the test runs in.
#pragma once

#include <charconv>
#include <string>
#include <string_view>

namespace lagniappe::test {

inline double number_of(std::string_view text) {
  double value = 0.0;
  std::from_chars(text.data(), text.data() + text.size(), value);
  return value;
}

inline std::string text_of_number(double value) {
  char text[64];
  const auto end = std::to_chars(text, text + sizeof text, value).ptr;
  return {text, end};
}

}  // namespace lagniappe::test
