// SPDX-License-Identifier: MIT
// The locale of the environment, as a program that uses the library would set it. A run of the tests under one
// with a decimal comma is asked for by LAGNIAPPE_DECIMAL_COMMA; where such a locale is not in force that is no
// run.
#pragma once

#include <clocale>
#include <cstdio>
#include <cstdlib>
#include <locale>
#include <stdexcept>
#include <string>

namespace lagniappe::test {

inline void set_own_locale() {
  std::setlocale(LC_ALL, "");
  try {
    std::locale::global(std::locale(""));
  } catch (const std::runtime_error&) {
    // The environment names a locale that is not on this machine.
  }
}

inline bool has_decimal_comma() {
  char text[16];
  std::snprintf(text, sizeof text, "%.1f", 0.5);
  return std::string(text) == "0,5";
}

// Ends the program where a comma is asked for and not to be had.
inline void must_have_wanted_locale() {
  if (std::getenv("LAGNIAPPE_DECIMAL_COMMA") == nullptr || has_decimal_comma()) return;
  std::fputs("error: a locale with a decimal comma is asked for, and this one has a point\n", stderr);
  std::exit(3);
}

}  // namespace lagniappe::test
