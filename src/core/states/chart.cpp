// SPDX-License-Identifier: MIT
// From a table to a chart: names become numbers, likenesses are resolved, guards compiled and put in order.
#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "math/ascii.h"
#include "states/guards.h"
#include "states/words.h"

namespace lagniappe {

bool Override::operator==(const Override& other) const {
  return path == other.path && kind == other.kind && number == other.number && same == other.same &&
         curve.count == other.curve.count &&
         std::equal(curve.points.begin(), curve.points.begin() + curve.count, other.curve.points.begin());
}

void ResolvedOverride::apply(Values& values, const Values& profile) const {
  if (field != nullptr) {
    field->set(values, kind == Override::Kind::Value   ? number
                       : kind == Override::Kind::Times ? std::clamp(field->get(profile) * number, low, high)
                                                       : same_field->get(profile));
  } else if (curve_field != nullptr) {
    curve_field->curve(values) = kind == Override::Kind::Same ? same_curve->get(profile) : curve;
  } else if (choice_field != nullptr) {
    choice_field->set(values, kind == Override::Kind::Same ? same_choice->get(profile) : int(number));
  }
}

namespace {

struct Refused {
  std::string place, what;
};

[[noreturn]] void fail(const std::string& place, const std::string& what) { throw Refused{place, what}; }

std::string state_place(std::size_t i) { return fmt::format("/states/{}", i); }
std::string transition_place(std::size_t i) { return fmt::format("/transitions/{}", i); }

bool is_slot_name(const std::string& name) {
  return !name.empty() && name.size() <= 32 && !ascii::is_digit(name.front()) &&
         std::all_of(name.begin(), name.end(), ascii::is_word);
}

// What the stance decides, or what must not change under a capsule's feet.
bool may_be_overridden(std::string_view path) {
  return !path.starts_with("capsule.") && !path.starts_with("look.");
}

class ChartMaker {
 public:
  explicit ChartMaker(const StateTable& table) : table_(table) {}

  void check_names() const {
    if (table_.states.empty()) fail("/states", "a table needs at least one state");
    if (table_.states.size() > kMostStates)
      fail("/states", fmt::format("a table has at most {} states, not {}", kMostStates, table_.states.size()));
    std::set<std::string> names, groups;
    for (const StateSpec& state : table_.states) groups.insert(state.group);
    for (std::size_t i = 0; i < table_.states.size(); ++i) {
      const std::string &name = table_.states[i].name, place = state_place(i) + "/name";
      if (name.empty() || name.size() > 40) fail(place, "a state's name has 1 to 40 bytes");
      const std::string& group = table_.states[i].group;
      if (std::any_of(name.begin(), name.end(), ascii::is_control))
        fail(place, "a state's name has no control characters");
      if (std::any_of(group.begin(), group.end(), ascii::is_control))
        fail(state_place(i) + "/in", "a group's name has no control characters");
      if (name == kAnyState) fail(place, "no state may be called “any”: that stands for all of them");
      if (!names.insert(name).second) fail(place, fmt::format("there are two states “{}”", name));
      if (group == kAnyState)
        fail(state_place(i) + "/in", "no group may be called “any”: that stands for all states");
      if (groups.contains(name)) fail(place, fmt::format("“{}” is the name of a group, too", name));
    }
    if (table_.memory.size() > kMemorySlots)
      fail("/memory",
           fmt::format("a table has at most {} memory slots, not {}", kMemorySlots, table_.memory.size()));
    for (std::size_t i = 0; i < table_.memory.size(); ++i) {
      if (!is_slot_name(table_.memory[i]))
        fail(fmt::format("/memory/{}", i), "a slot's name has letters, digits and _, and begins with no digit");
    }
  }

  StateId id(const std::string& name, const std::string& place) const {
    std::vector<std::string> names;
    for (std::size_t i = 0; i < table_.states.size(); ++i) {
      if (table_.states[i].name == name) return StateId(i);
      names.push_back(table_.states[i].name);
    }
    fail(place, fmt::format("there is no state “{}”{}", name, did_you_mean(name, names)));
  }

  // From the farthest likeness to the state itself.
  std::vector<const StateSpec*> line_of(std::size_t i) const {
    std::vector<const StateSpec*> line;
    for (const StateSpec* spec = &table_.states[i];;) {
      if (std::find(line.begin(), line.end(), spec) != line.end())
        fail(state_place(i) + "/is", "it is like itself, by way of others");
      line.insert(line.begin(), spec);
      if (spec->like.empty()) return line;
      spec = &table_.states[static_cast<std::size_t>(id(spec->like, state_place(i) + "/is"))];
    }
  }

  std::shared_ptr<const ScriptAction> action(const std::string& text, const std::string& name,
                                             const std::string& place) {
    if (text.empty()) return nullptr;
    auto made = ScriptAction::make(text, name, scripts_);
    if (!made) fail(place, made.error());
    return *made;
  }

