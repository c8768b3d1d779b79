// SPDX-License-Identifier: MIT
// Guards taken apart: which part of one holds.
#pragma once

#include <string>
#include <vector>

#include "lagniappe/signals.h"
#include "lagniappe/states.h"

namespace lagniappe {

// A part of a guard that is true or false by itself: a comparison, or a signal that is yes or no.
struct GuardPart {
  std::size_t begin, end;  // Bytes of the guard's text.
  bool holds;
  // What is compared, where the part compares numbers.
  bool compares = false;
  double left = 0.0, right = 0.0;
};

struct GuardVerdict {
  bool holds = false;
  std::vector<GuardPart> parts;  // In the order of the text; one for all of it where the guard needs Lua.
  std::string error;             // What Lua said; empty unless it failed.
};

// Returns what a guard of the chart comes to, part by part.
GuardVerdict explain(const StateChart& chart, const StateChart::Transition& transition, const SignalView& view);

// Returns why this is no guard, with the place as "line 1, column 7"; nothing if it is one. `memory` are the
// names of the table's slots.
std::optional<std::string> guard_fault(const std::string& guard, const std::vector<std::string>& memory);
// The same of an action or a script.
std::optional<std::string> script_fault(const std::string& script, const std::vector<std::string>& memory);

}  // namespace lagniappe
