// SPDX-License-Identifier: MIT
#include "lagniappe/table_use.h"

#include <catch2/catch.hpp>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Kind = TableFinding::Kind;

std::shared_ptr<const StateChart> chart_with(const std::function<void(StateTable&)>& change) {
  StateTable table = built_in_states();
  change(table);
  auto chart = StateChart::make(table);
  if (!chart) FAIL(chart.error().sentence());
  return *chart;
}

std::vector<std::string> texts(const std::vector<TableFinding>& findings, Kind kind) {
  std::vector<std::string> found;
  for (const TableFinding& f : findings) {
    if (f.kind == kind) found.push_back(f.text);
  }
  return found;
}

}  // namespace

TEST_CASE("The built-in table has nothing to remark on") { CHECK(check_table(*built_in_chart()).empty()); }

TEST_CASE("States that nothing leads to or out of are found") {
  const auto chart = chart_with([](StateTable& t) {
    StateSpec island;
    island.name = "Island";
    t.states.push_back(island);
    t.transitions.push_back({"Island", "Walk", "grounded", 0, 0.0, ""});
    StateSpec pit;
    pit.name = "Pit";
    pit.behaviour = Behaviour::Air;
    t.states.push_back(pit);
    t.transitions.push_back({"Walk", "Pit", "climb.pressed", 0, 0.0, ""});
    std::erase_if(t.transitions, [](const TransitionSpec& r) { return r.from == "any"; });
    t.transitions.push_back({"Walk", "Fly", "fly.pressed", 0, 0.0, ""});
  });
  const auto found = check_table(*chart);
  CHECK(texts(found, Kind::Unreachable) ==
        std::vector<std::string>{"Island cannot be reached from where one begins."});
  CHECK(texts(found, Kind::NoExit) == std::vector<std::string>{"Nothing leads out of Pit."});
  CHECK(texts(found, Kind::NoFall) ==
        std::vector<std::string>{"Island stands on the ground, but nothing leads from it into a fall."});
}

TEST_CASE("A crouch without a way back to standing is found") {
  const auto chart = chart_with([](StateTable& t) {
    t.states = {t.states[0], t.states[7]};
    t.states[0].group = t.states[1].group = "";
    t.transitions = {{"Stand", "Crouch", "crouch.held", 0, 0.0, ""}, {"Crouch", "Crouch", "false", 0, 0.0, ""}};
    t.fallback = "Stand";
  });
  CHECK(texts(check_table(*chart), Kind::NoExit).size() == 1);
  const auto way_round = chart_with([](StateTable& t) {
    t.states = {t.states[0], t.states[7], t.states[9]};
    t.states[0].group = t.states[1].group = "";
    t.transitions = {{"Stand", "Crouch", "crouch.held", 0, 0.0, ""},
                     {"Crouch", "Lie", "lie.pressed", 0, 0.0, ""},
                     {"Lie", "Crouch", "lie.pressed", 0, 0.0, ""}};
    t.fallback = "Stand";
  });
  CHECK(texts(check_table(*way_round), Kind::NoStandUp).size() == 2);
}

TEST_CASE(
    "A transition is shadowed where an earlier one holds whenever it does, in every state that it leaves") {
  const auto shadowed = [](const TransitionSpec& added) {
    const auto chart = chart_with([&](StateTable& t) { t.transitions.push_back(added); });
    const auto found = texts(check_table(*chart), Kind::Shadowed);
    return found.empty() ? std::string() : found.front();
  };
  CHECK_THAT(shadowed({"Walk", "Crouch", "sprint.held and grounded", 10, 0.0, ""}),
             Catch::Contains("Walk to Sprint is asked before it"));
  CHECK_THAT(shadowed({"Airborne", "Walk", "steep", 5, 0.0, ""}), Catch::Contains("Airborne to Skid"));
  CHECK(shadowed({"Walk", "Crouch", "sprint.held or grounded", 10, 0.0, ""}).empty());
  CHECK(shadowed({"Walk", "Crouch", "sprint.held and grounded", 60, 0.0, ""}).empty());  // Asked first.
  CHECK(shadowed({"Upright", "Lie", "sprint.held", 10, 0.0, ""}).empty());  // Only in Walk it has no chance.
}

