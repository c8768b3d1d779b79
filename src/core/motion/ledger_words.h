// SPDX-License-Identifier: MIT
// The words of enums in ledger entries.
#pragma once

#include <array>
#include <string>

namespace lagniappe {

inline constexpr std::array<const char*, 3> kFeatures = {"face", "edge", "vertex"};
inline constexpr std::array<const char*, 5> kSlideKinds = {"along", "wall", "ceiling", "crease", "stop"};
inline constexpr std::array<const char*, 6> kStepOutcomes = {"taken",       "too high",     "no head room",
                                                             "short tread", "not walkable", "no gain"};

inline constexpr std::array<const char*, 4> kJumpsFrom = {"ground", "skid", "wall", "air"};
inline constexpr std::array<const char*, 5> kJumpRefusals = {"no ground", "air jumps used up", "skidding",
                                                             "same wall", "no head room"};

template <typename Names, typename Enum>
std::string word(const Names& names, Enum value) {
  return std::string(names[static_cast<std::size_t>(value)]);
}

}  // namespace lagniappe
