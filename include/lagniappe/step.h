// SPDX-License-Identifier: MIT
// One tick of motion: a function of values.
#pragma once

#include "lagniappe/character_state.h"
#include "lagniappe/ledger.h"

namespace lagniappe {

// Returns the state after one tick of `dt` seconds.
//
// Equal arguments give bit-equal results. Allocates nothing unless a ledger is attached, which is appended to
// and never read. If the foot leaves world.limits(), or on Action::Reset, the result is the start state at
// state.home with the tick counted on.
//
// Gravity pulls against the state's own up, whatever direction that is.
//
// Thread safety: any number of calls at once, as far as the world allows it.
// REQUIRES: 0 < dt <= 0.1; the state is finite; state.frame_CB is unit.
CharacterState step(const CharacterState& state, const InputFrame& input, const Profile& profile,
                    const World& world, double dt, Ledger* ledger = nullptr);

}  // namespace lagniappe
