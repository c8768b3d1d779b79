// SPDX-License-Identifier: MIT
// Driving a character by a script or a take: many ticks in a row.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "lagniappe/step.h"
#include "lagniappe/take.h"

namespace lagniappe {

// A change of input at a time; what is not named holds.
struct InputChange {
  double at = 0.0;           // s. All of it acts at that very instant, within a tick too.
  std::optional<Vec2> move;  // Stick: right, forward.
  std::optional<Vec2> look;  // Absolute yaw and pitch in radians, set once.
  std::optional<Vec2> turn;  // Radians per second of yaw and pitch.
  Buttons press;
  Buttons release;
};

struct InputScript {
  std::vector<InputChange> changes;  // In order of time.
  double end() const { return changes.empty() ? 0.0 : changes.back().at; }
};

// Gives a script's input tick by tick.
class InputPlayer {
 public:
  // The script must outlive the player. `tick_rate`: of next(); any, where only next(seconds) is asked.
  explicit InputPlayer(const InputScript& script, int tick_rate = 60)
      : script_(script), tick_rate_(tick_rate) {}

  // Returns the input of the next tick. A press and its release within one tick give a pressed, unheld button;
  // of several presses of one button within a tick the last counts.
  InputFrame next();

  // Returns the input of a stretch of time of any length that follows the one before it, by the same rules.
  // One player gives either ticks or such stretches.
  InputFrame next(double seconds);

 private:
  InputFrame gather(double begin, double per_second);
  void move_sticks(const InputChange& change, double share, std::vector<SticksUntil>& parts);

  const InputScript& script_;
  int tick_rate_;
  std::size_t change_ = 0;  // The next one.
  std::int64_t tick_ = 0;
  double passed_ = 0.0;  // s, in stretches.
  SticksUntil sticks_{Vec2(0.0), Vec2(0.0), 1.0f};
  Buttons held_;
};

// s that a script goes on after its last change where nobody says how long.
inline constexpr double kSecondsAfterScript = 2.0;

// Returns a script's input for every tick of `seconds`.
std::vector<InputFrame> frames_of(const InputScript& script, int tick_rate, double seconds);

// Returns the script that gives a take's inputs at its own rate, and the same in time at others. What a mouse
// turned within a tick becomes a rate for that tick. It begins with the take's look; what was held before its
// start is pressed at once. Its last change is the take's end, where all is
// let go.
InputScript script_of(const Take& take);

// Runs `inputs` from `start` at `tick_rate`; `observe` gets every state after the start, and the ledger of its
// tick if `with_ledger` (else null).
using Observe = std::function<void(const CharacterState&, const Ledger*)>;
CharacterState drive(const CharacterState& start, const std::vector<InputFrame>& inputs, const Profile& profile,
                     const World& world, int tick_rate, const Observe& observe, bool with_ledger = false);

// What a stretch of a run came to.
struct DriveSummary {
  double distance = 0.0;       // m of the foot's path, in straight pieces.
  double top_speed = 0.0;      // m/s, in any direction, against the course.
  double highest_point = 0.0;  // m of the foot along the start's up, against the course's origin; between two
                               // ticks of free flight the apex of the parabola counts.
  double airtime = 0.0;        // s not grounded.
  std::size_t ticks = 0;
};
// REQUIRES: states is not empty; states[0] is the start.
DriveSummary summarize(const std::vector<CharacterState>& states, int tick_rate);

// The same, shown one tick after the other.
class SummaryMeter {
 public:
  SummaryMeter(const CharacterState& start, int tick_rate);
  void pass(const CharacterState& before, const CharacterState& after);
  const DriveSummary& summary() const { return summary_; }

 private:
  DriveSummary summary_;
  Vec3 up_C_;
  double dt_;
};

}  // namespace lagniappe
