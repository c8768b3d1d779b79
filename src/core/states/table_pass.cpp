// SPDX-License-Identifier: MIT
#include "states/table_pass.h"

#include <bitset>
#include <utility>

#include "motion/jumping.h"

namespace lagniappe {

TablePass::TablePass(const Profile& profile, const StepContext& context, const CharacterState& before,
                     Values& values, CharacterState& state)
    : profile_(profile),
      chart_(chart_of(profile)),
      context_(context),
      before_(before),
      values_(values),
      state_(state) {}

SignalView TablePass::view(bool before_motion) const {
  SignalView view{before_, state_, context_.input, values_, context_.world, context_.dt, context_.now};
  view.presses_count = before_motion && presses_count_;
  view.jump_may_begin = before_motion && !jumped_;
  view.under_way = true;
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
    if (inputs_are_settled_ && t.guard->is_of_input()) continue;
    const bool holds = t.guard->holds(signals, error);
    if (!error.empty()) tell(std::exchange(error, {}));
    if (holds) return &t;
  }
  return nullptr;
}

void TablePass::pass(bool before_motion) {
  std::bitset<kMostStates> left;
  for (int taken = 0;; ++taken) {
    const StateChart::Transition* t = find(before_motion);
    if (t == nullptr) {
      inputs_are_settled_ = true;
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

void TablePass::take(const StateChart::Transition& transition) {
  if (context_.ledger != nullptr)
    context_.note(
        entry::StateChange{state_.state, transition.to, shared_chart_of(profile_), int(transition.row)});
  act(present().on_exit.get());
  act(transition.action.get());
  enter(transition.to);
  presses_count_ = false;
}

void TablePass::enter(StateId to) {
  inputs_are_settled_ = false;
  state_.came_from = state_.state;
  state_.state = to;
  state_.state_time = 0.0;
  values_ = chart_.values_in(to, profile_);
  const StateChart::State& entered = present();
  for (std::size_t i = 0; i < entered.forgets.size(); ++i) {
    if (entered.forgets[i]) state_.memory[i] = 0.0f;
  }
  if (entered.behaviour == Behaviour::Fly) lift_off(context_, state_);
  act(entered.on_entry.get());
}

void TablePass::act(const ScriptAction* action) {
  if (action == nullptr) return;
  const SignalView signals = view(false);
  const Body body(context_, state_);
  ScriptHost host{signals, &state_, &context_, &body};
  tell(action->run(host));
  jumped_ = jumped_ || host.jumped;
}

std::optional<Vec2> TablePass::run_script() {
  if (present().behaviour != Behaviour::Script) return std::nullopt;
  const SignalView signals = view(false);
  const Body body(context_, state_);
  ScriptHost host{signals, &state_, &context_, &body};
  const std::string error = present().script->run(host);
  jumped_ = jumped_ || host.jumped;
  if (error.empty()) {
    values_.gravity *= host.gravity_share;
    return host.steer;
  }
  tell(error);
  if (context_.ledger != nullptr)
    context_.note(entry::StateChange{state_.state, chart_.fallback(), shared_chart_of(profile_)});
  enter(chart_.fallback());
  return std::nullopt;
}

}  // namespace lagniappe
