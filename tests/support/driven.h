// SPDX-License-Identifier: MIT
// A character that is driven by hand, tick by tick, and what its table of states did.
#pragma once

#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "lagniappe/lagniappe.h"
#include "support/scenes.h"

namespace lagniappe::test {

inline InputFrame held(std::initializer_list<Action> actions, double right = 0.0, double forward = 0.0) {
  InputFrame frame = push(right, forward);
  for (const Action a : actions) frame.held.set(a, true);
  return frame;
}

struct Driven {
  Profile profile;
  TriangleWorld world;
  CharacterState state;
  int hz = 60;
  std::set<std::string> fired, states;  // "Stand Walk"; names.
  std::set<std::size_t> rows;           // Of the table, that fired.
  std::vector<std::string> told;        // Refusals and loops, as sentences.

  explicit Driven(TriangleWorld place, const Profile& values = {}, const Home& home = {})
      : profile(values), world(std::move(place)), state(start_state(profile, home, world)) {}

  Driven& go(double seconds, InputFrame input, Buttons pressed = {}) {
    input.pressed = pressed;
    for (long tick = std::lround(seconds * hz); tick > 0; --tick) {
      Ledger ledger;
      state = step(state, input, profile, world, 1.0 / hz, &ledger);
      input.pressed = {};
      states.emplace(chart_of(profile).name_of(state.state));
      for (const LedgerEntry& e : ledger.entries) note(e);
    }
    return *this;
  }
  Driven& tap(Action action, InputFrame input = {}) {
    Buttons pressed;
    pressed.set(action, true);
    input.held.set(action, true);
    return go(1.0 / hz, input, pressed);
  }

  // Steps such as "ws:1 J c:0.5": what is held (w, a, d, b push; s sprint, c crouch, j jump, k climb) and
  // pressed at its beginning (J jump, L lie, C crouch, S sprint, K climb, F fly), for so many seconds, else one
  // tick.
  Driven& play(const std::string& steps);

  std::string now() const { return std::string(chart_of(profile).name_of(state.state)); }

 private:
  void note(const LedgerEntry& e) {
    const StateChart& chart = chart_of(profile);
    if (const auto* change = std::get_if<entry::StateChange>(&e)) {
      fired.insert(std::string(chart.name_of(change->from)) + " " + std::string(chart.name_of(change->to)));
      if (change->row >= 0) rows.insert(static_cast<std::size_t>(change->row));
    }
    if (is_refusal(e) || std::holds_alternative<entry::StateLoop>(e)) told.push_back(to_sentence(e, world));
  }
};

// Whether a sentence has this part.
inline bool tells(const Driven& d, const std::string& part) {
  for (const std::string& s : d.told) UNSCOPED_INFO(s);
  return std::any_of(d.told.begin(), d.told.end(),
                     [&](const std::string& s) { return s.find(part) != std::string::npos; });
}

}  // namespace lagniappe::test
