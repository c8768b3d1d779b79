// SPDX-License-Identifier: MIT
// The words of enums in ledger entries.
#pragma once

#include <array>
#include <string>

#include "lagniappe/states.h"

namespace lagniappe {

inline constexpr std::array<const char*, 3> kFeatures = {"face", "edge", "vertex"};
inline constexpr std::array<const char*, 5> kSlideKinds = {"along", "wall", "ceiling", "crease", "stop"};
inline constexpr std::array<const char*, 6> kStepOutcomes = {"taken",       "too high",     "no head room",
                                                             "short tread", "not walkable", "no gain"};

inline constexpr std::array<const char*, 6> kJumpsFrom = {"ground", "skid", "wall", "air", "rim", "climb"};
inline constexpr std::array<const char*, 7> kJumpRefusals = {
    "no ground", "air jumps used up", "skidding", "same wall", "no head room", "state", "no landing"};
inline constexpr std::array<const char*, 13> kMantleRefusals = {
    "nothing there", "out of reach",      "too high", "shelf too short", "shelf too steep",
    "leans over",    "no room for hands", "no room",  "overhead",        "on the way",
    "no landing",    "slips off",         "state"};
inline constexpr std::array<const char*, 7> kLetGos = {"no rim",  "too steep", "no room", "pushed off",
                                                       "no wall", "leans",     "aside"};
inline constexpr std::array<const char*, 5> kClimbRefusals = {"ends", "not climbable", "leans back",
                                                              "leans over", "no room"};
inline constexpr std::array<const char*, 3> kStanceWaits = {"ceiling", "wall", "drop"};
inline constexpr std::array<const char*, 7> kInstants = {"contact", "ground", "support", "state",
                                                         "zone",    "stick",  "waits"};
inline constexpr std::array<const char*, 2> kLieHolds = {"drop", "wall"};

// Of the built-in chart where there is none.
inline std::string_view state_name(const StateChart* chart, StateId id) {
  return (chart != nullptr ? *chart : *built_in_chart()).name_of(id);
}
inline const std::string& guard_text(const StateChart* chart, int row) {
  const StateTable& table = (chart != nullptr ? *chart : *built_in_chart()).table();
  return table.transitions[static_cast<std::size_t>(row)].guard;
}

template <typename Names, typename Enum>
std::string word(const Names& names, Enum value) {
  return std::string(names[static_cast<std::size_t>(value)]);
}

}  // namespace lagniappe
