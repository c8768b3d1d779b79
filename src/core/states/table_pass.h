// SPDX-License-Identifier: MIT
// One tick's way through the table of states.
#pragma once

#include "lagniappe/states.h"
#include "states/guards.h"

namespace lagniappe {

class TablePass {
 public:
  // `values` are kept as those in force: the profile's with what the present state overrides.
  TablePass(const Profile& profile, const StepContext& context, const CharacterState& before, Values& values,
            CharacterState& state);

  const StateChart::State& present() const { return chart_.state(state_.state); }
  bool jumped() const { return jumped_; }

  // The transitions, when the tick's input is known and when it is known what is underfoot.
  void before_motion() { pass(true); }
  void after_motion() { pass(false); }

  // Runs the script of a state that has one, and gives what it asks for in place of the stick.
  std::optional<Vec2> run_script();

 private:
  void pass(bool before_motion);
  const StateChart::Transition* find(bool before_motion);
  void take(const StateChart::Transition& transition);
  void enter(StateId to);
  void act(const ScriptAction* action);
  void tell(const std::string& error) const;
  SignalView view(bool before_motion) const;

  const Profile& profile_;
  const StateChart& chart_;
  const StepContext& context_;
  const CharacterState& before_;
  Values& values_;
  CharacterState& state_;
  bool presses_count_ = true, jumped_ = false;
  // No guard of the present state that is of the input alone holds: none of them need be asked again in this
  // tick.
  bool inputs_are_settled_ = false;
};

}  // namespace lagniappe
