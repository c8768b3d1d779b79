// SPDX-License-Identifier: MIT
// Named quantities of a tick: what guards and scripts may ask, and what curves and comparisons show.
#pragma once

#include <array>
#include <optional>
#include <span>
#include <string_view>

#include "lagniappe/character_state.h"
#include "lagniappe/profile.h"

namespace lagniappe {

// What a signal may look at. `before` is the state at the end of the last tick. While a tick is under way
// `state` is as far as the tick has come; else it is the state after it. The start has itself as the state
// before, and an empty input.
struct SignalView {
  const CharacterState &before, &state;
  const InputFrame& input;
  const Values& values;  // In force: with what the state overrides.
  const World& world;
  double dt;
  Moment now;                  // Where moving pieces are.
  bool presses_count = true;   // false once the tick's presses and releases have been used.
  bool jump_may_begin = true;  // false after the motion, and once a jump began in this tick.
  bool under_way = false;      // The state's velocity is against the piece underfoot, as it is within a tick.
  std::optional<Buttons> held_before = std::nullopt;  // Just before; nothing: at the end of the last tick.
};

struct Signal {
  std::string_view key;   // "ground_speed", "jump.held"; never changes.
  std::string_view name;  // "speed along ground".
  std::string_view unit;  // "m/s"; empty where it has none.
  bool yes_no;            // A truth: 0 or 1 here, true or false in Lua.
  std::string_view help;  // What it is, as a sentence.
  double (*value)(const SignalView&);
  bool of_input = false;  // Known from the tick's sticks and held buttons: the same all through a tick.
};

// Whether one is in a zone of this name, and whether one has come into it since the tick began; what guards ask
// as in_zone("Vent") and entered("Vent"). False where there is no such zone.
bool in_zone(const SignalView& view, std::string_view name);
bool entered_zone(const SignalView& view, std::string_view name);

// All of them. Those that look into the world (head_room, can_stand, can_lie, drop_ahead, rim.distance,
// wall_ahead, distance_to_ground) cost up to a third of a tick; the others cost next to nothing.
std::span<const Signal> all_signals();

// What was called otherwise before is known by that too.
struct OldSignal {
  std::string_view was, is;
};
inline constexpr std::array<OldSignal, 4> kOldSignals = {{{"wish", "intent"},
                                                          {"wish_forward", "intent_forward"},
                                                          {"wish_right", "intent_right"},
                                                          {"since_push", "since_stick"}}};

// Returns the signal with this key; null if there is none.
const Signal* find_signal(std::string_view key);

}  // namespace lagniappe
