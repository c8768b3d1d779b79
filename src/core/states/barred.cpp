// SPDX-License-Identifier: MIT
#include "states/barred.h"

#include <algorithm>

#include "lagniappe/behaviour.h"

namespace lagniappe {
namespace {

std::uint64_t barred_by(const World& world, const StateChart& chart, ZoneId id, double time) {
  const ZoneNow zone = world.zone(id, time);
  const auto* barred = std::get_if<effect::Barred>(zone.effect);
  if (barred == nullptr) return 0;
  std::uint64_t bits = 0;
  for (const std::string& name : barred->states) {
    if (const auto state = chart.find(name)) bits |= bit_of(*state);
  }
  return bits;
}

}  // namespace

std::uint64_t barred_states(const World& world, const StateChart& chart, const CharacterState& state) {
  std::uint64_t bits = 0;
  for (std::size_t i = 0; i < state.zones.count; ++i)
    bits |= barred_by(world, chart, state.zones.id[i], state.time);
  return bits;
}

ZoneId zone_that_bars(const World& world, const StateChart& chart, const CharacterState& state,
                      StateId barred) {
  for (std::size_t i = 0; i < state.zones.count; ++i) {
    if (barred_by(world, chart, state.zones.id[i], state.time) & bit_of(barred)) return state.zones.id[i];
  }
  return kNoZone;
}

std::optional<StateId> state_instead(const StateChart& chart, StateId barred, std::uint64_t all_barred) {
  const StateChart::State& was = chart.state(barred);
  const auto place = facts_of(was.behaviour).place;
  const bool anywhere = place == BehaviourFacts::Place::Any;
  std::optional<StateId> best;
  int likeness = 0;
  for (std::size_t i = 0; i < chart.table().states.size(); ++i) {
    const auto id = static_cast<StateId>(i);
    if (all_barred & bit_of(id)) continue;
    const StateChart::State& is = chart.state(id);
    const bool same = is.behaviour == was.behaviour;
    // What is for any place has no like by that: there one goes where the table begins.
    const bool alike = anywhere ? id == chart.fallback() : facts_of(is.behaviour).place == place;
    const int like = same && is.stance == was.stance ? 3 : same ? 2 : alike ? 1 : 0;
    if (like <= likeness) continue;
    likeness = like;
    best = id;
  }
  return best;
}

}  // namespace lagniappe
