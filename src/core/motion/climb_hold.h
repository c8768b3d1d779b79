// SPDX-License-Identifier: MIT
// The hold on a wall or a ladder, as it is kept in the state.
#pragma once

#include "ledges/wall_grip.h"
#include "motion/context.h"

namespace lagniappe {

ClimbShape climb_shape(const StepContext& context, const CharacterState& state);

// REQUIRES: it climbs.
WallGrip grip_of(const StepContext& context, const CharacterState& state);

// Goes on with another grip; the pull stays as `before` has it.
void keep_grip(const StepContext& context, const WallGrip& grip, const ClimbHold& before,
               CharacterState& state);

// Begins to be pulled to a grip from a place of the foot; told. `bend`: as ClimbHold::bend.
void take_grip(const StepContext& context, const WallGrip& grip, const Vec3& from_C, float bend,
               CharacterState& state);

void note_grip(const StepContext& context, const WallGrip& grip, bool from_above);

// m from the grip that the foot is still to be, while it is pulled. REQUIRES: it climbs.
Vec3 pull_left(const StepContext& context, const CharacterState& state);

}  // namespace lagniappe
