// SPDX-License-Identifier: MIT
// What is common to all that is held on to.
#pragma once

#include <utility>

#include "motion/context.h"

namespace lagniappe {

// The frame of a piece at the end of the part; of one that stands still, the course's.
inline RigidPose hold_frame(const StepContext& context, PieceId piece) {
  const bool moves = piece != kNoPiece && context.world.moves(piece);
  return moves ? context.world.piece_frame(piece, context.now.time) : RigidPose{};
}

inline bool hangs(const CharacterState& state) { return state.hold.kind == Hold::Kind::Hang; }

inline bool climbs(const CharacterState& state) { return state.hold.kind == Hold::Kind::Climb; }

// Lets go, and for so many s takes hold of nothing but on a press; who hung or climbed also of something else.
inline void let_go(CharacterState& state, double pause) {
  const Hold before = std::exchange(state.hold, Hold{});
  state.hold.seconds = static_cast<float>(pause);
  if (before.kind != Hold::Kind::Hang && before.kind != Hold::Kind::Climb) return;
  state.hold.piece = before.piece;
  state.hold.at_P = before.at_P;
}

// Lets go of what does not hold, told; nothing is taken hold of for so many s.
void throw_off(const StepContext& context, const entry::LetGo& why, double pause, CharacterState& state);

// Goes to a place, holding on, as far as the way is free; returns what is in it.
std::optional<WorldHit> go_holding(const StepContext& context, const Body& body, const Vec3& target_C,
                                   CharacterState& state);

// The same for all of what is left of the tick, with the velocity that it comes to; thrown off where it does
// not go.
void stay_with_hold(const StepContext& context, const Body& body, const Vec3& target_C, double pause,
                    CharacterState& state);

}  // namespace lagniappe
