// SPDX-License-Identifier: MIT
// What the phases of a tick did must add up to what the tick did. Oracle: the two states.
#include "lagniappe/tick_phases.h"

#include <catch2/catch.hpp>

#include "lagniappe/lagniappe.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

TEST_CASE("The phases of every tick add up to its way and its change of velocity, each under its own name") {
  const TriangleWorld world = Scene()
                                  .floor()
                                  .stairs({0, 0, -4}, 4.0, 0.2, 0.3, 6)
                                  .block({1.5, 0, -2}, {1, 3, 1})
                                  .ramp({-4, 0, -4}, {3, 2, 3})
                                  .world();
  const Profile profile;
  CharacterState state = start_state(profile, Home{{0.0, 1.2, -4.7}}, world);
  Random random(77);
  InputFrame input;
  bool snapped = false, jumped = false;
  for (int i = 0; i < 1500; ++i) {
    // Down the stairs at first.
    if (i % 20 == 0) input = i < 60 ? push(0, -1) : push(random.between(-1, 1), random.between(-1, 1));
    input.pressed = {};
    if (i % 90 == 89) input.pressed.set(Action::Jump, true);
    Ledger ledger;
    const CharacterState after = step(state, input, profile, world, 1.0 / 60, &ledger);
    const auto phases = tick_phases(state, after, ledger);
    REQUIRE(phases.size() == kTickPhases.size());
    Vec3 moved(0.0), changed(0.0);
    std::size_t entries = 0;
    for (std::size_t p = 0; p < phases.size(); ++p) {
      CHECK(phases[p].name == kTickPhases[p]);
      moved += phases[p].moved_C;
      changed += phases[p].changed_C;
      entries += phases[p].entries.size();
      for (const std::size_t e : phases[p].entries) {
        const LedgerEntry& entry = ledger.entries[e];
        if (std::holds_alternative<entry::Intent>(entry)) CHECK(phases[p].name == "intent");
        if (std::holds_alternative<entry::Gravity>(entry)) CHECK(phases[p].name == "velocity");
        if (std::holds_alternative<entry::Sweep>(entry)) CHECK(phases[p].name == "move");
        if (std::holds_alternative<entry::Judged>(entry)) CHECK(phases[p].name == "ground");
        if (std::holds_alternative<entry::Jump>(entry)) {
          CHECK(phases[p].name == "state");
          jumped = true;
        }
        if (std::holds_alternative<entry::Snap>(entry)) snapped = snapped || phases[p].moved_C.y < 0.0;
      }
    }
    CHECK(entries == ledger.entries.size());
    CHECK(length(moved - (after.foot_C - state.foot_C)) < 1e-9);
    CHECK(length(changed - (after.velocity_C - state.velocity_C)) < 1e-6);
    state = after;
  }
  CHECK(snapped);
  CHECK(jumped);
}
