// SPDX-License-Identifier: MIT
// Leaving the ground: by a jump of any kind, or otherwise.
#pragma once

#include "motion/context.h"

namespace lagniappe {

inline constexpr double kLongAgo = 1e9;

// At the speed that it was left with, and with what the piece underfoot gives.
void leave_ground(const StepContext& context, CharacterState& state);

// The same, and from now on nothing is underfoot.
void lift_off(const StepContext& context, CharacterState& state);

struct JumpChoice {
  entry::Jump::From from;
  int jump;  // As CharacterState::flight_of.
};

// What would come of a jump now: whether it was asked for (now, a little while ago, or by holding on) and
// anything lets it; else what refuses it.
struct JumpJudgement {
  std::optional<JumpChoice> choice;
  entry::JumpRefused::Why why = entry::JumpRefused::Why::NoGround;
};
JumpJudgement judge_jump(const StepContext& context, const Body& body, const CharacterState& state);

// Jumps as judged; straight off, as from the ground, where it was judged otherwise. As high as the values in
// force say, by the gravity of `flight`, the values of the state that follows.
void jump(const StepContext& context, const Body& body, const Values& flight, CharacterState& state);

// For a tick in which no jump began: remembers a press, and tells what refused it.
void refuse_jump(const StepContext& context, const Body& body, CharacterState& state);

// A jump whose button was let go while rising rises less.
void cut_jump(const StepContext& context, CharacterState& state);

// Landing gives all jumps back.
void give_jumps_back(CharacterState& state);

}  // namespace lagniappe
