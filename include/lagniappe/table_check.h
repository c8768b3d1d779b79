// SPDX-License-Identifier: MIT
// Tables of states examined: what is wrong with one as it stands.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "lagniappe/states.h"

namespace lagniappe {

// Something about a table that a person should look at.
struct TableFinding {
  enum class Kind : std::uint8_t {
    Unreachable,  // No way leads to the state from where one begins.
    NoExit,       // Nothing leads out of the state.
    NoFall,       // The state stands on the ground, and nothing leads from it into the air.
    NoStandUp,    // The state is crouched or lying, and no way leads back to standing.
    Shadowed,     // Wherever the transition could be taken, one that is asked before it is taken instead.
    NeverHolds,   // The guard is false as it stands, or was in every tick in which it was asked.
    AlwaysHolds,  // The guard is true as it stands, or was in every tick in which it was asked.
    Flickers,     // Two states follow each other to and fro without a change of input.
    Loops,        // Transitions would lead round in a circle within a tick.
    NeverEntered,
    NeverFired,
  } kind;
  std::optional<StateId> state, other;  // Of states; two where it is about a pair.
  std::optional<std::size_t> row;       // Of a transition in the table.
  std::string text;                     // The sentence.
};

// What can be said of a table without driving. A guard that says at least what an earlier one says ("a and b"
// after "a") is shadowed by it; beyond that, guards are not compared.
std::vector<TableFinding> check_table(const StateChart& chart);

// "Walk to Skid", as the table has it: from may be a group or "any".
std::string transition_name(const StateChart& chart, std::size_t row);

}  // namespace lagniappe
