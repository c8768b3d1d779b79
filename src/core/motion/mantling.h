// SPDX-License-Identifier: MIT
// Up over a rim: whether it could begin, the way, and the motion along it.
#pragma once

#include "ledges/plan_mantle.h"
#include "motion/look.h"

namespace lagniappe {

// The plan for the way that is pushed, else faced.
MantleAnswer judge_mantle(const StepContext& context, const CharacterState& state);

// Whether one may begin now: it is asked for, and there is a way. Who was thrown off takes hold again only
// after mantle.least_time, or by a press.
bool mantle_may_begin(const StepContext& context, const CharacterState& state);

// Takes hold, if there is a way.
void begin_mantle(const StepContext& context, CharacterState& state);

// For a tick in which none began: tells what refused a press.
void refuse_mantle(const StepContext& context, const CharacterState& state);

// Goes on along the way of the hold; at its end onto the ground, and where something came into the way, lets
// go.
void go_over_rim(const StepContext& context, const Body& body, CharacterState& state);

// Counts the time since one was thrown off.
void count_pause(const StepContext& context, CharacterState& state);

// Turns the body to where the way leads over the rim.
void face_hold(const StepContext& context, CharacterState& state);

}  // namespace lagniappe
