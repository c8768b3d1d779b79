// SPDX-License-Identifier: MIT
// Which states the zones bar that a character is in.
#pragma once

#include "lagniappe/states.h"
#include "lagniappe/world.h"

namespace lagniappe {

// A bit for each state of the chart.
static_assert(kMostStates <= 64);
inline std::uint64_t bit_of(StateId state) { return std::uint64_t{1} << static_cast<int>(state); }

// Returns those states; names that the chart does not have bar nothing.
std::uint64_t barred_states(const World& world, const StateChart& chart, const CharacterState& state);

// Returns the first zone that bars it; kNoZone if none does.
ZoneId zone_that_bars(const World& world, const StateChart& chart, const CharacterState& state, StateId barred);

// Returns the state to be in instead of a barred one: the first that is not barred of those most like it, by
// behaviour and stance, by behaviour, by the place that it is for; of one for any place, where the table
// begins. Nothing where there is none.
std::optional<StateId> state_instead(const StateChart& chart, StateId barred, std::uint64_t all_barred);

}  // namespace lagniappe
