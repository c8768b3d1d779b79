// SPDX-License-Identifier: MIT
// Guards and actions, compiled: what is plain runs here, the rest in Lua.
#pragma once

#include "lagniappe/states.h"
#include "states/expression.h"
#include "states/lua_machine.h"

namespace lagniappe {

class Guard {
 public:
  // Refused with what is wrong. What needs Lua is added to `scripts`, which the guard keeps.
  static tl::expected<std::shared_ptr<const Guard>, std::string> make(
      const std::string& text, const std::string& name, const std::shared_ptr<ScriptSet>& scripts);

  // A guard that fails does not hold; `error` then has what Lua said.
  bool holds(const SignalView& view, std::string& error) const {
    return plain_ ? plain_->value(view) != 0.0 : run(view, error);
  }
  // Whether it comes to the same before and after a tick's motion.
  bool is_of_input() const { return plain_ && plain_->is_of_input(); }
  // Whether a transition with it uses up the press of jump.
  Buttons asks_for_presses() const { return asks_for_presses_; }
  GuardVerdict explain(const SignalView& view) const;

 private:
  bool run(const SignalView& view, std::string& error) const;

  std::size_t length_ = 0;
  Buttons asks_for_presses_;
  std::optional<Expression> plain_;
  std::size_t chunk_ = 0;
  std::shared_ptr<const ScriptSet> scripts_;
};

class ScriptAction {
 public:
  static tl::expected<std::shared_ptr<const ScriptAction>, std::string> make(
      const std::string& text, const std::string& name, const std::shared_ptr<ScriptSet>& scripts);

  // Returns what went wrong; empty if nothing did.
  std::string run(ScriptHost& host) const;

 private:
  bool only_jumps_ = false;  // The one that every table has; it needs no Lua.
  std::size_t chunk_ = 0;
  std::shared_ptr<const ScriptSet> scripts_;
};

}  // namespace lagniappe
