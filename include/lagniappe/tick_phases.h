// SPDX-License-Identifier: MIT
// The order of a tick: what each of its phases did to place and velocity, out of the tick's ledger.
#pragma once

#include <array>
#include <string_view>
#include <vector>

#include "lagniappe/character_state.h"
#include "lagniappe/ledger.h"

namespace lagniappe {

inline constexpr std::array<std::string_view, 8> kTickPhases = {
    "look", "up", "carry and push", "intent", "state", "velocity", "move", "ground"};

struct TickPhase {
  std::string_view name;             // Of kTickPhases.
  Vec3 moved_C = Vec3(0.0);          // m of the foot.
  Vec3 changed_C = Vec3(0.0);        // m/s, against the course.
  std::vector<std::size_t> entries;  // Of the ledger, in its order.
};

// All phases, in order; those that did nothing too. Their ways sum to the tick's, and their changes of
// velocity. In a tick with events each phase has what its parts did. What put one home counts as a move.
std::vector<TickPhase> tick_phases(const CharacterState& before, const CharacterState& after,
                                   const Ledger& ledger);

}  // namespace lagniappe
