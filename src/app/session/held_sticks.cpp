// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/held_sticks.h"

#include <algorithm>

namespace lagniappe::app {

void HeldSticks::set(const Sticks& sticks, double at) {
  at = std::max(at, waiting_.empty() ? 0.0 : waiting_.back().at);
  if (!waiting_.empty() && waiting_.back().at == at) waiting_.pop_back();
  waiting_.push_back({sticks, at});
}

void HeldSticks::release_all() {
  waiting_.clear();
  held_ = {};
}

// Of a value of the sticks times the seconds for which they stand so.
template <typename Of>
Vec2 HeldSticks::sum_over(double seconds, Of of) const {
  Vec2 sum(0.0);
  Sticks sticks = held_;
  double since = 0.0;
  for (const Change& change : waiting_) {
    if (change.at >= seconds) break;
    sum += of(sticks) * (change.at - since);
    sticks = change.sticks;
    since = change.at;
  }
  return sum + of(sticks) * (seconds - since);
}

void HeldSticks::deal(double tick_seconds, const Profile::Look& look, InputFrame& input) {
  input.move = sum_over(tick_seconds, [](const Sticks& s) { return s.move; }) / tick_seconds;
  input.turn_rate = turned(tick_seconds, look) / tick_seconds;
  while (!waiting_.empty() && waiting_.front().at < tick_seconds) {
    held_ = waiting_.front().sticks;
    waiting_.erase(waiting_.begin());
  }
  drop(tick_seconds);
}

Vec2 HeldSticks::turned(double seconds, const Profile::Look& look) const {
  return sum_over(seconds, [&](const Sticks& s) { return stick_turn_rate(look, s.look); });
}

void HeldSticks::drop(double seconds) {
  for (Change& change : waiting_) change.at = std::max(change.at - seconds, 0.0);
}

}  // namespace lagniappe::app
