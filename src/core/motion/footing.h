// SPDX-License-Identifier: MIT
// Moving by what is underfoot, and what is underfoot then: probe, judge, snap, land or leave.
#pragma once

#include "motion/look.h"

namespace lagniappe {

// Moves on the ground, down a slope or through the air, and finds what is underfoot at the end. `skids`: on
// walkable ground the skid's run-out, instead of walking.
void move_and_find_ground(const StepContext& context, const Body& body, const Wish& wish, bool skids,
                          CharacterState& state);

}  // namespace lagniappe
