// SPDX-License-Identifier: MIT
// What pulls at a character, and how its body turns against that.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// The point at which fields are felt: as high as the profile says of who stands, as much lower as one is
// shorter; of who lies the middle.
Vec3 centre_of_mass(const Values& values, const CharacterState& state);

// What the world says that pulls at a point. `own_gravity`: the profile's, m/s2.
Felt feel(const World& world, const Vec3& point_C, double time, double own_gravity);

// Turns the body against the pull at the end of a part, as far as the profile's rate and smoothing turn it and
// as far as it fits: about the foot on the ground or on a wall, about the centre of mass in the air.
// `context.felt`: at the beginning of the part. Returns what was felt before the turn.
Felt turn_upright(const StepContext& context, CharacterState& state);

}  // namespace lagniappe
