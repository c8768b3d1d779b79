// SPDX-License-Identifier: MIT
// Tables that are based on another.
#include <algorithm>
#include <iterator>

#include "lagniappe/states.h"

namespace lagniappe {
namespace {

const std::string& key_of(const StateSpec& state) { return state.name; }

// Those with the same key, in their order; guards may share one.
template <typename Row>
std::vector<Row> like(const std::vector<Row>& rows, const Row& wanted) {
  std::vector<Row> found;
  std::copy_if(rows.begin(), rows.end(), std::back_inserter(found),
               [&](const Row& row) { return key_of(row) == key_of(wanted); });
  return found;
}

template <typename T>
bool holds(const std::vector<T>& all, const T& one) {
  return std::find(all.begin(), all.end(), one) != all.end();
}

template <typename Row>
std::vector<Row> others(const std::vector<Row>& base, const std::vector<Row>& rows) {
  std::vector<Row> changed;
  std::copy_if(rows.begin(), rows.end(), std::back_inserter(changed),
               [&](const Row& row) { return like(base, row) != like(rows, row); });
  return changed;
}

template <typename Row, typename Goes>
std::vector<Row> put_on(const std::vector<Row>& base, const std::vector<Row>& changed, const Goes& goes) {
  std::vector<Row> rows;
  for (const Row& row : base) {
    const std::vector<Row> other = like(changed, row);
    if (!other.empty() && like(rows, row).empty()) rows.insert(rows.end(), other.begin(), other.end());
    if (other.empty() && !goes(row)) rows.push_back(row);
  }
  for (const Row& row : changed) {
    if (like(base, row).empty()) rows.push_back(row);
  }
  return rows;
}

bool names_one_of(const TransitionSpec& row, const std::vector<std::string>& states) {
  return holds(states, row.from) || holds(states, row.to);
}

}  // namespace

RowKey key_of(const TransitionSpec& row) { return {row.from, row.to, row.priority}; }

TableChanges changes_from(const StateTable& base, const StateTable& table) {
  TableChanges changes;
  changes.states = others(base.states, table.states);
  changes.transitions = others(base.transitions, table.transitions);
  for (const StateSpec& state : base.states) {
    if (like(table.states, state).empty()) changes.no_states.push_back(state.name);
  }
  for (const TransitionSpec& row : base.transitions) {
    if (like(table.transitions, row).empty() && !names_one_of(row, changes.no_states))
      changes.no_transitions.push_back(key_of(row));
  }
  for (const std::string& slot : table.memory) {
    if (!holds(base.memory, slot)) changes.memory.push_back(slot);
  }
  if (table.fallback != base.fallback) changes.fallback = table.fallback;
  const auto names_of = [](const StateTable& of) {
    std::vector<std::string> names;
    for (const StateSpec& state : of.states) names.push_back(state.name);
    return names;
  };
  const std::vector<std::string> order = names_of(table);
  if (names_of(with_changes(base, changes)) != order) changes.order = order;
  return changes;
}

StateTable with_changes(const StateTable& base, const TableChanges& changes) {
  StateTable table;
  table.states = put_on(base.states, changes.states,
                        [&](const StateSpec& state) { return holds(changes.no_states, state.name); });
  table.transitions = put_on(base.transitions, changes.transitions, [&](const TransitionSpec& row) {
    return names_one_of(row, changes.no_states) || holds(changes.no_transitions, key_of(row));
  });
  const auto place_of = [&](const StateSpec& state) {
    return std::find(changes.order.begin(), changes.order.end(), state.name);
  };
  std::stable_sort(table.states.begin(), table.states.end(),
                   [&](const StateSpec& a, const StateSpec& b) { return place_of(a) < place_of(b); });
  table.memory = base.memory;
  table.memory.insert(table.memory.end(), changes.memory.begin(), changes.memory.end());
  table.fallback = changes.fallback.empty() ? base.fallback : changes.fallback;
  table.based_on_built_in = base.based_on_built_in;
  return table;
}

}  // namespace lagniappe
