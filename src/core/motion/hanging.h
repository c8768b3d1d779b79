// SPDX-License-Identifier: MIT
// From a rim, below it: being caught, going along it, letting go.
#pragma once

#include "ledges/follow_rim.h"
#include "motion/look.h"

namespace lagniappe {

// Whether one may be caught now: it is asked for, and there is a rim with room below it.
bool hang_may_begin(const StepContext& context, const CharacterState& state);

// Takes hold, if there is a rim.
void begin_hang(const StepContext& context, CharacterState& state);

// Goes along the rim as is wished for; lets go where that no longer holds.
void hang(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state);

// Unit, across up, from the rim to the body, in the course frame. REQUIRES: it hangs.
Vec3 away_from_rim(const StepContext& context, const CharacterState& state);

// Whether the push leads away from the wall.
bool pushes_away(const StepContext& context, const CharacterState& state);

}  // namespace lagniappe
