// SPDX-License-Identifier: GPL-3.0-or-later
// All that the hands do in real time, dealt out to the ticks in which that was: buttons, sticks, and the keys
// that push as a stick would.
#pragma once

#include <array>

#include "session/held_buttons.h"
#include "session/held_sticks.h"

namespace lagniappe::app {

class HeldInput {
 public:
  enum class Push { Forward, Back, Left, Right };

  // `at`: s of the run after the end of the last tick.
  void push(Push direction, bool down, double at);
  void hold(Action action, bool down, double at) { buttons_.set(action, down, at); }
  void steer(const Sticks& sticks, double at);
  void release_buttons() { buttons_.release_all(); }
  void release_all();

  // Writes what the next tick, so long, has of them.
  void deal(double tick_seconds, const Profile::Look& look, InputFrame& input);
  // What the look stick turns in the first so many s of the next tick, in radians of yaw and pitch.
  Vec2 turned(double seconds, const Profile::Look& look) const { return sticks_.turned(seconds, look); }
  // So many s of what waits are left out of the run.
  void drop(double seconds);
  // Time stands still: of what pushes and turns only how it is now counts.
  void settle() { sticks_.settle(); }
  // The same for buttons: what waits is of the next tick's beginning.
  void press_now(double waiting) { buttons_.drop(waiting); }

 private:
  Sticks farther() const;

  std::array<bool, 4> pushed_{};
  HeldButtons buttons_;
  HeldSticks sticks_;
  Vec2 pushes_ = Vec2(0.0);  // By the keys.
  Sticks steered_;
};

}  // namespace lagniappe::app
