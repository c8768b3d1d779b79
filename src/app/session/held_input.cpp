// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/held_input.h"

namespace lagniappe::app {

void HeldInput::push(Push direction, bool down, double at) {
  pushed_[static_cast<std::size_t>(direction)] = down;
  const auto axis = [&](Push positive, Push negative) {
    return double(pushed_[static_cast<std::size_t>(positive)]) -
           double(pushed_[static_cast<std::size_t>(negative)]);
  };
  pushes_.set({{axis(Push::Right, Push::Left), axis(Push::Forward, Push::Back)}, Vec2(0.0)}, at);
}

void HeldInput::release_all() {
  pushed_ = {};
  buttons_.release_all();
  sticks_.release_all();
  pushes_.release_all();
}

void HeldInput::deal(double tick_seconds, const Profile::Look& look, InputFrame& input) {
  InputFrame by_keys;
  pushes_.deal(tick_seconds, look, by_keys);
  sticks_.deal(tick_seconds, look, input);
  if (length(by_keys.move) >= length(input.move)) input.move = by_keys.move;
  buttons_.deal(tick_seconds, input);
}

void HeldInput::drop(double seconds) {
  buttons_.drop(seconds);
  sticks_.drop(seconds);
  pushes_.drop(seconds);
}

void HeldInput::settle() {
  sticks_.settle();
  pushes_.settle();
}

}  // namespace lagniappe::app
