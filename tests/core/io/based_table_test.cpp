// SPDX-License-Identifier: MIT
// Tables that are based on the built-in one, and files that were written with words of before.
#include <catch2/catch.hpp>

#include "lagniappe/lagniappe.h"

using namespace lagniappe;

namespace {

std::string document(const std::string& keys) {
  return "{\n  \"lagniappe\": \"profile\",\n  \"version\": 1,\n" + keys + "\n}\n";
}
Profile profile_of(const std::string& keys) {
  const auto profile = parse_profile(document(keys), "p.json");
  INFO((profile ? "" : profile.error().sentence()));
  REQUIRE(profile);
  return *profile;
}
std::string refusal_of(const std::string& keys) {
  const auto profile = parse_profile(document(keys), "p.json");
  return profile ? "read" : profile.error().sentence();
}

const std::string kGlide = R"(  "based_on": "built-in",
  "states": [
    {"name": "Sprint", "is": "Walk", "pose": "run", "set": {"ground.speed": 9}},
    {"name": "Glide", "in": "Airborne", "behaviour": "air"}
  ],
  "transitions": [
    {"from": "Fall", "to": "Glide", "when": "jump.held", "priority": 25},
    {"from": "Stand", "to": "Walk", "when": "intent > 0.5", "priority": 40}
  ],
  "remove": [
    {"state": "Lie"},
    {"from": "Walk", "to": "Sprint", "priority": 39}
  ])";

}  // namespace

TEST_CASE("Every row of the built-in table is known by where it leads and by its priority") {
  const auto& rows = built_in_states().transitions;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    for (std::size_t j = i + 1; j < rows.size(); ++j) {
      INFO(rows[i].from << " " << rows[i].to);
      CHECK_FALSE(key_of(rows[i]) == key_of(rows[j]));
    }
  }
}

TEST_CASE("A table that is based on the built-in one has its rows, but for what it says itself") {
  const StateTable& base = built_in_states();
  const StateTable table = profile_of(kGlide).states->table();
  CHECK(table.based_on_built_in);
  CHECK(table.states.size() == base.states.size());  // One more, one less.
  CHECK(table.states.back().name == "Glide");
  const auto named = [&](const char* name) {
    return std::find_if(table.states.begin(), table.states.end(),
                        [&](const StateSpec& s) { return s.name == name; });
  };
  CHECK(named("Lie") == table.states.end());
  REQUIRE(named("Sprint") != table.states.end());
  REQUIRE(named("Sprint")->overrides.size() == 1);
  CHECK(named("Sprint")->overrides[0].number == 9.0);
  CHECK(named("Crouch")->overrides == base.states[7].overrides);
  std::size_t of_lie = 0;
  for (const TransitionSpec& row : base.transitions) of_lie += row.from == "Lie" || row.to == "Lie";
  CHECK(of_lie > 5);
  CHECK(table.transitions.size() == base.transitions.size() - of_lie - 1 + 1);
  for (const TransitionSpec& row : table.transitions) {
    CHECK(row.from != "Lie");
    CHECK_FALSE((row.from == "Walk" && row.to == "Sprint"));
    if (row.from == "Stand" && row.to == "Walk") CHECK(row.guard == "intent > 0.5");
  }
  // What it says is what differs, and comes back as it was.
  const TableChanges changes = changes_from(base, table);
  CHECK(changes.states.size() == 2);
  CHECK(changes.transitions.size() == 2);
  CHECK(changes.no_states == std::vector<std::string>{"Lie"});
  CHECK(changes.no_transitions == std::vector<RowKey>{{"Walk", "Sprint", 39}});
  CHECK(with_changes(base, changes) == table);
}

