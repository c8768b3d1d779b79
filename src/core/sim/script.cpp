// SPDX-License-Identifier: MIT
// Scripts and takes: one from the other.
#include <cmath>

#include "lagniappe/drive.h"
#include "motion/input_edges.h"

namespace lagniappe {
namespace {

bool changes_anything(const InputChange& c) {
  return c.move || c.look || c.turn || c.press.bits != 0 || c.release.bits != 0;
}

InputChange change_at(double seconds) {
  InputChange change;
  change.at = seconds;
  return change;
}

class ScriptMaker {
 public:
  explicit ScriptMaker(const Take& take) : take_(take) {}

  InputScript make() {
    for (std::size_t tick = 0; tick < take_.inputs.size(); ++tick) add_tick(tick, take_.inputs[tick]);
    end();
    return std::move(script_);
  }

 private:
  void add(const InputChange& change) {
    if (changes_anything(change)) script_.changes.push_back(change);
  }

  void add_tick(std::size_t tick, const InputFrame& input) {
    // What was held before the take began is not told by a press of its own.
    const InputEdges edges(input, tick == 0 ? Buttons{} : held_);
    for (int i = 0; i < edges.count(); ++i) {
      const double share = edges.share(i), at = (static_cast<double>(tick) + share) / take_.tick_rate;
      const Buttons now = edges.held_at(share), pressed = edges.pressed_at(share);
      // Down again in the instant in which it went up: up first.
      InputChange up = change_at(at), down = change_at(at);
      add_sticks(tick, input, share, up);
      up.release.bits = held_.bits & (~now.bits | pressed.bits);
      down.press.bits = (now.bits & ~held_.bits) | pressed.bits;
      down.release.bits = pressed.bits & ~now.bits;
      add(up);
      add(down);
      held_ = now;
    }
  }

  void add_sticks(std::size_t tick, const InputFrame& input, double share, InputChange& change) {
    if (input.look && share_of(input.look_at) == share) change.look = input.look;
    if (tick == 0 && share == 0.0 && !change.look) change.look = Vec2(take_.start.yaw, take_.start.pitch);
    const SticksUntil sticks = sticks_at(input, share);
    if (sticks.move != move_) change.move = move_ = sticks.move;
    const Vec2 turn = sticks.turn_rate + input.look_delta * double(take_.tick_rate);
    if (turn != turn_) change.turn = turn_ = turn;
  }

  void end() {
    InputChange change = change_at(take_.seconds());
    if (move_ != Vec2(0.0)) change.move = Vec2(0.0);
    if (turn_ != Vec2(0.0)) change.turn = Vec2(0.0);
    change.release = held_;
    script_.changes.push_back(change);
  }

  const Take& take_;
  InputScript script_;
  Vec2 move_ = Vec2(0.0), turn_ = Vec2(0.0);
  Buttons held_;
};

}  // namespace

std::vector<InputFrame> frames_of(const InputScript& script, int tick_rate, double seconds) {
  const auto ticks = static_cast<std::size_t>(std::llround(seconds * tick_rate));
  std::vector<InputFrame> frames;
  frames.reserve(ticks);
  InputPlayer player(script, tick_rate);
  for (std::size_t i = 0; i < ticks; ++i) frames.push_back(player.next());
  return frames;
}

InputScript script_of(const Take& take) { return ScriptMaker(take).make(); }

}  // namespace lagniappe
