// SPDX-License-Identifier: MIT
#include "lagniappe/table_check.h"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <set>

namespace lagniappe {
namespace {

using Kind = TableFinding::Kind;

// One blank between words, none at the ends, no outer brackets, no comment.
std::string plain(std::string_view guard) {
  std::string text;
  for (const char c : guard.substr(0, guard.find("--"))) {
    const bool blank = c == ' ' || c == '\t' || c == '\n' || c == '\r';
    if (!blank || (!text.empty() && text.back() != ' ')) text += blank ? ' ' : c;
  }
  while (!text.empty() && text.back() == ' ') text.pop_back();
  return text;
}

// The places where `word` stands between blanks outside of all brackets and strings.
std::vector<std::size_t> outside(const std::string& text, const std::string& word) {
  std::vector<std::size_t> places;
  int depth = 0;
  char quote = '\0';
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (quote != '\0') {
      if (c == quote) quote = '\0';
    } else if (c == '"' || c == '\'') {
      quote = c;
    } else {
      depth += c == '(' || c == '{' || c == '[';
      depth -= c == ')' || c == '}' || c == ']';
      if (depth == 0 && text.compare(i, word.size(), word) == 0) places.push_back(i);
    }
  }
  return places;
}

// What all must hold for the guard to hold.
std::set<std::string> demands(const std::string& guard) {
  const std::string text = plain(guard);
  if (!outside(text, " or ").empty()) return {text};
  std::set<std::string> parts;
  std::size_t from = 0;
  for (const std::size_t at : outside(text, " and ")) {
    parts.insert(text.substr(from, at - from));
    from = at + 5;
  }
  parts.insert(text.substr(from));
  return parts;
}

bool is_false(const std::string& guard) { return plain(guard) == "false"; }
bool is_true(const std::string& guard) { return plain(guard) == "true"; }

class Checker {
 public:
  explicit Checker(const StateChart& chart) : chart_(chart), table_(chart.table()) {}

  std::vector<TableFinding> check() {
    check_reach();
    for (std::size_t i = 0; i < chart_.size(); ++i) check_state(StateId(i));
    for (std::size_t row = 0; row < table_.transitions.size(); ++row) check_row(row);
    return std::move(found_);
  }

 private:
  using Step = std::function<bool(StateId to)>;

  std::string name(StateId id) const { return std::string(chart_.name_of(id)); }

  const std::string& guard_of(const StateChart::Transition& t) const { return table_.transitions[t.row].guard; }

  // The states that can be come to from `start`, itself included, by ways through states that `through` allows.
  std::set<StateId> reached(StateId start, const Step& through) const {
    std::set<StateId> seen = {start};
    std::vector<StateId> open = {start};
    while (!open.empty()) {
      const StateId at = open.back();
      open.pop_back();
      for (const auto& t : chart_.state(at).leaving) {
        if (is_false(guard_of(t)) || !seen.insert(t.to).second || !through(t.to)) continue;
        open.push_back(t.to);
      }
    }
    return seen;
  }

  void check_reach() {
    const auto everywhere = [](StateId) { return true; };
    std::set<StateId> seen = reached(chart_.fallback(), everywhere);
    seen.merge(reached(fitting_state(chart_, "Stand", Behaviour::Ground), everywhere));
    for (std::size_t i = 0; i < chart_.size(); ++i) {
      if (seen.contains(StateId(i))) continue;
      found_.push_back({Kind::Unreachable,
                        StateId(i),
                        {},
                        {},
                        fmt::format("{} cannot be reached from where one begins.", name(StateId(i)))});
    }
  }

  void check_state(StateId id) {
    const StateChart::State& state = chart_.state(id);
    const bool leaves = std::any_of(state.leaving.begin(), state.leaving.end(),
                                    [&](const auto& t) { return t.to != id && !is_false(guard_of(t)); });
    if (!leaves) {
      found_.push_back({Kind::NoExit, id, {}, {}, fmt::format("Nothing leads out of {}.", name(id))});
      return;
    }
    const bool on_ground = facts_of(state.behaviour).place == BehaviourFacts::Place::Ground;
    const auto into_air = [&](const StateChart::Transition& t) {
      const BehaviourFacts& to = facts_of(chart_.state(t.to).behaviour);
      return (to.place == BehaviourFacts::Place::Air || to.scripted) && !is_false(guard_of(t));
    };
    if (on_ground && std::none_of(state.leaving.begin(), state.leaving.end(), into_air))
      found_.push_back(
          {Kind::NoFall,
           id,
           {},
           {},
           fmt::format("{} stands on the ground, but nothing leads from it into a fall.", name(id))});
    if (state.stance != Stance::Standing) check_stand_up(id);
  }

  void check_stand_up(StateId id) {
    for (const StateId to : reached(id, [](StateId) { return true; })) {
      if (chart_.state(to).stance == Stance::Standing) return;
    }
    found_.push_back(
        {Kind::NoStandUp, id, {}, {}, fmt::format("No way leads from {} back to standing.", name(id))});
  }

  void check_row(std::size_t row) {
    const std::string& guard = table_.transitions[row].guard;
    const std::string called = transition_name(chart_, row);
    if (is_false(guard)) {
      found_.push_back(
          {Kind::NeverHolds, {}, {}, row, fmt::format("{} can never be taken: its guard is false.", called)});
      return;
    }
    if (is_true(guard) && table_.transitions[row].shortest_stay == 0.0)
      found_.push_back({Kind::AlwaysHolds,
                        {},
                        {},
                        row,
                        fmt::format("{} is always taken at once: its guard is true.", called)});
    if (const auto by = shadow_of(row))
      found_.push_back({Kind::Shadowed,
                        {},
                        {},
                        row,
                        fmt::format("{} is never taken: {} is asked before it and holds whenever it does.",
                                    called, transition_name(chart_, *by))});
  }

  // What is taken in its place in every state that it leaves; nothing if it has a chance in one.
  std::optional<std::size_t> shadow_of(std::size_t row) const {
    std::optional<std::size_t> by;
    for (std::size_t i = 0; i < chart_.size(); ++i) {
      const auto& leaving = chart_.state(StateId(i)).leaving;
      const auto self =
          std::find_if(leaving.begin(), leaving.end(), [&](const auto& t) { return t.row == row; });
      if (self == leaving.end()) continue;
      const std::set<std::string> wanted = demands(guard_of(*self));
      const auto before = std::find_if(leaving.begin(), self, [&](const StateChart::Transition& t) {
        const std::set<std::string> asked = demands(guard_of(t));
        return t.shortest_stay <= self->shortest_stay &&
               (is_true(guard_of(t)) ||
                std::includes(wanted.begin(), wanted.end(), asked.begin(), asked.end()));
      });
      if (before == self) return std::nullopt;
      by = before->row;
    }
    return by;
  }

  const StateChart& chart_;
  const StateTable& table_;
  std::vector<TableFinding> found_;
};

}  // namespace

std::string transition_name(const StateChart& chart, std::size_t row) {
  const TransitionSpec& t = chart.table().transitions[row];
  return t.from + " to " + t.to;
}

std::vector<TableFinding> check_table(const StateChart& chart) { return Checker(chart).check(); }

}  // namespace lagniappe
