// SPDX-License-Identifier: MIT
// What the figures of a matrix come to for who has to choose a tick rate and a way to draw.
#pragma once

#include "lagniappe/timing.h"

namespace lagniappe {

struct TimingAdvice {
  std::string text;  // A sentence with its numbers.
  int tick_rate;     // What it says to try.
  Drawing drawing;
};

// For who ticks and draws as `now` does; the most telling first. REQUIRES: `now` is one of the rows.
std::vector<TimingAdvice> timing_advice(const std::vector<TimingRow>& rows, const TimingRow& now);

}  // namespace lagniappe
