// SPDX-License-Identifier: MIT
// Where a flight will end: followed ahead by the solver's own motion, for whoever guards rims in the air too.
#pragma once

#include "motion/look.h"

namespace lagniappe {

struct FlightEnd {
  Vec3 foot_C;  // Where ground was met, or when it was followed no further.
  bool lands;   // On ground that is walked on.
  double drop;  // m that this is lower, along up, than where it began.
  double seconds;
  PieceId piece;  // That it lands on.
};

// Follows a flight with what is asked for held on to. It is followed no further down than `deepest` m.
FlightEnd flight_end(const StepContext& context, const Intent& intent, CharacterState state, double deepest);

// What steering keeps of an intent where rims are guarded in the air: all, or nothing where it would land lower
// than the flight does by itself, by more than ground may drop away.
Intent guarded_steering(const StepContext& context, const Intent& intent, const CharacterState& state);

}  // namespace lagniappe
