// SPDX-License-Identifier: MIT
// The wall that one slides along: whether it is touched still, and going round the end of it.
#pragma once

#include "motion/slide.h"

namespace lagniappe {

// Cosine above which a wall is the one that was slid along already: 11 degrees, so that a faceted round wall is
// one.
inline constexpr double kSameWall = 0.98;

// Cosine below which it has turned so far, 3 degrees, that what is wished along it is another.
inline constexpr double kTurnedWall = 0.9986;

struct WallContact {
  bool touched = false;
  bool on_edge = false;  // By an edge or corner that stands out, round which one rolls.
};

// How the wall of unit normal `wall_C` (across up) is touched from `foot_C`.
WallContact wall_contact(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& wall_C);

// Round the end of a wall: a motion along it ends off it, where what it took into itself may lead back to it.
// Goes there, as far as that was, with the velocity turned along; forgets the wall where it is not met again.
// `state`: before the motion.
void keep_to_wall(const StepContext& context, const Body& body, const CharacterState& state, Slid& slid);

// Whether a way whose velocity changes by `change_C` passes a wall, from the middle `foot_C` of its chord, so
// closely that what it would meet the chord may miss.
bool bends_by_wall(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& change_C);

// s for which one may go on by one motion: without end, but while one rolls round an edge, over so much of its
// arc that it is as good as straight. `rolled`: just before; there one may be off the edge for a moment.
double until_wall_turns(const StepContext& context, bool rolled, const CharacterState& state);

}  // namespace lagniappe
