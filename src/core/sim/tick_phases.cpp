// SPDX-License-Identifier: MIT
#include "lagniappe/tick_phases.h"

#include <type_traits>

namespace lagniappe {
namespace {

enum Phase : std::size_t { Look, Up, CarryAndPush, IntentPhase, State, Velocity, Move, GroundPhase };

template <typename T, typename... Of>
constexpr bool is_one_of = (std::is_same_v<T, Of> || ...);

Phase phase_of_change(entry::Change::Why why) {
  using Why = entry::Change::Why;
  switch (why) {
    case Why::Contact:
    case Why::Hold:
    case Why::Reset:
      return Move;
    case Why::Ground:
      return GroundPhase;
    case Why::Carrier:
      return CarryAndPush;
    case Why::Jump:
    case Why::Launch:
    case Why::Script:
      return State;
    case Why::Intent:
    case Why::Grip:
    case Why::Wind:
      break;
  }
  return Velocity;
}

template <typename T>
Phase phase_of(const T& of) {
  using namespace entry;
  if constexpr (std::is_same_v<T, Change>) return phase_of_change(of.why);
  if constexpr (is_one_of<T, Pulled, Upright>) return Up;
  if constexpr (is_one_of<T, Carry, Push, PushOut>) return CarryAndPush;
  if constexpr (is_one_of<T, entry::Intent, RimHeld>) return IntentPhase;
  if constexpr (std::is_same_v<T, entry::Gravity>) return Velocity;
  if constexpr (is_one_of<T, Sweep, Slide, Step, Exhausted, HeadBump, Reset>) return Move;
  if constexpr (is_one_of<T, Probe, Judged, Snap, Crest, LeftGround, Landed, RunsOff>) return GroundPhase;
  return State;
}

// m that an entry alone moved the foot by.
template <typename T>
Vec3 moved_by(const T& of, const Vec3& up_C) {
  using namespace entry;
  if constexpr (is_one_of<T, Carry, Push>) return of.shift_C;
  if constexpr (std::is_same_v<T, Snap>) return -up_C * of.distance;
  return Vec3(0.0);
}

}  // namespace

std::vector<TickPhase> tick_phases(const CharacterState& before, const CharacterState& after,
                                   const Ledger& ledger) {
  std::vector<TickPhase> phases;
  for (const std::string_view name : kTickPhases) phases.push_back({name, Vec3(0.0), Vec3(0.0), {}});
  Vec3 rest_C = after.foot_C - before.foot_C;
  for (std::size_t i = 0; i < ledger.entries.size(); ++i) {
    std::visit(
        [&](const auto& of) {
          TickPhase& phase = phases[phase_of(of)];
          const Vec3 moved_C = moved_by(of, after.up_C());
          phase.entries.push_back(i);
          phase.moved_C += moved_C;
          phase.changed_C += velocity_change(ledger.entries[i]);
          rest_C -= moved_C;
        },
        ledger.entries[i]);
  }
  phases[Move].moved_C += rest_C;
  return phases;
}

}  // namespace lagniappe
