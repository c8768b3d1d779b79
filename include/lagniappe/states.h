// SPDX-License-Identifier: MIT
// Ways of moving as a table: states over a few behaviours, and the transitions between them.
//
// How a tick goes through the table, twice: before the motion, when the tick's input is known, and after it,
// when it is known what is underfoot.
//   1. The transitions that leave the present state are those from it, from its group, and from "any". They are
//      asked in the order of falling priority; equal ones the nearer first (state, group, any), then in the
//      order of the table.
//   2. The first whose guard holds, and whose shortest stay is over, is taken: exit action of the state that is
//      left, the transition's own action, entry action of the state that is entered. A transition from "any" or
//      from a group does not lead to where one already is, except that a group's may enter the same state anew
//      once.
//   3. Then again from 1, at most kMostTransitions times in all; a state that was left in the same pass is not
//      entered again. What would go on is a loop: it stops there, and the ledger says so.
//   `jump.pressed` and its like hold until the tick's first transition is taken, and not after the motion: one
//   press makes one transition.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "lagniappe/behaviour.h"
#include "lagniappe/character_state.h"
#include "lagniappe/profile_fields.h"
#include "lagniappe/result.h"

namespace lagniappe {

// What a state has differently from its profile.
struct Override {
  enum class Kind : std::uint8_t {
    Value,  // This, as a file has it.
    Times,  // So many times what the profile has; numbers only.
    Same,   // What the profile has for another value of the same unit.
  };
  std::string path;  // "ground.speed".
  Kind kind = Kind::Value;
  double number = 0.0;  // Value of a number, in the file's unit; Times; index of a choice.
  Curve curve;          // Value of a curve.
  std::string same;     // "ground.sprint_speed".
  bool operator==(const Override&) const;
};

struct StateSpec {
  std::string name;
  std::string like;   // The state that this one is like, save for what it says itself; empty: none.
  std::string group;  // Empty: in none, or that of the state that it is like.
  std::optional<Behaviour> behaviour;  // Nothing: as the state that it is like, else ground.
  std::optional<Stance> stance;        // Nothing: as the state that it is like, else standing.
  std::string pose;                    // A word for the figure and for a game's animation.
  std::vector<Override> overrides;     // Those of the state that it is like apply first.
  std::string on_entry, on_exit;       // Actions, in Lua; empty: as the state that it is like.
  std::string script;                  // Of Behaviour::Script, in Lua.
  std::vector<std::string> memory;     // Slots of the table that entering sets to 0.
  bool operator==(const StateSpec&) const = default;
};

inline constexpr std::string_view kAnyState = "any";

struct TransitionSpec {
  std::string from;            // A state, a group, or "any".
  std::string to;              // A state.
  std::string guard;           // A Lua expression over signals; see signals.h.
  int priority = 0;            // Higher is asked first.
  double shortest_stay = 0.0;  // s that the state must have lasted.
  std::string action;          // In Lua, done on the way.
  bool operator==(const TransitionSpec&) const = default;
};

struct StateTable {
  std::vector<StateSpec> states;
  std::vector<TransitionSpec> transitions;
  std::vector<std::string> memory;  // Names of the slots, at most kMemorySlots.
  std::string fallback;             // Where one begins, and goes when a script fails; empty: the first state.
  // Files name only what differs from the built-in table, so that what is added there reaches this one. Tables
  // with equal rows are equal, whichever way they are written.
  bool based_on_built_in = false;
  bool operator==(const StateTable& other) const {
    return states == other.states && transitions == other.transitions && memory == other.memory &&
           fallback == other.fallback;
  }
};

// A row of a table is known by where it leads from and to, and by its priority.
struct RowKey {
  std::string from, to;
  int priority = 0;
  bool operator==(const RowKey&) const = default;
};
RowKey key_of(const TransitionSpec& row);

// What a table has differently from the one that it is based on.
struct TableChanges {
  std::vector<StateSpec> states;            // Other or new.
  std::vector<TransitionSpec> transitions;  // Other or new.
  std::vector<std::string> no_states;       // These go, and the rows that name them.
  std::vector<RowKey> no_transitions;       // So do these.
  std::vector<std::string> memory;          // Slots besides.
  std::string fallback;                     // Empty: the same.
  std::vector<std::string> order;           // Of all states; empty: as they come.
};
TableChanges changes_from(const StateTable& base, const StateTable& table);
// What is changed stands in the place of what it changes; what is new stands at the end, as states do that an
// order does not name.
StateTable with_changes(const StateTable& base, const TableChanges& changes);

inline constexpr int kMostStates = 48;
inline constexpr int kMostTransitions = 4;  // In one pass.

// Returns the table with each state's overrides in the order of their paths, as charts keep it.
StateTable in_order(StateTable table);

// Returns the table that a profile without states moves by.
const StateTable& built_in_states();

class Guard;
class ScriptAction;

// An override with what its path names.
struct ResolvedOverride {
  Override::Kind kind;
  const ProfileField *field = nullptr, *same_field = nullptr;
  const ProfileCurve *curve_field = nullptr, *same_curve = nullptr;
  const ProfileChoice *choice_field = nullptr, *same_choice = nullptr;
  double number = 0.0;  // Angles in radians.
  double low = 0.0, high = 0.0;
  Curve curve;

