// SPDX-License-Identifier: MIT
// Named quantities of a tick, for curves and comparisons.
#pragma once

#include <span>
#include <string_view>

#include "lagniappe/profile.h"
#include "lagniappe/run.h"

namespace lagniappe {

// What a signal may look at. Tick 0 has itself as the tick before, and an empty input.
struct SignalView {
  const CharacterState &before, &state;
  const InputFrame& input;
  const Profile& profile;
  const World& world;
  const CharacterState& start;
  double dt;
};

struct Signal {
  std::string_view key;   // "ground_speed"; never changes.
  std::string_view name;  // "speed along ground".
  std::string_view unit;  // "m/s"; empty where it has none.
  double (*value)(const SignalView&);
};

// All of them. distance_to_ground looks into the world and costs about as much as a third of a tick; the others
// cost next to nothing.
std::span<const Signal> all_signals();

// Returns the signal with this key; null if there is none.
const Signal* find_signal(std::string_view key);

// Returns a signal's value at a tick of a run. REQUIRES: tick <= run.ticks(), the run is the take's.
double value_at(const Signal& signal, const Run& run, const Take& take, const World& world, std::size_t tick);

}  // namespace lagniappe
