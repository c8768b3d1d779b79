// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/table_edits.h"

#include <algorithm>

namespace lagniappe::app {
namespace {

bool is_taken(const StateTable& table, const std::string& name) {
  return name == kAnyState || std::any_of(table.states.begin(), table.states.end(), [&](const StateSpec& s) {
           return s.name == name || s.group == name;
         });
}

auto position(std::size_t i) { return static_cast<std::ptrdiff_t>(i); }

// What `child` has of `parent` without saying so, said by itself.
StateSpec filled_in(StateSpec child, const StateSpec& parent) {
  const auto fill = [](std::string& to, const std::string& from) {
    if (to.empty()) to = from;
  };
  child.like = parent.like;
  fill(child.group, parent.group), fill(child.pose, parent.pose), fill(child.script, parent.script);
  fill(child.on_entry, parent.on_entry), fill(child.on_exit, parent.on_exit);
  if (!child.behaviour) child.behaviour = parent.behaviour;
  if (!child.stance) child.stance = parent.stance;
  for (const Override& o : parent.overrides) {
    const bool own = std::any_of(child.overrides.begin(), child.overrides.end(),
                                 [&](const Override& c) { return c.path == o.path; });
    if (!own) child.overrides.push_back(o);
  }
  for (const std::string& slot : parent.memory) {
    if (std::find(child.memory.begin(), child.memory.end(), slot) == child.memory.end())
      child.memory.push_back(slot);
  }
  return child;
}

}  // namespace

std::string free_state_name(const StateTable& table, const std::string& wanted) {
  std::string name = wanted;
  for (int n = 2; is_taken(table, name); ++n) name = wanted + " " + std::to_string(n);
  return name;
}

StateTable with_state_added(StateTable table, std::size_t at) {
  StateSpec state;
  state.name = free_state_name(table, "State");
  state.behaviour = Behaviour::Ground;
  state.stance = Stance::Standing;
  state.pose = "stand";
  table.states.insert(table.states.begin() + position(std::min(at, table.states.size())), std::move(state));
  return table;
}

StateTable with_state_copied(StateTable table, std::size_t at) {
  StateSpec copy = table.states[at];
  const std::string original = copy.name;
  copy.name = free_state_name(table, original);
  std::vector<TransitionSpec> rows;
  for (const TransitionSpec& t : table.transitions) {
    rows.push_back(t);
    if (t.from != original && t.to != original) continue;
    TransitionSpec own = t;
    if (own.from == original) own.from = copy.name;
    if (own.to == original) own.to = copy.name;
    rows.push_back(std::move(own));
  }
  table.transitions = std::move(rows);
  table.states.insert(table.states.begin() + position(at + 1), std::move(copy));
  return table;
}

StateTable with_state_renamed(StateTable table, std::size_t at, const std::string& name) {
  const std::string old = table.states[at].name;
  table.states[at].name = name;
  for (StateSpec& s : table.states) {
    if (s.like == old) s.like = name;
  }
  for (TransitionSpec& t : table.transitions) {
    if (t.from == old) t.from = name;
    if (t.to == old) t.to = name;
  }
  if (table.fallback == old) table.fallback = name;
  return table;
}

StateTable with_state_moved(StateTable table, std::size_t from, std::size_t to) {
  StateSpec moved = std::move(table.states[from]);
  // Without a word the first state is where one begins; that must not change by the way.
  if (table.fallback.empty()) table.fallback = from == 0 ? moved.name : table.states.front().name;
  table.states.erase(table.states.begin() + position(from));
  table.states.insert(table.states.begin() + position(std::min(to, table.states.size())), std::move(moved));
  return table;
}

StateTable without_state(StateTable table, std::size_t at) {
  const StateSpec gone = table.states[at];
  table.states.erase(table.states.begin() + position(at));
  for (StateSpec& s : table.states) {
    if (s.like == gone.name) s = filled_in(std::move(s), gone);
  }
  // A group or name that nobody bears any more leads nowhere.
  const auto is_source = [&](const std::string& from) {
    return from == kAnyState || std::any_of(table.states.begin(), table.states.end(), [&](const StateSpec& s) {
             return s.name == from || s.group == from;
           });
  };
  std::erase_if(table.transitions,
                [&](const TransitionSpec& t) { return t.to == gone.name || !is_source(t.from); });
  if (table.fallback == gone.name) table.fallback.clear();
  return table;
}

}  // namespace lagniappe::app
