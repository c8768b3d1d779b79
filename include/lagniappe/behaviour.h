// SPDX-License-Identifier: MIT
// The kinds of states: what code moves the capsule, and what the capsule becomes.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

namespace lagniappe {

// What code moves the capsule. Ground, air and skid are one solver that goes by what is underfoot, so that no
// table can break it: the behaviour says what a state is for, and a state of Skid runs out on walkable ground
// instead of walking.
enum class Behaviour : std::uint8_t { Ground, Air, Skid, Fly, Script, Mantle, Hang, Climb, Float };
inline constexpr std::size_t kBehaviourCount = 9;

// What is true of a behaviour, whichever state has it.
struct BehaviourFacts {
  enum class Place : std::uint8_t { Any, Ground, Air };
  std::string_view name;      // In files.
  std::string_view help;      // In a few words.
  Place place = Place::Any;   // What a state of it is for.
  bool own_way = false;       // Moves otherwise than by what is underfoot: changes are felt at their instant.
  bool held_by_world = true;  // Gravity pulls, ground bears, jumps are counted, the stick steers across up.
  bool scripted = false;      // A state of it has a script.
  bool holds = false;         // Goes by what it holds on to; with no hold, by what is underfoot.
};
const BehaviourFacts& facts_of(Behaviour behaviour);
std::array<std::string_view, kBehaviourCount> behaviour_names();

enum class Stance : std::uint8_t { Standing, Crouched, Lying };
inline constexpr std::array<std::string_view, 3> kStanceNames = {"standing", "crouched", "lying"};

}  // namespace lagniappe
