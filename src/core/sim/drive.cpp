// SPDX-License-Identifier: MIT
#include "lagniappe/drive.h"

#include <algorithm>
#include <cmath>

namespace lagniappe {

namespace {

// Of a tick: what is nearer to its beginning, or to the next one's, is there. A time that is a whole number of
// ticks must not slip to another by rounding.
constexpr double kNear = 1e-6;

void press_in(const InputChange& change, double share, InputFrame& frame) {
  for (std::size_t i = 0; i < kActionCount; ++i) {
    const auto action = static_cast<Action>(i);
    if (change.press.has(action) && !frame.held.has(action)) {
      frame.pressed.set(action, true);
      frame.pressed_at[i] = static_cast<float>(share);
    }
    if (change.release.has(action)) frame.released_at[i] = static_cast<float>(share);
  }
  frame.held.bits = (frame.held.bits | change.press.bits) & ~change.release.bits;
}

}  // namespace

InputFrame InputPlayer::next() {
  const auto begin = static_cast<double>(tick_++);
  return gather(begin, tick_rate_);
}

InputFrame InputPlayer::next(double seconds) {
  const double begin = passed_ / seconds;
  passed_ += seconds;
  return gather(begin, 1.0 / seconds);
}

// Of one tick, or stretch, that begins `begin` of its own lengths after the start.
InputFrame InputPlayer::gather(double begin, double per_second) {
  InputFrame frame;
  frame.held = held_;
  std::vector<SticksUntil> parts;
  for (; change_ < script_.changes.size(); ++change_) {
    const InputChange& change = script_.changes[change_];
    const double exact = change.at * per_second - begin, share = exact < kNear ? 0.0 : exact;
    if (share >= 1.0 - kNear) break;
    move_sticks(change, share, parts);
    if (change.look) frame.look = change.look, frame.look_at = static_cast<float>(share);
    press_in(change, share, frame);
  }
  parts.push_back(sticks_);
  set_sticks(parts, frame);
  held_ = frame.held;
  return frame;
}

// `parts`: how the sticks stood before, in this stretch.
void InputPlayer::move_sticks(const InputChange& change, double share, std::vector<SticksUntil>& parts) {
  if (!change.move && !change.turn) return;
  const float until = static_cast<float>(share), since = parts.empty() ? 0.0f : parts.back().until;
  if (until > since) parts.push_back({sticks_.move, sticks_.turn_rate, until});
  if (change.move) sticks_.move = *change.move;
  if (change.turn) sticks_.turn_rate = *change.turn;
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

SummaryMeter::SummaryMeter(const CharacterState& start, int tick_rate)
    : up_C_(start.up_C()), dt_(1.0 / tick_rate) {
  summary_.highest_point = dot(start.foot_C, up_C_);
}

void SummaryMeter::pass(const CharacterState& a, const CharacterState& b) {
  const bool put_home = a.times_put_home != b.times_put_home;
  if (!put_home) summary_.distance += length(b.foot_C - a.foot_C);
  summary_.top_speed = std::max(summary_.top_speed, length(b.velocity_C));
  const double highest = put_home ? dot(b.foot_C, up_C_) : apex_between(a, b, up_C_, dt_);
  summary_.highest_point = std::max(summary_.highest_point, highest);
  if (!b.grounded()) summary_.airtime += dt_;
  ++summary_.ticks;
}

DriveSummary summarize(const std::vector<CharacterState>& states, int tick_rate) {
  SummaryMeter meter(states.front(), tick_rate);
  for (std::size_t i = 1; i < states.size(); ++i) meter.pass(states[i - 1], states[i]);
  return meter.summary();
}

}  // namespace lagniappe
