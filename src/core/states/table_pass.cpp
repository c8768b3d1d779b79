// SPDX-License-Identifier: MIT
#include "states/table_pass.h"

#include <bitset>
#include <utility>

#include "motion/behaviours.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/velocity_log.h"
#include "states/barred.h"

namespace lagniappe {

SignalView TablePass::view(bool before_motion) const {
  SignalView view{before_, state_, context_.input, values_, context_.world, context_.dt, context_.now};
  view.presses_count = before_motion && memory_.presses_count;
  view.jump_may_begin = before_motion && !memory_.jumped;
  view.under_way = true;
  view.held_before = memory_.held_before;
  return view;
}

void TablePass::tell(const std::string& error) const {
  if (!error.empty()) context_.note(entry::ScriptFailed{error});
}

const StateChart::Transition* TablePass::find(bool before_motion) {
  const SignalView signals = view(before_motion);
  std::string error;
  for (const StateChart::Transition& t : present().leaving) {
    if (state_.state_time < t.shortest_stay - kTouch) continue;
    if (memory_.inputs_are_settled && t.guard->is_of_input()) continue;
    const bool holds = t.guard->holds(signals, error);
    if (!error.empty()) tell(std::exchange(error, {}));
    if (holds && (context_.barred & bit_of(t.to)) == 0) return &t;
    // What holds tick after tick, as a held button does, is not told each time.
    if (holds && (t.action != nullptr || t.guard->asks_for_presses().bits != 0)) tell_barred(t.to, false);
  }
  return nullptr;
}

void TablePass::pass(bool before_motion) {
  if (context_.barred & bit_of(state_.state)) leave_barred();
  std::bitset<kMostStates> left;
  for (int taken = 0;; ++taken) {
    const StateChart::Transition* t = find(before_motion);
    if (t == nullptr) {
      memory_.inputs_are_settled = true;
      return;
    }
    const auto to = static_cast<std::size_t>(t->to), from = static_cast<std::size_t>(state_.state);
    if (taken >= kMostTransitions || left[to]) {
      if (context_.ledger != nullptr)
        context_.note(entry::StateLoop{state_.state, t->to, shared_chart_of(profile_), int(t->row)});
      return;
    }
    left[from] = true;
    take(*t);
  }
}

void TablePass::tell_barred(StateId state, bool left) const {
  if (context_.ledger == nullptr) return;
  context_.note(entry::BarredFrom{zone_that_bars(context_.world, chart_, state_, state), state, left,
                                  shared_chart_of(profile_)});
}

void TablePass::leave_barred() {
  const auto instead = state_instead(chart_, state_.state, context_.barred);
  if (!instead) return;
  tell_barred(state_.state, true);
  if (context_.ledger != nullptr)
    context_.note(entry::StateChange{state_.state, *instead, shared_chart_of(profile_)});
  enter(*instead);
}

void TablePass::take(const StateChart::Transition& transition) {
  if (context_.ledger != nullptr)
    context_.note(
        entry::StateChange{state_.state, transition.to, shared_chart_of(profile_), int(transition.row)});
  // A jump on the way is one of the state that is left, and flies by the values of the one that is entered.
  Values flight = chart_.values_in(transition.to, profile_);
  context_.felt.apply(flight);
  act(present().on_exit.get(), flight);
  act(transition.action.get(), flight);
  if (memory_.presses_count) memory_.used_presses.bits |= transition.guard->asks_for_presses().bits;
  enter(transition.to);
  memory_.presses_count = false;
}

void TablePass::enter(StateId to) {
  memory_.inputs_are_settled = false;
  state_.came_from = state_.state;
  state_.state = to;
  state_.state_time = 0.0;
  values_ = chart_.values_in(to, profile_);
  context_.felt.apply(values_);
  const StateChart::State& entered = present();
  for (std::size_t i = 0; i < entered.forgets.size(); ++i) {
    if (entered.forgets[i]) state_.memory[i] = 0.0;
  }
  if (state_.holding() && !facts_of(entered.behaviour).holds)
    let_go(state_, climbs(state_) ? context_.profile.climb.pause : context_.profile.hang.pause);
  if (const auto enters = row_of(entered.behaviour).on_entering) enters(context_, state_);
  act(entered.on_entry.get(), values_);
}

void TablePass::note_jump(bool jumped) {
  if (!jumped) return;
  memory_.jumped = true;
  memory_.used_presses.set(Action::Jump, true);
}

void TablePass::act(const ScriptAction* action, const Values& flight) {
  if (action == nullptr) return;
  const SignalView signals = view(false);
  const Body body(context_, state_);
  ScriptHost host{signals, &state_, &context_, &body, &flight};
  VelocityLog log(context_, state_);
  tell(action->run(host));
  log.rest_is(entry::Change::Why::Script);
  note_jump(host.jumped);
}

TablePass::Asked TablePass::run_script() {
  if (!facts_of(present().behaviour).scripted) return {};
  SignalView signals = view(false);
  signals.dt = context_.dt;
  const Body body(context_, state_);
  ScriptHost host{signals, &state_, &context_, &body, &values_};
  VelocityLog log(context_, state_);
  const std::string error = present().script->run(host);
  log.rest_is(entry::Change::Why::Script);
  note_jump(host.jumped);
  if (error.empty()) return {host.steer, host.gravity_share};
  tell(error);
  if (context_.ledger != nullptr)
    context_.note(entry::StateChange{state_.state, chart_.fallback(), shared_chart_of(profile_)});
  enter(chart_.fallback());
  return {};
}

}  // namespace lagniappe
