// SPDX-License-Identifier: MIT
#include "motion/behaviours.h"

#include "motion/behaviours/ways.h"
#include "motion/climbing.h"
#include "motion/footing.h"
#include "motion/hanging.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/mantling.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

void move_by_footing(const StepContext& context, const Body& body, const Intent& intent,
                     CharacterState& state) {
  move_and_find_ground(context, body, intent, walk, state);
}

void move_skidding(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  move_and_find_ground(context, body, intent, run_out, state);
}

void move_flying(const StepContext& context, const Body& body, const Intent&, CharacterState& state) {
  VelocityLog log(context, state);
  fly(context, body, state);
  log.rest_is(entry::Change::Why::Contact);
}

void move_adrift(const StepContext& context, const Body& body, const Intent&, CharacterState& state) {
  VelocityLog log(context, state);
  float_freely(context, body, state);
  log.rest_is(entry::Change::Why::Contact);
}

void move_along_hold(const StepContext& context, const Body& body, const Intent& intent,
                     CharacterState& state) {
  if (!state.holding()) return move_and_find_ground(context, body, intent, walk, state);
  go_over_rim(context, body, state);
}

void move_hanging(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  if (!state.holding()) return move_and_find_ground(context, body, intent, walk, state);
  hang(context, body, intent, state);
}

void move_on_wall(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  if (!state.holding()) return move_and_find_ground(context, body, intent, walk, state);
  if (!climbs(state)) return go_over_rim(context, body, state);
  climb(context, body, intent, state);
}

using Place = BehaviourFacts::Place;

constexpr std::array<BehaviourRow, kBehaviourCount> kRows = {{
    {{"ground", "Walks on what is underfoot", Place::Ground}, move_by_footing, nullptr},
    {{"air", "Rises and falls", Place::Air}, move_by_footing, nullptr},
    {{.name = "skid", .help = "Skids down what is too steep, and runs out", .own_way = true},
     move_skidding,
     nullptr},
    {{.name = "fly", .help = "Flies along the look, without gravity", .own_way = true, .held_by_world = false},
     move_flying,
     lift_off},
    {{.name = "script",
      .help = "As on ground and in the air; a script says where to",
      .own_way = true,
      .scripted = true},
     move_by_footing,
     nullptr},
    {{.name = "mantle",
      .help = "Up over a rim, along a way that was found free",
      .own_way = true,
      .held_by_world = false,
      .holds = true},
     move_along_hold,
     begin_mantle},
    {{.name = "hang",
      .help = "From a rim, along it by the stick",
      .own_way = true,
      .held_by_world = false,
      .holds = true},
     move_hanging,
     begin_hang},
    {{.name = "climb",
      .help = "Over a wall by the stick",
      .own_way = true,
      .held_by_world = false,
      .holds = true},
     move_on_wall,
     begin_climb},
    {{.name = "float", .help = "Adrift where nothing pulls", .own_way = true, .held_by_world = false},
     move_adrift,
     lift_off},
}};

}  // namespace

const BehaviourRow& row_of(Behaviour behaviour) { return kRows[static_cast<std::size_t>(behaviour)]; }

const BehaviourFacts& facts_of(Behaviour behaviour) { return row_of(behaviour).facts; }

std::array<std::string_view, kBehaviourCount> behaviour_names() {
  std::array<std::string_view, kBehaviourCount> names;
  for (std::size_t i = 0; i < names.size(); ++i) names[i] = kRows[i].facts.name;
  return names;
}

}  // namespace lagniappe
