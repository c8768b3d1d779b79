// SPDX-License-Identifier: MIT
#include "io/states_document.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdlib>

#include "io/old_words.h"
#include "io/value_document.h"

namespace lagniappe {

namespace {

using Ordered = nlohmann::ordered_json;

// --- reading ---

Override read_override(const JsonCursor& cursor, const std::string& path) {
  Override o{path, Override::Kind::Value, 0.0, {}, {}};
  if (cursor.value().is_object()) {
    cursor.only_keys({"times", "same"});
    if (cursor.has("times") == cursor.has("same"))
      cursor.fail("it is a value, or {\"times\": number}, or {\"same\": \"another value\"}");
    o.kind = cursor.has("times") ? Override::Kind::Times : Override::Kind::Same;
    if (cursor.has("times")) o.number = cursor.at("times").number({0.0, 1000.0});
    if (cursor.has("same")) o.same = present_path(cursor.at("same").name());
  } else if (const ProfileField* field = find_field(path)) {
    o.number = read_number(cursor, *field);
  } else if (const ProfileCurve* curve = find_curve(path)) {
    o.curve = read_curve(cursor, *curve);
  } else if (const ProfileChoice* choice = find_choice(path)) {
    o.number = read_choice(cursor, *choice);
  }
  return o;
}

template <typename Enum, std::size_t kCount>
std::optional<Enum> read_word(const JsonCursor& cursor, std::string_view key,
                              const std::array<std::string_view, kCount>& names) {
  if (!cursor.has(key)) return std::nullopt;
  return static_cast<Enum>(cursor.at(key).one_of({names.begin(), names.end()}));
}

void read_text_if(const JsonCursor& cursor, std::string_view key, std::string& text) {
  if (cursor.has(key)) text = cursor.at(key).text();
}

void read_names_if(const JsonCursor& cursor, std::string_view key, std::vector<std::string>& names) {
  if (!cursor.has(key)) return;
  for (const JsonCursor& name : cursor.at(key).elements()) names.push_back(name.name());
}

StateSpec read_state(const JsonCursor& cursor) {
  cursor.only_keys(
      {"name", "is", "in", "behaviour", "stance", "pose", "set", "enter", "exit", "script", "forgets"});
  StateSpec state;
  state.name = cursor.at("name").name();
  read_text_if(cursor, "is", state.like);
  read_text_if(cursor, "in", state.group);
  state.behaviour = read_word<Behaviour>(cursor, "behaviour", behaviour_names());
  state.stance = read_word<Stance>(cursor, "stance", kStanceNames);
  read_text_if(cursor, "pose", state.pose);
  read_text_if(cursor, "enter", state.on_entry);
  read_text_if(cursor, "exit", state.on_exit);
  read_text_if(cursor, "script", state.script);
  read_names_if(cursor, "forgets", state.memory);
  if (!cursor.has("set")) return state;
  const JsonCursor set = cursor.at("set");
  const std::vector<std::string> paths = profile_paths();
  set.only_keys(with_old_paths(paths));
  for (const std::string& path : paths) {
    const std::string key = key_of_path(set, path);
    if (set.has(key)) state.overrides.push_back(read_override(set.at(key), path));
  }
  return state;
}

TransitionSpec read_transition(const JsonCursor& cursor) {
  cursor.only_keys({"from", "to", "when", "priority", "stay", "do"});
  TransitionSpec t;
  t.from = cursor.at("from").name();
  t.to = cursor.at("to").name();
  t.guard = cursor.at("when").text();
  if (cursor.has("priority")) t.priority = cursor.at("priority").integer(-1000, 1000);
  cursor.number_if("stay", {0.0, 3600.0}, t.shortest_stay);
  read_text_if(cursor, "do", t.action);
  return t;
}

// --- writing ---

Ordered override_json(const Override& o) {
  if (o.kind == Override::Kind::Times) return {{"times", o.number}};
  if (o.kind == Override::Kind::Same) return {{"same", o.same}};
  if (find_curve(o.path) != nullptr) {
    Ordered points = Ordered::array();
    for (int i = 0; i < o.curve.count; ++i)
      points.push_back(Ordered::array({o.curve.points[i].x, o.curve.points[i].y}));
    return points;
  }
  if (const ProfileChoice* choice = find_choice(o.path)) {
    const auto word = static_cast<std::size_t>(o.number);
    return choice->words.empty() ? Ordered(o.number != 0.0) : Ordered(choice->words[word]);
  }
  const ProfileField* field = find_field(o.path);
  return field != nullptr && field->unit == Unit::Count ? Ordered(int(o.number)) : Ordered(o.number);
}

Ordered state_json(const StateSpec& s) {
  Ordered json = {{"name", s.name}};
  const auto put = [&](const char* key, const std::string& text) {
    if (!text.empty()) json[key] = text;
  };
  put("is", s.like), put("in", s.group);
  if (s.behaviour) json["behaviour"] = facts_of(*s.behaviour).name;
  if (s.stance) json["stance"] = kStanceNames[static_cast<std::size_t>(*s.stance)];
  put("pose", s.pose);
  for (const Override& o : s.overrides) json["set"][o.path] = override_json(o);
  put("enter", s.on_entry), put("exit", s.on_exit), put("script", s.script);
  if (!s.memory.empty()) json["forgets"] = s.memory;
  return json;
}

Ordered transition_json(const TransitionSpec& t) {
  Ordered json = {{"from", t.from}, {"to", t.to}, {"when", t.guard}};
  if (t.priority != 0) json["priority"] = t.priority;
  if (t.shortest_stay != 0.0) json["stay"] = t.shortest_stay;
  if (!t.action.empty()) json["do"] = t.action;
  return json;
}

// One line of JSON, with a blank after colons and commas.
std::string line_of(const Ordered& json) {
  if (json.is_object()) {
    std::string text = "{";
    for (const auto& [key, value] : json.items())
      text += (text.size() > 1 ? ", " : "") + dumped(Ordered(key)) + ": " + line_of(value);
    return text + "}";
  }
  if (!json.is_array()) return dumped(json);
  std::string text = "[";
  for (const auto& value : json) text += (text.size() > 1 ? ", " : "") + line_of(value);
  return text + "]";
}

template <typename Rows, typename Write>
std::string lines_of(const Rows& rows, const std::string& indent, Write write) {
  std::string text = "[";
  for (const auto& row : rows) text += (text.size() > 1 ? ",\n" : "\n") + indent + "  " + line_of(write(row));
  return rows.empty() ? "[]" : text + "\n" + indent + "]";
}

}  // namespace

std::string override_text(const Override& o) { return line_of(override_json(o)); }

Override override_of(const std::string& path, const std::string& text) {
  const Json json = Json::parse(text, nullptr, false);
  if (json.is_discarded()) throw ReadFailure{path, fmt::format("“{}” is no value", text)};
  return read_override(JsonCursor(json, path), path);
}

namespace {

// What the document says of a table: all of it, or what differs from another.
TableChanges read_changes(const JsonCursor& document) {
  TableChanges changes;
  if (document.has("states")) {
    const auto states = document.at("states").elements();
    if (states.size() > kMostStates)
      document.at("states").fail(
          fmt::format("a table has at most {} states, not {}", kMostStates, states.size()));
    for (const JsonCursor& state : states) changes.states.push_back(read_state(state));
  }
  if (document.has("transitions")) {
    const auto rows = document.at("transitions").elements();
    if (rows.size() > kMostTransitionRows)
      document.at("transitions").fail(fmt::format("a table has at most {} transitions", kMostTransitionRows));
    for (const JsonCursor& row : rows) changes.transitions.push_back(read_transition(row));
  }
  read_names_if(document, "memory", changes.memory);
  read_text_if(document, "fallback", changes.fallback);
  return changes;
}

// What goes of the table that is built on: states, and transitions.
void read_removed(const JsonCursor& list, const StateTable& base, TableChanges& changes) {
  for (const JsonCursor& gone : list.elements()) {
    if (gone.has("state")) {
      gone.only_keys({"state"});
      changes.no_states.push_back(gone.at("state").name());
      const auto is_it = [&](const StateSpec& s) { return s.name == changes.no_states.back(); };
      if (std::none_of(base.states.begin(), base.states.end(), is_it))
        gone.fail(fmt::format("the built-in table has no state “{}”", changes.no_states.back()));
      continue;
    }
    gone.only_keys({"from", "to", "priority"});
    RowKey key{gone.at("from").name(), gone.at("to").name(), 0};
    if (gone.has("priority")) key.priority = gone.at("priority").integer(-1000, 1000);
    const auto is_it = [&](const TransitionSpec& row) { return key_of(row) == key; };
    if (std::none_of(base.transitions.begin(), base.transitions.end(), is_it))
      gone.fail(fmt::format("the built-in table has no transition from {} to {} with priority {}", key.from,
                            key.to, key.priority));
    changes.no_transitions.push_back(key);
  }
}

Ordered removed_json(const std::string& state) { return {{"state", state}}; }

Ordered removed_json(const RowKey& row) {
  Ordered json = {{"from", row.from}, {"to", row.to}};
  if (row.priority != 0) json["priority"] = row.priority;
  return json;
}

std::vector<Ordered> removed_json(const TableChanges& changes) {
  std::vector<Ordered> gone;
  for (const std::string& state : changes.no_states) gone.push_back(removed_json(state));
  for (const RowKey& row : changes.no_transitions) gone.push_back(removed_json(row));
  return gone;
}

// Where a place in the whole table, as a chart tells it, stands in the document.
std::string place_in(const TableChanges& changes, const StateTable& table, const std::string& place) {
  const auto at = [&](std::string_view list) -> std::optional<std::size_t> {
    if (!place.starts_with(list)) return std::nullopt;
    return static_cast<std::size_t>(std::atoi(place.c_str() + list.size()));
  };
  const auto moved = [&](std::string_view list, const auto& own, const auto& all,
                         std::size_t index) -> std::string {
    const auto found = std::find(own.begin(), own.end(), all[index]);
    const auto rest = place.find('/', list.size());
    if (found == own.end()) return "/based_on";
    return std::string(list) + std::to_string(found - own.begin()) +
           (rest == std::string::npos ? "" : place.substr(rest));
  };
  if (const auto i = at("/states/"); i && *i < table.states.size())
    return moved("/states/", changes.states, table.states, *i);
  if (const auto i = at("/transitions/"); i && *i < table.transitions.size())
    return moved("/transitions/", changes.transitions, table.transitions, *i);
  return place;
}

}  // namespace

std::shared_ptr<const StateChart> read_states(const JsonCursor& document) {
  const bool says_so = document.has("based_on") && document.at("based_on").one_of({"built-in", "nothing"}) == 0;
  // All of it is here, as in takes.
  const bool complete = document.has("complete") && document.at("complete").truth();
  const bool based = says_so && !complete;
  if (!based && !document.has("states")) {
    for (const std::string_view key : kStateKeys) {
      if (document.has(key)) document.at(key).fail("there are no states that it could belong to");
    }
    return nullptr;
  }
  TableChanges changes = read_changes(document);
  if (document.has("remove")) {
    if (!based && !document.at("remove").elements().empty())
      document.at("remove").fail("nothing can be removed from a table that is based on no other");
    read_removed(document.at("remove"), built_in_states(), changes);
  }
  if (document.has("order")) {
    if (!based && !document.at("order").elements().empty())
      document.at("order").fail("the states of a table that is based on no other stand in their order");
    read_names_if(document, "order", changes.order);
  }
  const StateTable whole{changes.states, changes.transitions, changes.memory, changes.fallback, says_so};
  const StateTable table = based ? in_order(with_changes(built_in_states(), changes)) : whole;
  for (std::size_t i = 0; i < changes.order.size(); ++i) {
    const auto is_it = [&](const StateSpec& state) { return state.name == changes.order[i]; };
    if (std::none_of(table.states.begin(), table.states.end(), is_it))
      document.at("order").elements()[i].fail(fmt::format("there is no state “{}”", changes.order[i]));
  }
  auto chart = StateChart::make(table);
  if (chart) return *chart;
  const std::string place = based ? place_in(changes, table, chart.error().place) : chart.error().place;
  throw ReadFailure{document.pointer() + place, chart.error().what};
}

std::vector<std::pair<std::string, std::string>> states_text(const StateTable& table, const std::string& indent,
                                                             bool was_based) {
  // Where the order is another than what is built on gives, all is written.
  TableChanges changes = changes_from(built_in_states(), table);
  const bool based = table.based_on_built_in && with_changes(built_in_states(), changes) == table;
  if (!based) changes = {table.states, table.transitions, {}, {}, table.memory, table.fallback, {}};
  std::vector<std::pair<std::string, std::string>> text;
  if (based || was_based) text.emplace_back("based_on", based ? "\"built-in\"" : "\"nothing\"");
  text.emplace_back("states", lines_of(changes.states, indent, state_json));
  text.emplace_back("transitions", lines_of(changes.transitions, indent, transition_json));
  if (based || was_based)
    text.emplace_back("remove",
                      lines_of(removed_json(changes), indent, [](const Ordered& gone) { return gone; }));
  if (based || was_based) text.emplace_back("order", line_of(Ordered(changes.order)));
  text.emplace_back("memory", line_of(Ordered(changes.memory)));
  text.emplace_back("fallback", dumped(Ordered(changes.fallback)));
  return text;
}

void put_states(const StateTable& table, Json& document) {
  StateTable whole = table;
  whole.based_on_built_in = false;
  for (const auto& [key, text] : states_text(whole, "", false)) document[key] = Json::parse(text);
  if (!table.based_on_built_in) return;
  document["based_on"] = "built-in";
  document["complete"] = true;
}

}  // namespace lagniappe
