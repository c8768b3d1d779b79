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

void HeldSticks::deal(double tick_seconds, const Profile::Look& look, InputFrame& input) {
  std::vector<SticksUntil> parts;
  const auto stand_until = [&](double share) {
    const auto until = static_cast<float>(share);
    if (until > (parts.empty() ? 0.0f : parts.back().until))
      parts.push_back({held_.move, stick_turn_rate(look, held_.look), until});
  };
  for (; !waiting_.empty() && waiting_.front().at < tick_seconds; waiting_.erase(waiting_.begin())) {
    stand_until(waiting_.front().at / tick_seconds);
    held_ = waiting_.front().sticks;
  }
  stand_until(1.0);
  set_sticks(parts, input);
  drop(tick_seconds);
}

Vec2 HeldSticks::turned(double seconds, const Profile::Look& look) const {
  Vec2 turned(0.0);
  Sticks sticks = held_;
  double since = 0.0;
  for (const Change& change : waiting_) {
    if (change.at >= seconds) break;
    turned += stick_turn_rate(look, sticks.look) * (change.at - since);
    sticks = change.sticks;
    since = change.at;
  }
  return turned + stick_turn_rate(look, sticks.look) * (seconds - since);
}

void HeldSticks::drop(double seconds) {
  for (Change& change : waiting_) change.at = std::max(change.at - seconds, 0.0);
}

}  // namespace lagniappe::app
