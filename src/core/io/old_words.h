// SPDX-License-Identifier: MIT
// What files written before call otherwise: they are read all the same, and told what it is called now.
#pragma once

#include <array>
#include <string>
#include <string_view>
#include <vector>

#include "io/json_document.h"

namespace lagniappe {

struct OldPath {
  std::string_view section, key, now;
};
inline constexpr std::array<OldPath, 2> kOldPaths = {
    {{"jump", "hang_speed", "apex_speed"}, {"jump", "hang_factor", "apex_factor"}}};

// Returns what a value was called before; empty for one that had no other name.
constexpr std::string_view old_key(std::string_view section, std::string_view now) {
  for (const OldPath& path : kOldPaths) {
    if (path.section == section && path.now == now) return path.key;
  }
  return {};
}

// Returns the present name of a whole path.
std::string present_path(const std::string& path);
// Returns whole paths, as in "jump.apex_speed", with those that some were called before.
std::vector<std::string_view> with_old_paths(const std::vector<std::string>& paths);
// Returns the key that the object has for a path: what it was called before, if it has that and not the present
// one.
std::string key_of_path(const JsonCursor& object, const std::string& path);

// Returns a profile's text with the present names of its values, every other byte as it was.
std::string with_present_paths(std::string text);

}  // namespace lagniappe
