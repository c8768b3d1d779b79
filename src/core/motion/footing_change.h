// SPDX-License-Identifier: MIT
// What a part of a tick has changed of what one stands on or slides along: an event is the instant of that.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// s to which an event is found that no closed form gives: at a run a thousandth of a millimetre.
inline constexpr double kEventTime = 4e-6;

inline bool held_by_ground(const CharacterState& state) {
  return state.ground.verdict == Verdict::Walkable || state.ground.verdict == Verdict::Steep;
}

struct FootingChange {
  bool other = false;          // It is something else,
  double within = kEventTime;  // and the s to which the instant is to be found.
};

// What has become of what is underfoot since `from`; `stop`: of the motion between.
FootingChange footing_change(const World& world, const CharacterState& from, const CharacterState& now,
                             const Stop& stop);

}  // namespace lagniappe
