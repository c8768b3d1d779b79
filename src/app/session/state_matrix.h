// SPDX-License-Identifier: GPL-3.0-or-later
// A table of states as a matrix: from down, to across. What stands in a cell, how often it fired, what is never
// taken.
#pragma once

#include <string>
#include <vector>

#include "lagniappe/table_use.h"

namespace lagniappe::app {

class StateMatrix {
 public:
  // What a row is left from: all states, those of a group, or one.
  struct Source {
    enum class Kind { Any, Group, State } kind;
    std::string name;
    StateId state{};  // Of one state.
  };
  struct Cell {
    std::vector<std::size_t> rows;  // Transitions of the table, in the order in which they are asked.
    std::size_t own = 0;            // How many of them begin at the source itself; others at its group, or any.
    std::size_t fired = 0;
    bool shadowed = false;  // All of them are.
    bool itself = false;    // From a state to the same.
  };

  explicit StateMatrix(std::shared_ptr<const StateChart> chart);

  const StateChart& chart() const { return *chart_; }
  std::shared_ptr<const StateChart> shared_chart() const { return chart_; }
  const std::vector<Source>& sources() const { return sources_; }
  std::size_t columns() const { return chart_->size(); }
  const Cell& cell(std::size_t source, std::size_t column) const { return cells_[source * columns() + column]; }
  std::size_t source_of(StateId state) const;  // Its row.
  // The row and column in which a transition is declared.
  std::pair<std::size_t, std::size_t> place_of(std::size_t row) const;
  // Whether the transition begins at the source itself.
  bool is_own(std::size_t source, std::size_t row) const;

  void count(const std::vector<Firing>& firings);
  std::size_t most_fired() const { return most_; }  // Of one state's cell.
  // Firings of a cell, in order.
  std::vector<Firing> firings_of_cell(const std::vector<Firing>& all, std::size_t source,
                                      std::size_t column) const;

 private:
  void add_sources();
  void fill(std::size_t source, std::size_t column);

  std::shared_ptr<const StateChart> chart_;
  std::vector<Source> sources_;
  std::vector<Cell> cells_;
  std::vector<bool> shadowed_;  // By transition.
  std::size_t most_ = 0;
};

}  // namespace lagniappe::app
