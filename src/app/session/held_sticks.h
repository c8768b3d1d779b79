// SPDX-License-Identifier: GPL-3.0-or-later
// Sticks as they move in real time, dealt out to the ticks in which that was.
#pragma once

#include <vector>

#include "lagniappe/input_frame.h"

namespace lagniappe::app {

// Raw, as they come from a device: x right, y forward, each in [-1, 1].
struct Sticks {
  Vec2 move{0.0}, look{0.0};
  bool operator==(const Sticks&) const = default;
};

class HeldSticks {
 public:
  // `at`: s of the run after the end of the last tick; where that is before an earlier one, it counts as then.
  void set(const Sticks& sticks, double at);
  void release_all();
  const Sticks& now() const { return waiting_.empty() ? held_ : waiting_.back().sticks; }

  // Writes what the next tick, so long, has of them: where the move stick stood, and the rates at which the
  // look stick turned, each until its share of it.
  void deal(double tick_seconds, const Profile::Look& look, InputFrame& input);
  // What the look stick turns in the first so many s of the next tick, in radians of yaw and pitch.
  Vec2 turned(double seconds, const Profile::Look& look) const;
  // So many s of what waits are left out of the run.
  void drop(double seconds);
  void settle() {  // Time stands still: only where they are now counts.
    held_ = now();
    waiting_.clear();
  }

 private:
  struct Change {
    Sticks sticks;
    double at;
  };
  std::vector<Change> waiting_;  // In the order in which they came.
  Sticks held_;                  // At the end of the last tick.
};

}  // namespace lagniappe::app
