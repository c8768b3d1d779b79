// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/held_input.h"

namespace lagniappe::app {

void HeldInput::push(Push direction, bool down, double at) {
  pushed_[static_cast<std::size_t>(direction)] = down;
  const auto axis = [&](Push positive, Push negative) {
    return double(pushed_[static_cast<std::size_t>(positive)]) -
           double(pushed_[static_cast<std::size_t>(negative)]);
  };
  pushes_ = {axis(Push::Right, Push::Left), axis(Push::Forward, Push::Back)};
  sticks_.set(farther(), at);
}

void HeldInput::steer(const Sticks& sticks, double at) {
  steered_ = sticks;
  sticks_.set(farther(), at);
}

// Of keys and stick the farther push counts.
Sticks HeldInput::farther() const {
  return {length(pushes_) >= length(steered_.move) ? pushes_ : steered_.move, steered_.look};
}

void HeldInput::release_all() {
  pushed_ = {};
  buttons_.release_all();
  sticks_.release_all();
  pushes_ = Vec2(0.0);
  steered_ = {};
}

void HeldInput::deal(double tick_seconds, const Profile::Look& look, InputFrame& input) {
  sticks_.deal(tick_seconds, look, input);
  buttons_.deal(tick_seconds, input);
}

void HeldInput::drop(double seconds) {
  buttons_.drop(seconds);
  sticks_.drop(seconds);
}

}  // namespace lagniappe::app
