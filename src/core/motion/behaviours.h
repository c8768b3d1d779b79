// SPDX-License-Identifier: MIT
// How each kind of state moves the capsule in one tick: velocity by the exact integrators, then collide and
// slide. Velocities are against the piece underfoot while there is one.
#pragma once

#include "motion/look.h"

namespace lagniappe {

// Each changes foot, velocity, acceleration and the tick's counters of `state`, and nothing else.
void move_on_ground(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state);
void move_skidding(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state);
void move_in_air(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state);
void move_in_flight(const StepContext& context, const Body& body, CharacterState& state);

// The speed on the ground that a wish of share 1 asks for, on the level.
double full_ground_speed(const StepContext& context);

}  // namespace lagniappe
