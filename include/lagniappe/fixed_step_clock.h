// SPDX-License-Identifier: MIT
// Turns the uneven time of drawn frames into even ticks, and says how far between two ticks a frame is drawn.
#pragma once

#include <cstdint>

namespace lagniappe {

inline constexpr int kLowestTickRate = 10;
inline constexpr int kHighestTickRate = 480;

class FixedStepClock {
 public:
  // `longest_catch_up`: seconds of frame time that are made up for at most; what is beyond is dropped and
  // counted, so that one long hitch does not become a spiral of ever longer frames. REQUIRES: kLowestTickRate
  // <= tick_rate <= kHighestTickRate.
  explicit FixedStepClock(int tick_rate, double longest_catch_up = 0.25);

  // Adds the time of a drawn frame; returns how many ticks are due. Negative and non-finite times count as 0.
  int advance(double frame_seconds);

  // Changes the rate; the share of a tick already waited for is kept.
  void set_tick_rate(int tick_rate);

  void clear();  // Forgets waiting time and dropped time.

  int tick_rate() const { return tick_rate_; }
  double tick_seconds() const { return 1.0 / tick_rate_; }
  double blend() const {
    return waiting_ * tick_rate_;
  }  // In [0, 1): how far the drawn moment is past the last tick.
  double waiting_seconds() const { return waiting_; }
  double dropped_seconds() const { return dropped_; }

 private:
  int tick_rate_;
  double longest_catch_up_;
  double waiting_ = 0.0;  // In [0, 1 / tick_rate).
  double dropped_ = 0.0;
};

}  // namespace lagniappe