  void apply(Values& values, const Values& profile) const;
};

// A table made ready to move by. Never changes, so any number of threads may share it.
class StateChart {
 public:
  struct Transition {
    int priority;
    double shortest_stay;
    bool anew;  // May enter the state that it leaves.
    StateId to;
    std::shared_ptr<const Guard> guard;
    std::shared_ptr<const ScriptAction> action;  // Null: none.
    std::size_t row;                             // In table().transitions.
  };
  struct State {
    Behaviour behaviour;
    Stance stance;
    std::string pose, group;
    std::vector<ResolvedOverride> overrides;
    std::shared_ptr<const ScriptAction> on_entry, on_exit;
    std::shared_ptr<const ScriptAction> script;
    std::array<bool, kMemorySlots> forgets = {};  // Slots that are set to 0 on entry.
    std::vector<Transition> leaving;              // In the order in which they are asked.
  };

  // Refused with the place in the table, as a JSON pointer of a profile: "/transitions/3/when".
  static Result<std::shared_ptr<const StateChart>> make(StateTable table);

  const StateTable& table() const { return table_; }
  std::size_t size() const { return states_.size(); }
  const State& state(StateId id) const {
    const auto i = static_cast<std::size_t>(id);
    return states_[i < states_.size() ? i : 0];
  }
  std::string_view name_of(StateId id) const {
    const auto i = static_cast<std::size_t>(id);
    return i < states_.size() ? std::string_view(table_.states[i].name) : "no state";
  }
  std::optional<StateId> find(std::string_view name) const;
  StateId fallback() const { return fallback_; }
  std::optional<int> memory_slot(std::string_view name) const;

  // Returns the values in force in a state: `profile`'s, with what the state overrides.
  Values values_in(StateId id, const Values& profile) const;
  double gravity_in(StateId id, const Values& profile) const;  // The same of gravity alone.

 private:
  StateChart() = default;
  StateTable table_;
  std::vector<State> states_;
  StateId fallback_{};
};

std::shared_ptr<const StateChart> built_in_chart();

// Returns the chart that a profile moves by.
const StateChart& chart_of(const Profile& profile);
std::shared_ptr<const StateChart> shared_chart_of(const Profile& profile);

inline std::string_view name_of(StateId id, const Profile& profile) { return chart_of(profile).name_of(id); }

// Returns the state with this name, or else one that may stand for it: the first of the same behaviour. For
// takes that are run again with another table.
StateId fitting_state(const StateChart& chart, std::string_view name, Behaviour behaviour);

// Returns a state of a run under `before` as one that a run under `now` can begin with: as tall, and in the
// state with the same name.
CharacterState fitted_to(const Profile& now, const Profile& before, const CharacterState& state);

}  // namespace lagniappe
