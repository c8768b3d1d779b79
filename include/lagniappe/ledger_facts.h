// SPDX-License-Identifier: MIT
// What a ledger entry is about: the events of a tick, the pieces and places. Each is said in the entry's row
// (src/core/states/ledger/).
#pragma once

#include <string_view>
#include <vector>

#include "lagniappe/ledger.h"

namespace lagniappe {

// What can happen in a tick.
enum class Event : std::uint8_t {
  OnGround,  // The tick ends on ground that bears.
  Wall,
  Ceiling,
  Step,
  StepRefused,
  Snap,
  PushOut,
  Carried,
  Pushed,
  Jump,
  JumpRefused,
  Landing,
  LeftGround,
  StateChange,
  PutHome,
  Mantle,
  MantleRefused,
  LetGo,
  Caught,
  ZoneEntered,
  ZoneLeft,
  Thrown,
};
inline constexpr std::array<std::string_view, 22> kEventNames = {
    "on ground",      "wall",          "ceiling",      "step",   "refused step",   "snap",
    "push-out",       "carried",       "pushed",       "jump",   "refused jump",   "landing",
    "leaving ground", "state change",  "put home",     "mantle", "refused mantle", "letting go",
    "taking hold",    "entering zone", "leaving zone", "throw"};

// A set of events.
struct Events {
  std::uint32_t bits = 0;
  bool has(Event e) const { return (bits >> static_cast<int>(e)) & 1u; }
  void set(Event e) { bits |= 1u << static_cast<int>(e); }
  bool operator==(const Events&) const = default;
};

// Returns the piece that the entry is about; kNoPiece where it is about none.
PieceId piece_of(const LedgerEntry& entry);

// Returns the piece that the character touched by what the entry says; kNoPiece if none.
PieceId touched_piece(const LedgerEntry& entry);

// Adds the events that the entry is. `before`: the state at the tick's beginning.
void add_events(const LedgerEntry& entry, const CharacterState& before, Events& events);

// Returns where the entry lies in the course frame, what it points at first; none for what is nowhere. `now`:
// the state after the tick.
std::vector<Vec3> places_of(const LedgerEntry& entry, const CharacterState& now);

}  // namespace lagniappe
