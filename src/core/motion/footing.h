// SPDX-License-Identifier: MIT
// Moving by what is underfoot, and what is underfoot then: probe, judge, snap, land or leave.
#pragma once

#include "motion/look.h"

namespace lagniappe {

// Moves down a slope, through the air or, on walkable ground, by `on_walkable`, and finds what is underfoot at
// the end.
void move_and_find_ground(const StepContext& context, const Body& body, const Intent& intent,
                          void (*on_walkable)(const StepContext&, const Body&, const Intent&, CharacterState&),
                          CharacterState& state);

// Whether the air blows up more strongly than gravity holds down, so many s before the part's end: who stands
// there leaves the ground.
bool air_lifts(const StepContext& context, const CharacterState& state, double before_end);

// Finds what is underfoot for who held on to something until now, and goes on by `flat_C`, across up, against
// it.
void come_to_rest(const StepContext& context, const Body& body, const Vec3& flat_C, CharacterState& state);

}  // namespace lagniappe
