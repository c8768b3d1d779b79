// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/table_base.h"

#include <algorithm>

namespace lagniappe::app {
namespace {

const StateSpec* state_of(const StateTable& table, const std::string& name) {
  const auto found = std::find_if(table.states.begin(), table.states.end(),
                                  [&](const StateSpec& state) { return state.name == name; });
  return found == table.states.end() ? nullptr : &*found;
}

// Sorted, so that their order does not count.
std::vector<TransitionSpec> rows_of(const StateTable& table, const std::string& from, const std::string& to) {
  std::vector<TransitionSpec> rows;
  std::copy_if(table.transitions.begin(), table.transitions.end(), std::back_inserter(rows),
               [&](const TransitionSpec& row) { return row.from == from && row.to == to; });
  std::stable_sort(rows.begin(), rows.end(),
                   [](const TransitionSpec& a, const TransitionSpec& b) { return a.priority > b.priority; });
  return rows;
}

}  // namespace

Standing standing_of(const StateTable& table, const std::string& state) {
  if (!table.based_on_built_in) return Standing::Alone;
  const StateSpec *is = state_of(table, state), *was = state_of(built_in_states(), state);
  if (was == nullptr) return Standing::New;
  return is != nullptr && *is == *was ? Standing::BuiltIn : Standing::Changed;
}

Standing standing_of(const StateTable& table, const std::string& from, const std::string& to) {
  if (!table.based_on_built_in) return Standing::Alone;
  const auto is = rows_of(table, from, to), was = rows_of(built_in_states(), from, to);
  if (is == was) return Standing::BuiltIn;
  return was.empty() ? Standing::New : Standing::Changed;
}

StateTable with_put_back(StateTable table, const std::string& state) {
  const StateSpec* was = state_of(built_in_states(), state);
  for (StateSpec& is : table.states) {
    if (was != nullptr && is.name == state) is = *was;
  }
  return table;
}

StateTable with_put_back(StateTable table, const std::string& from, const std::string& to) {
  std::erase_if(table.transitions, [&](const TransitionSpec& row) { return row.from == from && row.to == to; });
  const auto was = rows_of(built_in_states(), from, to);
  table.transitions.insert(table.transitions.end(), was.begin(), was.end());
  return based_on_built_in(std::move(table));
}

std::vector<std::string> states_gone(const StateTable& table) {
  return table.based_on_built_in ? changes_from(built_in_states(), table).no_states
                                 : std::vector<std::string>();
}

StateTable with_states_put_back(StateTable table) {
  TableChanges changes = changes_from(built_in_states(), table);
  changes.no_states.clear();
  return with_changes(built_in_states(), changes);
}

StateTable based_on_built_in(StateTable table) {
  return with_changes(built_in_states(), changes_from(built_in_states(), table));
}

}  // namespace lagniappe::app
