// SPDX-License-Identifier: MIT
// The names that guards and scripts may use.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace lagniappe {

// Every signal, and "memory.NAME" for each slot.
std::vector<std::string> signal_names(const std::vector<std::string>& memory);

// Whether the word means something in the guards' Lua besides the signals: its keywords, and what its few
// libraries bring ("math.abs").
bool is_lua_word(std::string_view word);

// How many letters must be put in, taken out or changed to make one of the other.
std::size_t edit_distance(std::string_view a, std::string_view b);

// Returns "; did you mean “intent”?" for the nearest of the names; empty if none is near.
std::string did_you_mean(std::string_view word, const std::vector<std::string>& names);

}  // namespace lagniappe