  StateChart::State state(std::size_t i) {
    StateChart::State state{Behaviour::Ground, Stance::Standing, {}, {}, {}, {}, {}, {}, {}, {}};
    std::string on_entry, on_exit, script;
    const auto take = [](auto& to, const auto& from) {
      if (!from.empty()) to = from;
    };
    for (const StateSpec* spec : line_of(i)) {
      state.behaviour = spec->behaviour.value_or(state.behaviour);
      state.stance = spec->stance.value_or(state.stance);
      take(state.pose, spec->pose), take(state.group, spec->group);
      take(on_entry, spec->on_entry), take(on_exit, spec->on_exit), take(script, spec->script);
      for (const Override& o : spec->overrides)
        state.overrides.push_back(resolved(o, state_place(i) + "/set/" + o.path));
      for (const std::string& slot : spec->memory)
        state.forgets[slot_of(slot, state_place(i) + "/memory")] = true;
    }
    const std::string& name = table_.states[i].name;
    if (state.pose.empty()) state.pose = "stand";
    state.on_entry = action(on_entry, "entering " + name, state_place(i) + "/enter");
    state.on_exit = action(on_exit, "leaving " + name, state_place(i) + "/exit");
    const BehaviourFacts& facts = facts_of(state.behaviour);
    if (facts.scripted && script.empty())
      fail(state_place(i) + "/script", fmt::format("a state whose behaviour is {} needs one", facts.name));
    if (facts.scripted) state.script = action(script, name, state_place(i) + "/script");
    return state;
  }

  std::size_t slot_of(const std::string& name, const std::string& place) const {
    const auto found = std::find(table_.memory.begin(), table_.memory.end(), name);
    if (found == table_.memory.end())
      fail(place, fmt::format("the table has no memory slot “{}”{}", name, did_you_mean(name, table_.memory)));
    return static_cast<std::size_t>(found - table_.memory.begin());
  }

  static ResolvedOverride resolved(const Override& o, const std::string& place) {
    if (!may_be_overridden(o.path))
      fail(place, "no state can have capsule and look of its own: see its stance");
    ResolvedOverride r;
    r.kind = o.kind;
    r.field = find_field(o.path);
    r.curve_field = find_curve(o.path);
    r.choice_field = find_choice(o.path);
    if (r.field == nullptr && r.curve_field == nullptr && r.choice_field == nullptr)
      fail(place, fmt::format("there is no value “{}”{}", o.path, did_you_mean(o.path, profile_paths())));
    if (o.kind == Override::Kind::Same) find_same(o, place, r);
    if (o.kind == Override::Kind::Times && r.field == nullptr) fail(place, "only a number can be multiplied");
    if (r.field != nullptr) {
      const auto raw = [&](double typed) { return r.field->is_angle() ? radians(typed) : typed; };
      r.low = raw(r.field->low), r.high = raw(r.field->high);
      r.number = o.kind == Override::Kind::Value ? raw(o.number) : o.number;
      if (o.kind == Override::Kind::Value && (o.number < r.field->low || o.number > r.field->high))
        fail(place, fmt::format("it must be between {} and {}, not {}", r.field->low, r.field->high, o.number));
    } else {
      r.number = o.number;
      r.curve = o.curve;
    }
    return r;
  }

  static void find_same(const Override& o, const std::string& place, ResolvedOverride& r) {
    r.same_field = find_field(o.same);
    r.same_curve = find_curve(o.same);
    r.same_choice = find_choice(o.same);
    const bool fits =
        (r.field != nullptr && r.same_field != nullptr && r.field->unit == r.same_field->unit) ||
        (r.curve_field != nullptr && r.same_curve != nullptr && r.curve_field->x_unit == r.same_curve->x_unit &&
         r.curve_field->y_unit == r.same_curve->y_unit) ||
        (r.choice_field != nullptr && r.same_choice != nullptr &&
         r.choice_field->words.size() == r.same_choice->words.size());
    if (!fits) fail(place, fmt::format("“{}” is no value of the same kind", o.same));
  }

  // How near the source of a transition is to a state: 0 the state, 1 its group, 2 any; nothing if it does not
  // leave the state at all.
  std::optional<int> nearness(const TransitionSpec& t, std::size_t i, const StateChart::State& state) const {
    if (t.from == table_.states[i].name) return 0;
    if (!state.group.empty() && t.from == state.group) return 1;
    if (t.from == kAnyState) return 2;
    return std::nullopt;
  }

  void compile_transitions(const std::vector<StateChart::State>& states) {
    std::set<std::string> sources = {std::string(kAnyState)};
    for (std::size_t i = 0; i < states.size(); ++i) {
      sources.insert(table_.states[i].name);
      if (!states[i].group.empty()) sources.insert(states[i].group);
    }
    for (std::size_t i = 0; i < table_.transitions.size(); ++i) {
      const TransitionSpec& t = table_.transitions[i];
      const std::string place = transition_place(i), name = t.from + " to " + t.to;
      if (!sources.contains(t.from))
        fail(place + "/from", fmt::format("there is no state or group “{}”{}", t.from,
                                          did_you_mean(t.from, {sources.begin(), sources.end()})));
      if (!(t.shortest_stay >= 0.0 && t.shortest_stay <= 3600.0))
        fail(place + "/stay", "the shortest stay is between 0 and 3600 s");
      auto guard = Guard::make(t.guard, name, scripts_);
      if (!guard) fail(place + "/when", guard.error());
      compiled_.push_back({t.priority, t.shortest_stay, false, id(t.to, place + "/to"), *guard,
                           action(t.action, name + ", on the way", place + "/do"), i});
    }
  }