TEST_CASE("What is changed in a based table is a line or two of its file") {
  const std::string text = document(kGlide);
  Profile profile = profile_of(kGlide);
  CHECK(*profile_text(profile, text, "p.json") == text);
  StateTable table = profile.states->table();
  for (TransitionSpec& row : table.transitions) {
    if (row.from == "Rise" && row.to == "Fall") row.guard = "rise_speed <= 1";
  }
  profile.states = *StateChart::make(table);
  const std::string changed = *profile_text(profile, text, "p.json");
  CHECK(changed.find(R"({"from": "Rise", "to": "Fall", "when": "rise_speed <= 1", "priority": 30})") !=
        std::string::npos);
  CHECK(changed.find("Skid") == std::string::npos);
  CHECK(parse_profile(changed, "p.json")->states->table() == table);
  // What is read back as a check, or kept in a take, is the whole table and still knows what it is based on.
  CHECK(checked(profile)->states->table().based_on_built_in);
  CHECK(checked(profile)->states->table() == table);
  // A profile that had no table gets the row alone.
  Profile plain;
  StateTable built_in = built_in_states();
  built_in.transitions[0].guard = "fly.pressed and grounded";
  plain.states = *StateChart::make(built_in);
  const std::string own = *profile_text(plain);
  CHECK(own.find("fly.pressed and grounded") != std::string::npos);
  CHECK(own.find("\"Stand\"") == std::string::npos);
  CHECK(parse_profile(own, "p.json")->states->table() == built_in);
  // States in another order are the same states, and their order.
  std::swap(built_in.states[0], built_in.states[1]);
  plain.states = *StateChart::make(built_in);
  const std::string moved = *profile_text(plain, own, "p.json");
  CHECK(moved.find("\"order\": [\"Walk\", \"Stand\", \"Sprint\"") != std::string::npos);
  CHECK(moved.find("\"name\": \"Stand\"") == std::string::npos);
  CHECK(parse_profile(moved, "p.json")->states->table() == built_in);
  // Rows in another order than it gives cannot be told by what differs: all are written.
  std::swap(built_in.transitions[0], built_in.transitions[1]);
  plain.states = *StateChart::make(built_in);
  const std::string whole = *profile_text(plain, own, "p.json");
  CHECK(whole.find("\"based_on\": \"nothing\"") != std::string::npos);
  CHECK(whole.find("\"Soar\"") != std::string::npos);
  CHECK(parse_profile(whole, "p.json")->states->table() == built_in);
}

TEST_CASE("Two transitions between the same states, with one priority, stay two") {
  StateTable table = built_in_states();
  const auto walks = [](const TransitionSpec& row) { return row.from == "Stand" && row.to == "Walk"; };
  const auto row = std::find_if(table.transitions.begin(), table.transitions.end(), walks);
  TransitionSpec second = *row;
  second.guard = "climb.held";
  table.transitions.insert(row + 1, second);
  const TableChanges changes = changes_from(built_in_states(), table);
  CHECK(changes.transitions.size() == 2);
  CHECK(with_changes(built_in_states(), changes) == table);
  Profile profile;
  profile.states = *StateChart::make(table);
  const std::string text = *profile_text(profile);
  CHECK(text.find("\"based_on\": \"built-in\"") != std::string::npos);
  CHECK(parse_profile(text, "p.json")->states->table() == table);
  // At the end, as somebody adds it, it comes to stand beside the other.
  StateTable added = built_in_states();
  added.transitions.push_back(second);
  CHECK(with_changes(built_in_states(), changes_from(built_in_states(), added)) == table);
}

