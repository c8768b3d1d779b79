// SPDX-License-Identifier: MIT
// What the player does during one tick.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string_view>

#include "lagniappe/profile.h"

namespace lagniappe {

enum class Action : std::uint8_t { Jump, Sprint, Crouch, Lie, Climb, Fly, Reset };
inline constexpr int kActionCount = 7;
inline constexpr std::array<std::string_view, kActionCount> kActionNames = {"jump",  "sprint", "crouch", "lie",
                                                                            "climb", "fly",    "reset"};

// A set of actions.
struct Buttons {
  std::uint32_t bits = 0;
  bool has(Action a) const { return (bits >> static_cast<int>(a)) & 1u; }
  void set(Action a, bool on) {
    const std::uint32_t bit = 1u << static_cast<int>(a);
    bits = on ? bits | bit : bits & ~bit;
  }
  bool operator==(const Buttons&) const = default;
};

// How the sticks stood up to a share of a tick.
struct SticksUntil {
  Vec2 move = Vec2(0.0), turn_rate = Vec2(0.0);  // As in InputFrame.
  float until = 0.0f;
};
// Of one tick: enough for a pad that reports 125 times a second, from 20 ticks/s on. Sticks that moved oftener
// are given by means, see set_sticks().
inline constexpr int kMostEarlierSticks = 7;

// Look is an angle, not a rate, where it comes from a mouse: the hand has already moved that far, however long
// the tick is. A stick gives a rate, which is multiplied by the tick's time.
struct InputFrame {
  Vec2 move = Vec2(0.0);  // Stick, raw: x right, y forward, each in [-1, 1]. step() applies the dead zone.
  Vec2 look_delta = Vec2(0.0);  // Radians of yaw and pitch turned evenly during this tick.
  Vec2 turn_rate = Vec2(0.0);   // Radians per second of yaw and pitch.
  std::optional<Vec2> look;     // Absolute yaw and pitch in radians: set before delta and rate are added.
  float look_at = 0.0f;         // Share of the tick, in [0, 1), at which that is set.
  Buttons held;                 // Down at the end of the tick.
  Buttons pressed;              // Went down at any time in the tick, even if up again.
  // Share of the tick, in [0, 1), at which each button last went down, and at which it last went up;
  // meaningless where it did not.
  std::array<float, kActionCount> pressed_at = {}, released_at = {};
  // Where sticks moved within the tick: how they stood before, in order, each until its share of it in (0, 1);
  // from the last of these on they stand as above. The first without such a share ends them.
  std::array<SticksUntil, kMostEarlierSticks> earlier = {};
};

// Returns the sticks at a share of the tick, in [0, 1), until the next share at which they move, or 1.
SticksUntil sticks_at(const InputFrame& input, double share);

// Writes the sticks of a tick: parts in order, the last until its end. Where these are more than it can hold,
// two that follow each other and differ least become one, with their mean. REQUIRES: !parts.empty(); shares
// rise.
void set_sticks(std::span<const SticksUntil> parts, InputFrame& input);

// Returns the radians of yaw and pitch that hand and sticks turn from a tick's beginning to `share` of it, set
// looks aside.
Vec2 turned_until(const InputFrame& input, double share, double tick_seconds);

// Returns the stick with its dead zone cut out: round, continuous at its rim, direction kept, partial
// deflection kept, never longer than 1 (so that a diagonal is no faster). `dead_zone` in [0, 1).
Vec2 shaped_stick(const Vec2& raw, double dead_zone);
double stick_push(const Vec2& raw, double dead_zone);  // How far: the length of that, in [0, 1].

// Returns the look angles of a mouse motion in counts (x right, y down): never multiplied by time.
Vec2 mouse_look(const Profile::Look& look, const Vec2& counts);

// Returns the turn rate of a look stick (x right, y forward), shaped as the move stick, then its push raised to
// stick_power.
Vec2 stick_turn_rate(const Profile::Look& look, const Vec2& raw);

}  // namespace lagniappe
