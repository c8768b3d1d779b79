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

}  // namespace lagniappe
