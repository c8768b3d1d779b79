// SPDX-License-Identifier: MIT
// Expected refusals: what is returned instead of a value when a file cannot be used.
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace lagniappe {

// One refusal, fit to be shown as it is.
struct Error {
  std::string file;   // As the caller named it.
  std::string place;  // "line 12, column 5 (/pieces/3/size)", "node 4 'Roof'", "byte 20"; never empty.
  std::string what;   // One sentence: what is wrong, and what would be right.

  // "FILE: PLACE: WHAT", on one line whatever names from files are in it.
  std::string sentence() const {
    std::string text = file + ": " + place + ": " + what;
    for (char& c : text) {
      if (static_cast<unsigned char>(c) < 32) c = ' ';
    }
    return text;
  }
};

template <typename T>
using Result = tl::expected<T, Error>;

inline tl::unexpected<Error> refuse(Error error) { return tl::unexpected<Error>(std::move(error)); }

}  // namespace lagniappe
