// SPDX-License-Identifier: MIT
#include "lagniappe/drive.h"

#include <algorithm>
#include <cmath>

namespace lagniappe {

InputFrame InputPlayer::next() {
  holding_.look.reset();
  holding_.pressed = {};
  for (; change_ < script_.changes.size(); ++change_) {
    const InputChange& change = script_.changes[change_];
    // A time that is a whole number of ticks must not slip to the next by rounding.
    if (static_cast<double>(tick_) < change.at * tick_rate_ - 1e-6) break;
    if (change.move) holding_.move = *change.move;
    if (change.look) holding_.look = *change.look;
    if (change.turn) holding_.turn_rate = *change.turn;
    holding_.pressed.bits |= change.press.bits & ~holding_.held.bits;
    holding_.held.bits = (holding_.held.bits | change.press.bits) & ~change.release.bits;
  }
  ++tick_;
  return holding_;
}

CharacterState drive(const CharacterState& start, const std::vector<InputFrame>& inputs, const Profile& profile,
                     const World& world, int tick_rate, const Observe& observe, bool with_ledger) {
  CharacterState state = start;
  Ledger ledger;
  for (const InputFrame& input : inputs) {
    ledger.entries.clear();
    state = step(state, input, profile, world, 1.0 / tick_rate, with_ledger ? &ledger : nullptr);
    observe(state, with_ledger ? &ledger : nullptr);
  }
  return state;
}

namespace {

// The highest point of the free flight between two states, along `up`.
double apex_between(const CharacterState& a, const CharacterState& b, const Vec3& up, double dt) {
  const double higher = std::max(dot(a.foot_C, up), dot(b.foot_C, up));
  const double rise = dot(a.velocity_C, up), fall = dot(b.velocity_C, up);
  const bool turns_over = rise > 0.0 && fall < 0.0 && b.slides == 0 && !b.grounded();
  if (!turns_over) return higher;
  const double gravity = (rise - fall) / dt;
  return std::max(higher, dot(a.foot_C, up) + rise * rise / (2.0 * gravity));
}

}  // namespace

DriveSummary summarize(const std::vector<CharacterState>& states, int tick_rate) {
  DriveSummary summary;
  const Vec3 up = states.front().up_C();
  summary.highest_point = dot(states.front().foot_C, up);
  summary.ticks = states.size() - 1;
  for (std::size_t i = 1; i < states.size(); ++i) {
    const CharacterState& a = states[i - 1];
    const CharacterState& b = states[i];
    const bool put_home = a.times_put_home != b.times_put_home;
    if (!put_home) summary.distance += length(b.foot_C - a.foot_C);
    summary.top_speed = std::max(summary.top_speed, length(b.velocity_C));
    summary.highest_point =
        std::max(summary.highest_point, put_home ? dot(b.foot_C, up) : apex_between(a, b, up, 1.0 / tick_rate));
    if (!b.grounded()) summary.airtime += 1.0 / tick_rate;
  }
  return summary;
}

}  // namespace lagniappe
