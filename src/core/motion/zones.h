// SPDX-License-Identifier: MIT
// What zones do to a character that touches them.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Whether on the way between two states another zone was touched, or one that was touched is no longer.
bool zones_change(const World& world, double radius, const CharacterState& from, const CharacterState& now);

struct ZonesMet {
  bool any = false;  // Something was entered or left, or threw.
  ZoneId sends_home = kNoZone;
};

// Enters and leaves zones after the way from one state to another, tells so, and does what they do once:
// throws, moves the home.
ZonesMet meet_zones(const StepContext& context, const CharacterState& from, CharacterState& state);

// s until a launch that one is still in throws again.
double until_thrown_again(const World& world, const CharacterState& state);

// What zones make of the speeds on the ground.
double pace_in_zones(const World& world, const CharacterState& state);

}  // namespace lagniappe