TEST_CASE("What a based table says wrongly is told at its place in the file") {
  using Catch::Contains;
  CHECK_THAT(refusal_of(R"("based_on": "nowhere")"), Contains("/based_on"));
  CHECK_THAT(refusal_of(R"("based_on": "built-in", "remove": [{"state": "Hover"}])"),
             Contains("the built-in table has no state “Hover”") && Contains("/remove/0"));
  CHECK_THAT(refusal_of(R"("based_on": "built-in", "remove": [{"from": "Walk", "to": "Fly"}])"),
             Contains("no transition from Walk to Fly with priority 0"));
  CHECK_THAT(refusal_of(R"("states": [{"name": "A"}], "remove": [{"state": "A"}])"),
             Contains("based on no other"));
  CHECK_THAT(refusal_of(R"("remove": [])"), Contains("there are no states"));
  // The second row of the file is the 51st of the table.
  CHECK_THAT(refusal_of(R"("based_on": "built-in", "transitions": [
    {"from": "Stand", "to": "Walk", "when": "intent > 0.5", "priority": 40},
    {"from": "Fall", "to": "Nowhere", "when": "true"}])"),
             Contains("/transitions/1") && Contains("line 6"));
  CHECK_THAT(refusal_of(R"("based_on": "built-in", "states": [{"name": "Walk"}, {"name": "Walk"}])"),
             Contains("Walk") && Contains("/states/"));
  CHECK_THAT(refusal_of(R"("based_on": "built-in", "remove": [{"state": "Fall"}])"), Contains("Fall"));
  CHECK_THAT(refusal_of(R"("based_on": "built-in", "order": ["Walk", "Hover"])"),
             Contains("there is no state “Hover”") && Contains("/order/1"));
  // What goes leaves another row of the file without its state.
  CHECK_THAT(refusal_of(R"("based_on": "built-in", "remove": [{"state": "Lie"}],
    "transitions": [{"from": "Walk", "to": "Lie", "when": "true", "priority": 3}])"),
             Contains("/transitions/0"));
}

TEST_CASE("A profile with words of before is read as what they are called now, and told so") {
  const std::string keys = R"(  "jump": {
    "hang_speed": 1.25
  },
  "notes": {"jump.hang_factor": "soft"},
  "states": [
    {"name": "Stand", "set": {"jump.hang_factor": 0.25}, "enter": "if wish_forward > 0 then jump() end"},
    {"name": "Fall", "behaviour": "air", "pose": "as I wish"}
  ],
  "transitions": [
    {"from": "Stand", "to": "Fall", "when": "wish > 0.02 and since_push < 1"}
  ])";
  Profile profile = profile_of(keys);
  CHECK(profile.jump.apex_speed == 1.25);
  CHECK(profile.notes.at("jump.apex_factor") == "soft");
  CHECK(profile.states->table().states[0].overrides.at(0).path == "jump.apex_factor");
  CHECK(old_words_in(document(keys)) ==
        std::vector<std::string>{"jump.hang_speed is called jump.apex_speed now",
                                 "jump.hang_factor is called jump.apex_factor now", "wish is called intent now",
                                 "wish_forward is called intent_forward now",
                                 "since_push is called since_stick now"});
  CHECK(old_words_in(document(R"("name": "As you wish")")).empty());
  CHECK(old_words_in("no JSON, as you wish").empty());
  CHECK(old_words_in(document("\"states\": [{\"name\": \"A\", \"script\": \"x = '" + std::string(1 << 20, 'x') +
                              "' wish_hot\"}]"))
            .empty());
  // Saved, its values have the names of now, once.
  profile.jump.apex_speed = 1.5;
  const std::string saved = *profile_text(profile, document(keys), "p.json");
  CHECK(saved.find("hang_") == std::string::npos);
  const auto again = parse_profile(saved, "p.json");
  REQUIRE(again);
  CHECK(again->jump.apex_speed == 1.5);
  CHECK(again->states->table() == profile.states->table());
  // A name is not a key.
  const std::string called = document(R"("name": "hang_speed", "jump": {"hang_speed" : 1.0})");
  Profile named = *parse_profile(called, "p.json");
  named.jump.apex_speed = 2.0;
  const std::string kept = *profile_text(named, called, "p.json");
  CHECK(kept.find("\"name\": \"hang_speed\"") != std::string::npos);
  CHECK(parse_profile(kept, "p.json")->jump.apex_speed == 2.0);
  CHECK_THAT(refusal_of(R"("air": {"hang_speed": 1})"), Catch::Contains("hang_speed"));
}
