// SPDX-License-Identifier: MIT
// Rows of the ledger: the table of states and its scripts.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::StateChange> {
  static constexpr std::string_view kKind = "state";
  static void fields(const entry::StateChange& e, auto&& f) {
    f("from", state_name(e.chart.get(), e.from));
    f("to", state_name(e.chart.get(), e.to));
    if (e.row >= 0) f("guard", guard_text(e.chart.get(), e.row));
  }
  static std::string tell(const entry::StateChange& e, const World&) {
    const std::string text =
        fmt::format("state: {} \u2192 {}", state_name(e.chart.get(), e.from), state_name(e.chart.get(), e.to));
    return e.row < 0 ? text : text + fmt::format(", because {}", guard_text(e.chart.get(), e.row));
  }
  static void happens(const entry::StateChange&, const CharacterState&, Events& events) {
    events.set(Event::StateChange);
  }
};

template <>
struct EntryRow<entry::StateLoop> {
  static constexpr std::string_view kKind = "state_loop";
  static void fields(const entry::StateLoop& e, auto&& f) {
    f("from", state_name(e.chart.get(), e.from));
    f("to", state_name(e.chart.get(), e.to));
    f("guard", guard_text(e.chart.get(), e.row));
  }
  static std::string tell(const entry::StateLoop& e, const World&) {
    return fmt::format("the states go round in a circle: {} \u2192 {} was not taken, though {} holds",
                       state_name(e.chart.get(), e.from), state_name(e.chart.get(), e.to),
                       guard_text(e.chart.get(), e.row));
  }
  static bool refuses(const entry::StateLoop&) { return true; }
};

template <>
struct EntryRow<entry::ScriptFailed> {
  static constexpr std::string_view kKind = "script_failed";
  static void fields(const entry::ScriptFailed& e, auto&& f) { f("what", e.what); }
  static std::string tell(const entry::ScriptFailed& e, const World&) { return "script failed: " + e.what; }
  static bool refuses(const entry::ScriptFailed&) { return true; }
};

}  // namespace lagniappe
