// SPDX-License-Identifier: MIT
// What a launch does to a velocity.
#pragma once

#include "lagniappe/character_state.h"

namespace lagniappe {

// Returns the velocity against the course, m/s, with which a launch that has no mark throws who has
// `velocity_C`: set or added along its frame, against what the zone goes with.
Vec3 launch_velocity(const effect::Launch& launch, const ZoneNow& zone, const CharacterState& state,
                     const Vec3& velocity_C);

}  // namespace lagniappe
