// SPDX-License-Identifier: MIT
#include "lagniappe/fixed_step_clock.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace lagniappe {

FixedStepClock::FixedStepClock(int tick_rate, double longest_catch_up)
    : tick_rate_(tick_rate), longest_catch_up_(longest_catch_up) {
  assert(tick_rate >= kLowestTickRate && tick_rate <= kHighestTickRate);
}

int FixedStepClock::advance(double frame_seconds) {
  if (!(frame_seconds > 0.0) || !std::isfinite(frame_seconds)) return 0;
  const double made_up = std::min(frame_seconds, longest_catch_up_);
  dropped_ += frame_seconds - made_up;
  waiting_ += made_up;
  // Frames that are a whole number of ticks long must not lose one to rounding now and then.
  const double due = std::floor(waiting_ * tick_rate_ + 1e-9);
  waiting_ = std::max(waiting_ - due / tick_rate_, 0.0);
  return static_cast<int>(due);
}

void FixedStepClock::set_tick_rate(int tick_rate) {
  assert(tick_rate >= kLowestTickRate && tick_rate <= kHighestTickRate);
  waiting_ *= double(tick_rate_) / tick_rate;
  tick_rate_ = tick_rate;
}

void FixedStepClock::clear() { waiting_ = dropped_ = 0.0; }

}  // namespace lagniappe
