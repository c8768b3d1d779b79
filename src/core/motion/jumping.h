// SPDX-License-Identifier: MIT
// Leaving the ground: by a jump of any kind, or otherwise.
#pragma once

#include "motion/context.h"

namespace lagniappe {

inline constexpr double kLongAgo = 1e9;

void enter_state(const StepContext& context, CharacterState& state, StateId next);

// At the speed that it was left with, and with what the piece underfoot gives.
void leave_ground(const StepContext& context, CharacterState& state);

// Jumps if that was asked for (now, a little while ago, or by holding on) and anything lets it; else the ledger
// says what refused it.
void try_to_jump(const StepContext& context, const Body& body, CharacterState& state);

// A jump whose button was let go while rising rises less.
void cut_jump(const StepContext& context, CharacterState& state);

// Landing gives all jumps back.
void give_jumps_back(CharacterState& state);

}  // namespace lagniappe
