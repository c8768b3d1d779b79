// SPDX-License-Identifier: MIT
// What is common to all that is held on to.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// The frame of a piece at the end of the part; of one that stands still, the course's.
inline RigidPose hold_frame(const StepContext& context, PieceId piece) {
  const bool moves = piece != kNoPiece && context.world.moves(piece);
  return moves ? context.world.piece_frame(piece, context.now.time) : RigidPose{};
}

// Lets go, and for so many s takes hold of nothing but on a press.
inline void let_go(CharacterState& state, double pause) {
  state.hold = Hold{};
  state.hold.seconds = static_cast<float>(pause);
}

}  // namespace lagniappe