TEST_CASE("Guards that are plainly true or false are found") {
  const auto chart = chart_with([](StateTable& t) {
    t.transitions.push_back({"Walk", "Lie", "false --[[ to be filled in ]]", 0, 0.0, ""});
    t.transitions.push_back({"Lie", "Stand", "true", 0, 0.0, ""});
  });
  CHECK(texts(check_table(*chart), Kind::NeverHolds).size() == 1);
  CHECK(texts(check_table(*chart), Kind::AlwaysHolds).size() == 1);
}

TEST_CASE("The firings of a run are its changes of state, each with its row") {
  const TriangleWorld world = Scene().floor().world();
  Take take;
  take.course = std::make_shared<const Course>();
  take.tick_rate = 60;
  take.start = start_state(take.profile, Home{}, world);
  for (int i = 0; i < 60; ++i) take.inputs.push_back(i < 20 ? InputFrame{} : push(0, 1));
  take.inputs[40] = press(Action::Jump);
  const auto run = run_take(take, world);
  const auto firings = firings_of(*run, take, world);
  REQUIRE(firings.size() >= 2);
  const StateChart& chart = *built_in_chart();
  CHECK(firings[0].tick == 21);
  CHECK(transition_name(chart, *firings[0].row) == "Stand to Walk");
  CHECK(firings[1].tick == 41);
  CHECK(transition_name(chart, *firings[1].row) == "Upright to Rise");
  for (const Firing& f : firings) CHECK(run->state(f.tick).state == f.to);
  CHECK(firings_of(*run, take, world, 41).size() == firings.size() - 1);
  const TableUse use = use_of(*run, take, world);
  CHECK(use.changes == firings.size());
  CHECK(use.ticks == 60);
}

TEST_CASE("Random drives are the same for the same seed, and cover the demo course's table", "[long]") {
  const auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/tidewheel.course.json");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  const auto homes = homes_of(*course);
  const TableUse a = drive_randomly({}, homes, world, {60'000, 60, 7}),
                 b = drive_randomly({}, homes, world, {60'000, 60, 7});
  CHECK(a.entered == b.entered);
  CHECK(a.ticks == 60'000);
  const StateChart& chart = *built_in_chart();
  for (std::size_t i = 0; i < chart.size(); ++i) {
    INFO(chart.name_of(StateId(i)));
    CHECK((a.entered[i] > 0) == (StateId(i) != StateId::Float));  // Gravity is everywhere there.
  }
  CHECK(double(a.changes) / 1000.0 < 6.0);  // Changes of state a second, under restless hands.
  const TableUse stopped =
      drive_randomly({}, homes, world, {60'000, 60, 7}, [](double share) { return share < 0.5; });
  CHECK(stopped.ticks < 40'000);
}

TEST_CASE("A use tells what was never used, and what flickers") {
  const auto chart = chart_with([](StateTable& t) {
    StateSpec ghost;
    ghost.name = "Ghost";
    t.states.push_back(ghost);
    t.transitions.push_back({"Walk", "Ghost", "distance_to_ground > 40", 100, 0.0, ""});
    t.transitions.push_back(
        {"Stand", "Walk", "state_time > 0.03", 1, 0.0, ""});  // Nobody pushes: back at once.
  });
  Profile profile;
  profile.states = chart;
  const TriangleWorld world = Scene().floor().world();
  const Home homes[] = {Home{}};
  const TableUse use = drive_randomly(profile, homes, world, {20'000, 60, 3});
  const auto found = findings_of(use, *chart);
  const auto tells = [&](Kind kind, const std::string& text) {
    const auto all = texts(found, kind);
    return std::any_of(all.begin(), all.end(), [&](const std::string& t) { return t.find(text) != t.npos; });
  };
  CHECK(tells(Kind::NeverEntered, "Ghost was never entered."));
  CHECK_FALSE(tells(Kind::NeverEntered, "Walk"));
  CHECK(tells(Kind::NeverHolds, "Walk to Ghost never held"));
  CHECK_FALSE(tells(Kind::NeverFired, "Stand to Walk"));
  REQUIRE_FALSE(texts(found, Kind::Flickers).empty());
  CHECK_THAT(texts(found, Kind::Flickers).front(), Catch::Contains("Stand and Walk flickered"));
}
