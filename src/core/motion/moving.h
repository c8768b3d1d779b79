// SPDX-License-Identifier: MIT
// What moving pieces do to a character before it moves by itself: carry it, and push it.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// With what a character goes, and how far that went in the tick.
struct Carried {
  Vec3 shift_C = Vec3(0.0);
  PieceId by = kNoPiece;
};

// Returns the s, at most `most`, after which the piece underfoot begins to fall away faster than who stands on
// it.
double until_support_falls(const World& world, const Values& profile, const CharacterState& state, double most);

// Takes the character along with the moving piece that it stands on: its foot, what it looks at and faces, and
// its velocity, which is against that piece. Stops where a solid that stands still is in the way. Who stands on
// a piece that falls away faster than he does leaves it instead, with what it gave him.
Carried carry(const StepContext& context, const Body& body, CharacterState& state);

// The same with the piece that it holds on to.
Carried go_with_hold(const StepContext& context, const Body& body, CharacterState& state);

// In the air the same among pieces that all move alike, as within a carriage: where there is nothing else in
// reach, the tick is gone through as if they stood still. Velocities stay against the course.
Carried accompany(const StepContext& context, const Body& body, CharacterState& state);

// Moves the character out of the way of every other piece that came into it since the last tick, however fast,
// and returns the ways that it was moved. On the ground that goes along the ground, round walls and up steps.
Pushes take_pushes(const StepContext& context, const Body& body, const Carried& carried, CharacterState& state);

// Returns the velocity that the piece underfoot has at the foot, at the end of the tick. There, and not where
// the capsule touches: a body that lies touches along its whole length.
Vec3 ground_velocity(const StepContext& context, const CharacterState& state);

// Returns the velocity with which the surface underfoot carries along its face, against its piece.
Vec3 drift_of(const World& world, const Ground& ground, double time);

// Returns what a character that leaves the ground takes along of its velocity.
Vec3 inherited_velocity(const StepContext& context, const Vec3& ground_velocity_C, const Vec3& up_C);

}  // namespace lagniappe
