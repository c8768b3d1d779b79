// SPDX-License-Identifier: GPL-3.0-or-later
// Changes of a table of states, as functions from a table to a table. What names a state goes along with it.
#pragma once

#include <string>

#include "lagniappe/states.h"

namespace lagniappe::app {

// Returns `wanted`, or with the first number after it that is not taken: "Walk 2".
std::string free_state_name(const StateTable& table, const std::string& wanted);

StateTable with_state_added(StateTable table, std::size_t at);
// With all transitions from and to it, in its place after it.
StateTable with_state_copied(StateTable table, std::size_t at);
StateTable with_state_renamed(StateTable table, std::size_t at, const std::string& name);
StateTable with_state_moved(StateTable table, std::size_t from, std::size_t to);
// Its transitions go; states that are like it become themselves what they had of it. REQUIRES: it is not the
// last.
StateTable without_state(StateTable table, std::size_t at);

}  // namespace lagniappe::app
