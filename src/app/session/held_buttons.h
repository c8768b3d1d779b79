// SPDX-License-Identifier: GPL-3.0-or-later
// Buttons as they go down and up in real time, dealt out to the ticks in which that was.
#pragma once

#include <vector>

#include "lagniappe/input_frame.h"

namespace lagniappe::app {

class HeldButtons {
 public:
  // `at`: s of the run after the end of the last tick.
  void set(Action action, bool down, double at);
  void release_all();

  // Writes what the next tick, so long, has of them. What goes down or up a second time in it waits for the one
  // after.
  void deal(double tick_seconds, InputFrame& input);
  // So many s of what waits are left out of the run.
  void drop(double seconds);

 private:
  struct Edge {
    Action action;
    bool down;
    double at;
  };
  std::vector<Edge> waiting_;  // In the order in which they came.
  Buttons down_, held_;        // As they are now, and at the end of the last tick.
};

}  // namespace lagniappe::app
