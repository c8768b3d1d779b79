// SPDX-License-Identifier: MIT
// The capsule's shape: standing, crouched, lying. It changes with the foot where it is, at an even rate, and
// only as far as there is room.
#pragma once

#include "lagniappe/behaviour.h"
#include "motion/context.h"

namespace lagniappe {

// m, of the capsule that crouches.
inline double crouched_height(const Values& values) {
  return std::clamp(values.stances.crouched_height, 2.0 * values.capsule.radius, values.capsule.height);
}

// Brings the capsule as near to a stance as the tick's time and the room allow; the ledger has what is in the
// way.
void take_stance(const StepContext& context, Stance stance, CharacterState& state);

// Returns how far the capsule could rise, along walls, at most `most`.
double head_room(const StepContext& context, const Body& body, const Vec3& foot_C, double most);

// Whether there is room for the capsule of a stance where the character is. Lying also wants ground under both
// ends if there is any underfoot.
bool has_room(const StepContext& context, const CharacterState& state, Stance stance);

// Turns a lying body towards `facing` (in the body frame), as far as it neither enters a wall nor hangs over a
// drop.
void turn_lying(const StepContext& context, double facing, CharacterState& state);

// After the motion: a lying body on the ground follows it under both ends.
void settle_lying(const StepContext& context, CharacterState& state);

}  // namespace lagniappe
