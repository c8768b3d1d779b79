// SPDX-License-Identifier: MIT
// Driving a character by a script or a take: many ticks in a row.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "lagniappe/step.h"
#include "lagniappe/triangle_world.h"

namespace lagniappe {

// A change of input at a time; what is not named holds.
struct InputChange {
  double at = 0.0;           // s. Acts from the first tick that starts at or after it.
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
  // The script must outlive the player.
  InputPlayer(const InputScript& script, int tick_rate) : script_(script), tick_rate_(tick_rate) {}

  // Returns the input of the next tick. A press and its release within one tick give a pressed, unheld button.
  InputFrame next();

 private:
  const InputScript& script_;
  int tick_rate_;
  std::size_t change_ = 0;
  std::int64_t tick_ = 0;
  InputFrame holding_;
};

// A recorded run.
struct Take {
  CharacterState start;
  int tick_rate = 60;
  std::vector<InputFrame> inputs;
  std::string course_name, profile_name;
  std::uint64_t course_identity = 0;  // See identity_of().
  std::uint64_t profile_identity = 0;
};

// Returns a number that is equal for places in which every run is the same, and hardly ever for others: a hash
// of triangles, piece names and limits.
std::uint64_t identity_of(const TriangleWorld& world);
// The same for profiles: a hash of every value, names aside.
std::uint64_t identity_of(const Profile& profile);

// Runs `inputs` from `start` at `tick_rate`; `observe` gets every state after the start, and the ledger of its
// tick if `with_ledger` (else null).
using Observe = std::function<void(const CharacterState&, const Ledger*)>;
CharacterState drive(const CharacterState& start, const std::vector<InputFrame>& inputs, const Profile& profile,
                     const World& world, int tick_rate, const Observe& observe, bool with_ledger = false);

// What a run came to.
struct DriveSummary {
  double distance = 0.0;       // m of the foot's path, in straight pieces.
  double top_speed = 0.0;      // m/s.
  double highest_point = 0.0;  // m of the foot along the start's up, against the course's origin; between two
                               // ticks of free flight the apex of the parabola counts.
  double airtime = 0.0;        // s not grounded.
  std::size_t ticks = 0;
};
// REQUIRES: states is not empty; states[0] is the start.
DriveSummary summarize(const std::vector<CharacterState>& states, int tick_rate);

}  // namespace lagniappe