  std::vector<StateChart::Transition> leaving(std::size_t i, const StateChart::State& state) const {
    std::vector<std::pair<int, StateChart::Transition>> found;
    for (const StateChart::Transition& t : compiled_) {
      const auto near = nearness(table_.transitions[t.row], i, state);
      if (!near || (t.to == StateId(i) && *near == 2)) continue;
      found.emplace_back(*near, t);
      found.back().second.anew = t.to == StateId(i);
    }
    std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) {
      return a.second.priority != b.second.priority ? a.second.priority > b.second.priority : a.first < b.first;
    });
    std::vector<StateChart::Transition> ordered;
    for (auto& [near, t] : found) ordered.push_back(std::move(t));
    return ordered;
  }

  StateId fallback() const { return table_.fallback.empty() ? StateId{} : id(table_.fallback, "/fallback"); }

  std::vector<StateChart::State> make() {
    check_names();
    scripts_->memory = table_.memory;
    std::vector<StateChart::State> states;
    for (std::size_t i = 0; i < table_.states.size(); ++i) states.push_back(state(i));
    compile_transitions(states);
    for (std::size_t i = 0; i < states.size(); ++i) states[i].leaving = leaving(i, states[i]);
    return states;
  }

 private:
  const StateTable& table_;
  std::shared_ptr<ScriptSet> scripts_ = std::make_shared<ScriptSet>();
  std::vector<StateChart::Transition> compiled_;
};

}  // namespace

StateTable in_order(StateTable table) {
  for (StateSpec& state : table.states)
    std::sort(state.overrides.begin(), state.overrides.end(),
              [](const Override& a, const Override& b) { return a.path < b.path; });
  return table;
}

Result<std::shared_ptr<const StateChart>> StateChart::make(StateTable table) {
  std::shared_ptr<StateChart> chart(new StateChart);
  chart->table_ = in_order(std::move(table));
  try {
    ChartMaker maker(chart->table_);
    chart->states_ = maker.make();
    chart->fallback_ = maker.fallback();
  } catch (const Refused& refused) {
    return refuse({"the table of states", refused.place, refused.what});
  }
  return std::shared_ptr<const StateChart>(std::move(chart));
}

std::optional<StateId> StateChart::find(std::string_view name) const {
  for (std::size_t i = 0; i < table_.states.size(); ++i) {
    if (table_.states[i].name == name) return StateId(i);
  }
  return std::nullopt;
}

std::optional<int> StateChart::memory_slot(std::string_view name) const {
  const auto found = std::find(table_.memory.begin(), table_.memory.end(), name);
  if (found == table_.memory.end()) return std::nullopt;
  return static_cast<int>(found - table_.memory.begin());
}

Values StateChart::values_in(StateId id, const Values& profile) const {
  Values values = profile;
  for (const ResolvedOverride& o : state(id).overrides) o.apply(values, profile);
  return values;
}

double StateChart::gravity_in(StateId id, const Values& profile) const {
  static const ProfileField* kGravity = find_field("gravity");
  const auto& overrides = state(id).overrides;
  const bool overridden = std::any_of(overrides.begin(), overrides.end(),
                                      [](const ResolvedOverride& o) { return o.field == kGravity; });
  return overridden ? values_in(id, profile).gravity : profile.gravity;
}

std::shared_ptr<const StateChart> built_in_chart() {
  static const std::shared_ptr<const StateChart> kChart = StateChart::make(built_in_states()).value();
  return kChart;
}

const StateChart& chart_of(const Profile& profile) {
  static const StateChart& kBuiltIn = *built_in_chart();
  return profile.states ? *profile.states : kBuiltIn;
}

std::shared_ptr<const StateChart> shared_chart_of(const Profile& profile) {
  return profile.states ? profile.states : built_in_chart();
}

StateId fitting_state(const StateChart& chart, std::string_view name, Behaviour behaviour) {
  if (const auto found = chart.find(name)) return *found;
  for (std::size_t i = 0; i < chart.size(); ++i) {
    if (chart.state(StateId(i)).behaviour == behaviour) return StateId(i);
  }
  return StateId{};
}

CharacterState fitted_to(const Profile& now, const Profile& before, const CharacterState& state) {
  const StateChart &chart = chart_of(now), &old = chart_of(before);
  CharacterState fitted = state;
  const auto fit = [&](StateId id) { return fitting_state(chart, old.name_of(id), old.state(id).behaviour); };
  fitted.state = fit(state.state);
  fitted.came_from = fit(state.came_from);
  const double least = 2.0 * now.capsule.radius;
  const bool full = state.capsule_height >= before.capsule.height - 1e-9;
  fitted.capsule_height =
      full ? now.capsule.height : std::clamp(state.capsule_height, least, now.capsule.height);
  return fitted;
}

}  // namespace lagniappe
