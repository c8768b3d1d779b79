// SPDX-License-Identifier: MIT
// Two runs side by side.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "lagniappe/run.h"

namespace lagniappe {

// Ticks are those of the first run. Runs of unlike rates are compared at the ticks of the slower one, and
// straight lines drawn between: so it is the same both ways round.
struct Comparison {
  bool identical = false;                       // Same rate, same length, and every tick the same to the bit.
  std::optional<std::size_t> first_difference;  // In any bit; nothing where the rates differ.
  std::optional<std::size_t> parting;           // The feet are more than `parting_distance` apart.
  double furthest = 0.0;                        // m between the feet.
  std::size_t furthest_at = 0;
  std::vector<float> apart;  // m, for every tick of the first run that both have.

  // From here on comparing means little: the second run goes over pieces that the first does not touch within
  // half a second of then, and is more than a body's width away.
  struct Drift {
    std::size_t tick;
    PieceId mine, other;  // What each stands on, or kNoPiece in the air.
  };
  std::optional<Drift> drift;
};

struct CompareOptions {
  double parting_distance = 0.001;  // m.
  double drift_distance = 0.6;      // m.
};

// Pieces are compared by number: REQUIRES the same course, or set `compare_pieces` to false.
Comparison compare(const Run& first, const Run& second, bool compare_pieces = true,
                   const CompareOptions& options = {});

// Returns the second run's tick that lies nearest to the time of the first run's.
std::size_t tick_at(const Run& first, std::size_t tick, const Run& second);

}  // namespace lagniappe
