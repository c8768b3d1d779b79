// SPDX-License-Identifier: GPL-3.0-or-later
// A table against the built-in one that it is based on: what is its own, and putting back what was.
#pragma once

#include <string>

#include "lagniappe/states.h"

namespace lagniappe::app {

// Of a state, or of all that leads from one to another.
enum class Standing { Alone, BuiltIn, Changed, New };

Standing standing_of(const StateTable& table, const std::string& state);
Standing standing_of(const StateTable& table, const std::string& from, const std::string& to);

StateTable with_put_back(StateTable table, const std::string& state);
StateTable with_put_back(StateTable table, const std::string& from, const std::string& to);
// States of the built-in table that this one has not, with what leads from and to them.
std::vector<std::string> states_gone(const StateTable& table);
StateTable with_states_put_back(StateTable table);

// Returns the table based on the built-in one: its states and rows in that one's order, then its own.
StateTable based_on_built_in(StateTable table);

}  // namespace lagniappe::app
