// SPDX-License-Identifier: MIT
// Signals of a run.
#pragma once

#include "lagniappe/run.h"
#include "lagniappe/signals.h"

namespace lagniappe {

// Returns what the signals see at a tick of a run. REQUIRES: tick <= run.ticks(), the run is the take's;
// `values` are those in force there. All must outlive the view.
SignalView view_at(const Run& run, const Take& take, const World& world, const Values& values,
                   std::size_t tick);

// Returns a signal's value at a tick of a run. REQUIRES: tick <= run.ticks(), the run is the take's.
double value_at(const Signal& signal, const Run& run, const Take& take, const World& world, std::size_t tick);

}  // namespace lagniappe
