// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/held_buttons.h"

#include <algorithm>

namespace lagniappe::app {

void HeldButtons::set(Action action, bool down, double at) {
  if (down_.has(action) == down) return;
  down_.set(action, down);
  waiting_.push_back({action, down, std::max(at, 0.0)});
}

void HeldButtons::release_all() {
  waiting_.clear();
  down_ = held_ = {};
}

void HeldButtons::deal(double tick_seconds, InputFrame& input) {
  std::vector<Edge> later;
  Buttons released, waits;
  for (Edge edge : waiting_) {
    const auto i = static_cast<std::size_t>(edge.action);
    Buttons& done = edge.down ? input.pressed : released;
    if (edge.at >= tick_seconds || done.has(edge.action) || waits.has(edge.action)) {
      waits.set(edge.action, true);
      edge.at = std::max(edge.at - tick_seconds, 0.0);
      later.push_back(edge);
      continue;
    }
    done.set(edge.action, true);
    held_.set(edge.action, edge.down);
    (edge.down ? input.pressed_at : input.released_at)[i] = static_cast<float>(edge.at / tick_seconds);
  }
  waiting_ = std::move(later);
  input.held = held_;
}

void HeldButtons::drop(double seconds) {
  for (Edge& edge : waiting_) edge.at = std::max(edge.at - seconds, 0.0);
}

}  // namespace lagniappe::app
