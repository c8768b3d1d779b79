// SPDX-License-Identifier: MIT
// The phases of a part of a tick, each a function; what they decide is in their ledger entries.
#pragma once

#include "states/table_pass.h"

namespace lagniappe {

// Moves `state` on by `context.dt` as its state wants it, from the look to what is underfoot then. The table is
// gone through by the caller, before and after.
void advance(StepContext& context, TablePass& table, CharacterState& state);

}  // namespace lagniappe
