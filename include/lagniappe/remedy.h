// SPDX-License-Identifier: MIT
// From what was refused to the value that refused it.
#pragma once

#include <optional>
#include <string>

#include "lagniappe/ledger.h"
#include "lagniappe/profile.h"
#include "lagniappe/world.h"

namespace lagniappe {

struct InputFrame;

// The value by which an entry of the ledger is a refusal, and how much of it would have been enough.
struct Remedy {
  std::string path;  // "ground.highest_step".
  // In the file's unit, rounded to what files have of it; choices as the index of their word. Nothing: no value
  // of it would have done, everything else being the same.
  std::optional<double> enough;
  // The state that has a value of its own there, by which the character moved; nothing: the profile's value.
  std::optional<StateId> state;
};

// `refused`: an entry of the tick of `dt` s that led from `before`. Returns nothing where no single value
// stands behind it. What is enough is found by stepping that very tick under other values, some forty times.
std::optional<Remedy> remedy_of(const LedgerEntry& refused, const CharacterState& before,
                                const InputFrame& input, const Profile& profile, const World& world, double dt);

// "0.361 m would have been enough", or that none would have been.
std::string to_sentence(const Remedy& remedy);

}  // namespace lagniappe
