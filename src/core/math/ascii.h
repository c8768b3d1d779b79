// SPDX-License-Identifier: MIT
// Letters and digits of ASCII, whatever locale the program around has set.
#pragma once

#include <string>
#include <string_view>

namespace lagniappe::ascii {

constexpr bool is_digit(char c) { return c >= '0' && c <= '9'; }
constexpr bool is_letter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }
constexpr bool is_word(char c) { return is_letter(c) || is_digit(c) || c == '_'; }
constexpr bool is_blank(char c) { return c == ' ' || (c >= '\t' && c <= '\r'); }
constexpr bool is_control(char c) { return static_cast<unsigned char>(c) < 32 || c == 127; }
constexpr char lower(char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; }

inline std::string lower(std::string_view text) {
  std::string out(text);
  for (char& c : out) c = lower(c);
  return out;
}

}  // namespace lagniappe::ascii
