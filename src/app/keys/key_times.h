// SPDX-License-Identifier: GPL-3.0-or-later
// When keys really went down and up: the system's stamps on them, in the program's time.
#pragma once

#include <algorithm>
#include <cstdint>
#include <limits>

namespace lagniappe::app {

class KeyTimes {
 public:
  // Returns by how many s an event with this stamp (ms, of a clock of its own; 0: none) is handled too late.
  // The least delay ever seen is taken as none.
  double late_by(std::uint64_t stamp_ms, double now_s) {
    if (stamp_ms == 0) return 0.0;
    const double delay = now_s - static_cast<double>(stamp_ms) * 1e-3;
    // A clock that was set back, or began anew, is another one.
    if (delay - least_ > kLongest) least_ = delay;
    least_ = std::min(least_, delay);
    return delay - least_;
  }

 private:
  static constexpr double kLongest = 1.0;  // s that an event may wait.
  double least_ = std::numeric_limits<double>::infinity();
};

}  // namespace lagniappe::app
