// SPDX-License-Identifier: MIT
// The parts that a state is made of. A take names those it was recorded with, each with a version, and has a
// hash of each after every tick: so it opens, and is proved in what it knew, when the state has grown since.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "lagniappe/character_state.h"

namespace lagniappe {

enum class StatePart : std::uint8_t {
  Body,    // Where it is, how it moves and looks, its shape, its home.
  Ground,  // What is underfoot and beside it.
  Jumps,   // What is remembered of presses, run-ups and flights.
  Table,   // The state, its time, the slots.
  Seen,    // What only drawings and signals ask for.
  Hold,    // What is held on to.
  Zones,   // What is touched of them.
};
inline constexpr std::size_t kStatePartCount = 7;

struct StatePartRow {
  std::string_view name;
  int version;
  int proved_from = 1;  // The oldest version that has the same fields; older ones are read, and proved no more.
};
// A part that gains a field goes up by one; see sim/state_fields.h.
inline constexpr std::array<StatePartRow, kStatePartCount> kStateParts = {
    {{"body", 1}, {"ground", 1}, {"jumps", 1}, {"table", 1}, {"seen", 2}, {"hold", 2, 2}, {"zones", 1}}};

// The version of each part that is known; 0: the part is not.
using PartVersions = std::array<int, kStatePartCount>;
PartVersions present_parts();

// A hash of all bits of each part; 0 of one that is not known.
using PartHashes = std::array<std::uint32_t, kStatePartCount>;

// Returns the hashes of what `known` knows of a state: states with equal ones are taken to be bit-identical in
// that.
PartHashes part_hashes(const CharacterState& state, const PartVersions& known);

// Returns the one hash of takes from before parts had hashes of their own.
std::uint64_t undivided_hash(const CharacterState& state);

// Returns a hash of all bits of a state's values: states with equal hashes are taken to be bit-identical.
std::uint64_t hash_of(const CharacterState& state);

}  // namespace lagniappe
