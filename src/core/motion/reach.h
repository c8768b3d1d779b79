// SPDX-License-Identifier: MIT
// How far a tick may reach.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Everything that one tick's questions can be about: the way that is asked for or that momentum and moving
// ground give, a step up, a snap down. What reaches beyond is asked of the world itself, so this only decides
// the cost.
Box neighbourhood_of(const StepContext& context, const CharacterState& state);

}  // namespace lagniappe
