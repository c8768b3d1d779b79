// SPDX-License-Identifier: MIT
// On a wall: taking hold from ground, air and from above, going over it, and letting go.
#pragma once

#include "motion/look.h"

namespace lagniappe {

// Whether one may take hold now: it is asked for, and there is a wall that is climbed, ahead or below the rim.
bool climb_may_begin(const StepContext& context, const CharacterState& state);

// Takes hold, if there is a wall; from above it begins the way down over the rim.
void begin_climb(const StepContext& context, CharacterState& state);

// At the end of that way.
void end_descent(const StepContext& context, CharacterState& state);

// Tells why a press finds no wall to climb, if one is there.
void refuse_climb(const StepContext& context, const CharacterState& state);

// Goes over the wall as is wished for; lets go where it no longer holds, or where the foot is on the floor.
void climb(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state);

// Brings who climbs back to the gap, where a turn about the foot took the rest of the body from it.
void come_to_gap(const StepContext& context, CharacterState& state);

// Unit, across up, from the wall to the body, in the course frame. REQUIRES: it climbs.
Vec3 away_from_wall(const StepContext& context, const CharacterState& state);

// Unit, across up: where a jump off it goes; off a ladder to the side that is pushed. REQUIRES: it climbs.
Vec3 jumps_towards(const StepContext& context, const CharacterState& state);

// m between the body's skin and what is climbed; of a ladder, its front. REQUIRES: it climbs.
double gap_to_wall(const StepContext& context, const CharacterState& state);

// Whether it is at the wall's top and pushed on up. REQUIRES: it climbs.
bool climbs_out(const StepContext& context, const CharacterState& state);

}  // namespace lagniappe
