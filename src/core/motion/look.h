// SPDX-License-Identifier: MIT
// The look, and the intent that is asked for in its frame.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Returns yaw and pitch turned by `turn`; yaw wrapped, pitch clamped.
Vec2 turned_look(const Vec2& look, const Vec2& turn, const Profile::Look& limits);

// What the player asks for.
struct Intent {
  Vec3 direction_C;  // Unit, across up; zero where nothing is asked.
  double share;      // Of the full speed, in [0, 1].
  // rad/s about up at which the direction turns, which is that of the middle of the part.
  double turning = 0.0;
};

// Returns the intent on the plane across up. Built from yaw alone, so it is sound when the look is straight
// down. It goes by the middle of what the part turns, so that arcs are the same at any tick rate, to second
// order.
Intent ground_intent(const StepContext& context, const CharacterState& state);

// Returns the intent of free flight: forward along the look, up on jump, down on crouch. Not across up.
Intent flight_intent(const StepContext& context, const CharacterState& state);

}  // namespace lagniappe
