// SPDX-License-Identifier: MIT
// How the capsule moves in a part of a tick: velocity by the exact integrators, then collide and slide.
// Velocities are against the piece underfoot while there is one. Each changes foot, velocity, acceleration and
// the tick's counters of `state`, and nothing else.
#pragma once

#include "motion/look.h"

namespace lagniappe {

// On walkable ground.
void walk(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state);
// On walkable ground what is left of a skid runs out, towards the pace that is wished for.
void run_out(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state);
// Down what is too steep to walk.
void skid(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state);
// Through the air, rising too.
void fall(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state);
// Free flight along the look, without gravity and ground.
void fly(const StepContext& context, const Body& body, CharacterState& state);
// Adrift where nothing pulls: the velocity stays, but for thrust.
void float_freely(const StepContext& context, const Body& body, CharacterState& state);

}  // namespace lagniappe
