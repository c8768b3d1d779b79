// SPDX-License-Identifier: MIT
// When, within a tick, buttons go down and up, sticks move, and a look is set.
#pragma once

#include <algorithm>
#include <array>

#include "lagniappe/input_frame.h"

namespace lagniappe {

// What is no share of a tick counts as its beginning.
inline double share_of(float given) {
  const double share = given;
  return share > 0.0 && share < 1.0 ? share : 0.0;
}

class InputEdges {
 public:
  // The input must outlive it. `before`: what was held at the end of the last tick.
  InputEdges(const InputFrame& input, Buttons before) : input_(input), before_(before) {
    up_.bits = (before.bits | input.pressed.bits) & (~input.held.bits | (before.bits & input.pressed.bits));
    shares_[count_++] = 0.0;
    for (const SticksUntil& sticks : input.earlier) {
      if (share_of(sticks.until) == 0.0) break;
      add(share_of(sticks.until));
    }
    if (input.look && share_of(input.look_at) > 0.0) add(share_of(input.look_at));
    if (count_ == 1 && input.pressed.bits == 0 && up_.bits == 0) return;
    for (std::size_t i = 0; i < kActionCount; ++i) {
      if (input.pressed.has(static_cast<Action>(i))) add(share_of(input.pressed_at[i]));
      if (up_.has(static_cast<Action>(i))) add(share_of(input.released_at[i]));
    }
    std::sort(shares_.begin(), shares_.begin() + count_);
    count_ = static_cast<int>(std::unique(shares_.begin(), shares_.begin() + count_) - shares_.begin());
  }

  // The instants at which anything changes, in order; the first is the tick's beginning.
  int count() const { return count_; }
  double share(int i) const { return shares_[static_cast<std::size_t>(i)]; }

  Buttons pressed_at(double share) const {
    if (count_ == 1) return input_.pressed;
    Buttons now;
    for (std::size_t i = 0; i < kActionCount; ++i) {
      const auto action = static_cast<Action>(i);
      now.set(action, input_.pressed.has(action) && share_of(input_.pressed_at[i]) == share);
    }
    return now;
  }

  // What is down from then on. A button that goes down and up at one instant is as it is at the end.
  Buttons held_at(double share) const {
    if (count_ == 1) return input_.held;
    Buttons now = before_;
    for (std::size_t i = 0; i < kActionCount; ++i) {
      const auto action = static_cast<Action>(i);
      const double down = share_of(input_.pressed_at[i]), up = share_of(input_.released_at[i]);
      const bool went_down = input_.pressed.has(action) && down <= share,
                 went_up = up_.has(action) && up <= share;
      if (went_down && went_up && up == down)
        now.set(action, input_.held.has(action));
      else if (went_down || went_up)
        now.set(action, went_down && (!went_up || down > up));
      // Who holds a button from nowhere, as a game may, holds it from the beginning.
      else if (!input_.pressed.has(action) && input_.held.has(action))
        now.set(action, true);
    }
    return now;
  }

 private:
  void add(double share) { shares_[static_cast<std::size_t>(count_++)] = share; }

  const InputFrame& input_;
  Buttons before_;
  Buttons up_;  // Went up at any time in the tick.
  std::array<double, 2 * kActionCount + kMostEarlierSticks + 2> shares_{};
  int count_ = 0;
};

}  // namespace lagniappe
