// SPDX-License-Identifier: MIT
#include "states/advance.h"

#include "motion/phases.h"

namespace lagniappe {

void advance(StepContext& context, TablePass& table, CharacterState& state) {
  turn_look(context, state);
  be_moved(context, state);
  const TablePass::Asked asked = table.run_script();
  const StateChart::State& present = table.present();
  settle_jumps(context, present.behaviour, table.used_press(Action::Jump), state);
  settle_mantle(context, present.behaviour, table.used_press(Action::Climb), state);
  const Manner manner{present.behaviour, present.stance, asked.steer};
  if (asked.gravity_share == 1.0) return move_by_itself(context, manner, state);
  Values lighter = context.profile;
  lighter.gravity *= asked.gravity_share;
  StepContext with{context.input, lighter,       context.world, context.dt,     context.ledger,
                   context.now,   context.share, context.stop,  context.pushes, context.look_back};
  with.pace = context.pace;
  with.barred = context.barred;
  with.felt = context.felt;
  move_by_itself(with, manner, state);
}

}  // namespace lagniappe
