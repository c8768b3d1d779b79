// SPDX-License-Identifier: MIT
// One tick's way through the table of states.
#pragma once

#include "lagniappe/states.h"
#include "states/guards.h"

namespace lagniappe {

// What a tick remembers of its ways through the table, from one to the next.
struct PassMemory {
  bool presses_count = true;  // False once they were used by a transition.
  bool jumped = false;        // A jump began in this tick.
  Buttons used_presses;       // By what they asked for, or by a transition that asked for them.
  // No guard of the present state that is of the input alone holds: none of them need be asked again before the
  // input changes.
  bool inputs_are_settled = false;
  Buttons held_before;  // At the instant before.
};

class TablePass {
 public:
  // `chart` is the profile's. `before`: at the end of the last tick. `values` are kept as those in force: the
  // profile's with what the present state overrides.
  TablePass(const Profile& profile, const StateChart& chart, const StepContext& context,
            const CharacterState& before, Values& values, CharacterState& state, PassMemory& memory)
      : profile_(profile),
        chart_(chart),
        context_(context),
        before_(before),
        values_(values),
        state_(state),
        memory_(memory) {}

  const StateChart::State& present() const { return chart_.state(state_.state); }
  bool used_press(Action action) const { return memory_.used_presses.has(action); }

  // The transitions, at an instant: with its input, before the motion that follows, and when it is known what
  // is underfoot after it.
  void before_motion() { pass(true); }
  void after_motion() { pass(false); }

  // The entry action of the state that it begins in.
  void begin() { act(present().on_entry.get(), values_); }

  // What a script asks for in place of the stick, and of gravity.
  struct Asked {
    std::optional<Vec2> steer;
    double gravity_share = 1.0;
  };
  // Runs the script of a state that has one.
  Asked run_script();

 private:
  void pass(bool before_motion);
  const StateChart::Transition* find(bool before_motion);
  void take(const StateChart::Transition& transition);
  void enter(StateId to);
  void leave_barred();
  void tell_barred(StateId state, bool left) const;
  void act(const ScriptAction* action, const Values& flight);
  void note_jump(bool jumped);
  void tell(const std::string& error) const;
  SignalView view(bool before_motion) const;

  const Profile& profile_;
  const StateChart& chart_;
  const StepContext& context_;
  const CharacterState& before_;
  Values& values_;
  CharacterState& state_;
  PassMemory& memory_;
};

}  // namespace lagniappe
