// SPDX-License-Identifier: MIT
// The phases of a part of a tick that are motion, in their order. The table of states is gone through between.
#pragma once

#include "lagniappe/behaviour.h"
#include "motion/context.h"

namespace lagniappe {

// Turns the look by what belongs to the time of the part.
void turn_look(StepContext& context, CharacterState& state);

// What moves the character before it does so itself: what bears or pushes it, and out of what it is in.
void be_moved(StepContext& context, CharacterState& state);

// How the present state moves.
struct Manner {
  Behaviour behaviour;
  Stance stance;
  std::optional<Vec2> steer;  // What a script asks for in place of the stick.
};

// What is asked of jumps and not given.
void settle_jumps(const StepContext& context, Behaviour behaviour, bool used_press, CharacterState& state);

// What is asked of a mantle and not given.
void settle_mantle(const StepContext& context, Behaviour behaviour, bool used_press,
                   const CharacterState& state);

// From what is asked for to what is underfoot then.
void move_by_itself(const StepContext& context, const Manner& manner, CharacterState& state);

}  // namespace lagniappe
