// SPDX-License-Identifier: MIT
// The table of behaviours: a new one is a file in behaviours/ and a row here.
#pragma once

#include "lagniappe/behaviour.h"
#include "motion/look.h"

namespace lagniappe {

struct BehaviourRow {
  BehaviourFacts facts;
  // Moves the capsule through a part of a tick, and finds what is underfoot then.
  void (*move)(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state);
  // Before the state's own entry action; null: nothing.
  void (*on_entering)(const StepContext& context, CharacterState& state);
};

const BehaviourRow& row_of(Behaviour behaviour);

}  // namespace lagniappe
