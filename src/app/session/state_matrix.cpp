// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/state_matrix.h"

#include <algorithm>

namespace lagniappe::app {

StateMatrix::StateMatrix(std::shared_ptr<const StateChart> chart)
    : chart_(std::move(chart)), shadowed_(chart_->table().transitions.size()) {
  for (const TableFinding& f : check_table(*chart_)) {
    const bool never = f.kind == TableFinding::Kind::Shadowed || f.kind == TableFinding::Kind::NeverHolds;
    if (never && f.row) shadowed_[*f.row] = true;
  }
  add_sources();
  cells_.resize(sources_.size() * columns());
  for (std::size_t s = 0; s < sources_.size(); ++s) {
    for (std::size_t c = 0; c < columns(); ++c) fill(s, c);
  }
}

// First what is left from many states, in the order of the table.
void StateMatrix::add_sources() {
  const auto& rows = chart_->table().transitions;
  const auto begins = [&](const std::string& from) {
    return std::any_of(rows.begin(), rows.end(), [&](const TransitionSpec& t) { return t.from == from; });
  };
  if (begins(std::string(kAnyState))) sources_.push_back({Source::Kind::Any, std::string(kAnyState)});
  for (std::size_t i = 0; i < chart_->size(); ++i) {
    const std::string& group = chart_->state(StateId(i)).group;
    const bool there =
        std::any_of(sources_.begin(), sources_.end(), [&](const Source& s) { return s.name == group; });
    if (!group.empty() && !there && begins(group)) sources_.push_back({Source::Kind::Group, group});
  }
  for (std::size_t i = 0; i < chart_->size(); ++i)
    sources_.push_back({Source::Kind::State, chart_->table().states[i].name, StateId(i)});
}

bool StateMatrix::is_own(std::size_t source, std::size_t row) const {
  return chart_->table().transitions[row].from == sources_[source].name;
}

void StateMatrix::fill(std::size_t source, std::size_t column) {
  const Source& from = sources_[source];
  const auto& table = chart_->table().transitions;
  Cell& cell = cells_[source * columns() + column];
  if (from.kind == Source::Kind::State) {
    cell.itself = static_cast<std::size_t>(from.state) == column;
    for (const StateChart::Transition& t : chart_->state(from.state).leaving) {
      if (t.to == StateId(column)) cell.rows.push_back(t.row);
    }
  } else {
    for (std::size_t row = 0; row < table.size(); ++row) {
      if (table[row].from == from.name && chart_->name_of(StateId(column)) == table[row].to)
        cell.rows.push_back(row);
    }
    std::stable_sort(cell.rows.begin(), cell.rows.end(),
                     [&](std::size_t a, std::size_t b) { return table[a].priority > table[b].priority; });
  }
  cell.own = std::size_t(
      std::count_if(cell.rows.begin(), cell.rows.end(), [&](std::size_t row) { return is_own(source, row); }));
  cell.shadowed = !cell.rows.empty() && std::all_of(cell.rows.begin(), cell.rows.end(),
                                                    [&](std::size_t row) { return shadowed_[row]; });
}

std::size_t StateMatrix::source_of(StateId state) const {
  for (std::size_t s = 0; s < sources_.size(); ++s) {
    if (sources_[s].kind == Source::Kind::State && sources_[s].state == state) return s;
  }
  return 0;
}

std::pair<std::size_t, std::size_t> StateMatrix::place_of(std::size_t row) const {
  const TransitionSpec& t = chart_->table().transitions[row];
  const auto source =
      std::find_if(sources_.begin(), sources_.end(), [&](const Source& s) { return s.name == t.from; });
  return {std::size_t(source - sources_.begin()), std::size_t(chart_->find(t.to).value_or(StateId{}))};
}

std::vector<Firing> StateMatrix::firings_of_cell(const std::vector<Firing>& all, std::size_t source,
                                                 std::size_t column) const {
  const Source& from = sources_[source];
  std::vector<Firing> found;
  for (const Firing& f : all) {
    if (f.to != StateId(column) || !f.row) continue;
    if (from.kind == Source::Kind::State ? f.from == from.state : is_own(source, *f.row)) found.push_back(f);
  }
  return found;
}

void StateMatrix::count(const std::vector<Firing>& firings) {
  most_ = 0;
  for (Cell& cell : cells_) cell.fired = 0;
  for (const Firing& f : firings) {
    if (!f.row || *f.row >= shadowed_.size()) continue;
    const auto column = std::size_t(f.to);
    for (std::size_t s = 0; s < sources_.size(); ++s) {
      const bool of_state = sources_[s].kind == Source::Kind::State;
      if (of_state ? sources_[s].state != f.from : !is_own(s, *f.row)) continue;
      Cell& cell = cells_[s * columns() + column];
      ++cell.fired;
      if (of_state) most_ = std::max(most_, cell.fired);
    }
  }
}

}  // namespace lagniappe::app
