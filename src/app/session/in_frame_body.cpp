// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/in_frame_body.h"

#include <cmath>

namespace lagniappe::app {
namespace {

constexpr double kLongestStep = 0.1;    // s, see step().
constexpr double kShortestStep = 1e-6;  // s; what is shorter waits for the next frame.

}  // namespace

void InFrameBody::begin(const CharacterState& ticked, Of of, const HeldInput& hands) {
  state_ = ticked;
  of_ = of;
  hands_ = hands;
}

void InFrameBody::go_on(double until, const Vec2& look, const std::optional<Eye>& seen_by,
                        const Profile& profile, const World& world) {
  const double seconds = until - state_->time;
  if (seconds < kShortestStep) return;
  const int parts = static_cast<int>(std::ceil(seconds / kLongestStep - 1e-9));
  for (int i = 0; i < parts; ++i) {
    InputFrame input;
    hands_.deal(seconds / parts, profile.look, input);
    // Sticks and mouse are in the look, to which it turns evenly.
    input.turn_rate = Vec2(0.0);
    for (SticksUntil& sticks : input.earlier) sticks.turn_rate = Vec2(0.0);
    input.look_delta =
        Vec2(std::remainder(look.x - state_->yaw, 2.0 * kPi), look.y - state_->pitch) / double(parts - i);
    if (seen_by) sticks_in_view(*seen_by, state_->frame_CB, state_->yaw, input);
    state_ = step(*state_, input, profile, world, seconds / parts);
  }
}

}  // namespace lagniappe::app
