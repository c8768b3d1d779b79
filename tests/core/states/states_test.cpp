// SPDX-License-Identifier: MIT
// The built-in table, row by row, and tables that people make.
#include <catch2/catch.hpp>
#include <set>

#include "lagniappe/lagniappe.h"
#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Profile with_table(const std::function<void(StateTable&)>& change) {
  StateTable table = built_in_states();
  change(table);
  auto chart = StateChart::make(table);
  if (!chart) FAIL(chart.error().sentence());
  Profile profile;
  profile.states = *chart;
  return profile;
}

}  // namespace

TEST_CASE("Walking, sprinting and stopping go through Stand, Walk and Sprint, and nothing else") {
  Driven d(Scene().floor().world());
  CHECK(d.go(0.2, {}).now() == "Stand");
  CHECK(d.go(0.5, push(0, 1)).now() == "Walk");
  CHECK(d.go(1.0, held({Action::Sprint}, 0, 1)).now() == "Sprint");
  CHECK(length(d.state.velocity_C) == Approx(d.profile.ground.sprint_speed).epsilon(1e-3));
  CHECK(d.go(0.5, push(0, 1)).now() == "Walk");
  CHECK(d.go(0.5, {}).now() == "Stand");
  CHECK(d.go(0.5, held({Action::Sprint})).now() == "Stand");  // Sprint without a push is none.
  CHECK(d.states == std::set<std::string>{"Stand", "Walk", "Sprint"});
  CHECK(d.fired == std::set<std::string>{"Stand Walk", "Walk Sprint", "Sprint Walk", "Walk Stand"});
}

TEST_CASE("A jump rises, falls, tucks in while crouch is held, and lands in the state that fits") {
  Driven d(Scene().floor().world());
  d.go(0.3, {}).tap(Action::Jump);
  CHECK(d.now() == "Rise");
  CHECK(d.go(0.4, {}).now() == "Fall");
  CHECK(d.go(1.0, {}).now() == "Stand");
  d.tap(Action::Jump).go(0.1, held({Action::Crouch}));
  CHECK(d.now() == "Tuck");
  const double lifted = d.state.foot_C.y;
  CHECK(d.state.capsule_height < d.profile.capsule.height);
  CHECK(lifted > 0.7);  // The feet come up to the head.
  CHECK(d.go(1.0, held({Action::Crouch})).now() == "Crouch");
  CHECK(d.go(1.0, {}).now() == "Stand");
  CHECK(d.fired.contains("Stand Rise"));
  CHECK(d.fired.contains("Rise Tuck"));
  CHECK(d.fired.contains("Tuck Crouch"));
}

TEST_CASE("Standing up waits under a low roof, says why, and goes on behind it") {
  // A roof 1.3 m above the floor, from 2 m to 5 m ahead.
  Driven d(Scene().floor().block({0, 1.3, -3.5}, {4, 1, 3}).world());
  for (const int hz : {30, 60, 240}) {
    INFO(hz << " ticks/s");
    d.hz = hz;
    d.state = start_state(d.profile, Home{}, d.world);
    d.go(1.5, push(0, 1));
    CHECK(d.state.foot_C.z > -2.0);  // Too tall to get in.
    d.go(1.0, held({Action::Crouch}, 0, 1));
    CHECK(d.state.foot_C.z < -2.2);
    d.go(0.5, {});  // Let go below the roof.
    CHECK(d.now() == "Crouch");
    CHECK(d.state.capsule_height == Approx(d.profile.stances.crouched_height));
    d.go(4.0, push(0, 1));
    CHECK(d.state.foot_C.z < -5.3);
    CHECK(d.now() == "Walk");
    CHECK(d.state.capsule_height == Approx(d.profile.capsule.height));
    CHECK(deepest_overlap(d.state, d.profile, d.world) <= d.profile.capsule.margin);
  }
}

TEST_CASE("The capsule changes its height evenly and exactly in time") {
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    Driven d(Scene().floor().world());
    d.hz = hz;
    const Profile& p = d.profile;
    const double rate = (p.capsule.height - p.stances.crouched_height) / p.stances.crouch_time;
    const double tenth = static_cast<double>(std::lround(0.1 * hz)) / hz;  // As whole ticks.
    d.go(0.1, held({Action::Crouch}));
    CHECK(d.state.capsule_height == Approx(p.capsule.height - rate * tenth).margin(1e-9));
    d.go(0.2, held({Action::Crouch}));
    CHECK(d.state.capsule_height == Approx(p.stances.crouched_height).margin(1e-9));
    d.go(0.1, {});
    CHECK(d.state.capsule_height == Approx(p.stances.crouched_height + rate * tenth).margin(1e-9));
    CHECK(d.state.foot_C.y == Approx(0.0).margin(1e-9));
  }
}

TEST_CASE("Sprinting into a crouch slides along the floor, a state made of data alone") {
  Driven d(Scene().floor().world());
  d.go(1.0, held({Action::Sprint}, 0, 1));
  const double from = d.state.foot_C.z;
  d.tap(Action::Crouch, held({Action::Sprint}, 0, 1));
  CHECK(d.now() == "Slide");
  d.go(0.5, held({Action::Crouch}, 0, 1));
  CHECK(d.now() == "Slide");
  CHECK(length(d.state.velocity_C) < d.profile.ground.sprint_speed - 1.5);
  CHECK(length(d.state.velocity_C) > 3.0);
  d.go(2.0, held({Action::Crouch}));
  CHECK(d.now() == "Crouch");
  CHECK(d.state.foot_C.z < from - 3.0);
}

TEST_CASE("Lying lies along the facing, on slopes too, and gets up again") {
  for (const double slope : {0.0, 15.0, 25.0}) {
    INFO("slope " << slope);
    Driven d(Scene().block({0, -1.0 / std::cos(radians(slope)), 0}, {60, 1, 60}, {0, slope, 0}).world());
    d.go(0.5, {}).tap(Action::Lie).go(1.5, {});
    REQUIRE(d.now() == "Lie");
    CHECK(d.state.lie_length == Approx(d.profile.stances.lying_length - 0.6).margin(1e-6));
    CHECK(d.state.grounded());
    CHECK(std::abs(degrees(double(d.state.lie_pitch))) == Approx(slope).margin(0.5));
    d.go(2.0, push(0, 1));
    CHECK(d.state.grounded());
    CHECK(deepest_overlap(d.state, d.profile, d.world) <= d.profile.capsule.margin + 1e-9);
    d.tap(Action::Lie).go(1.5, {});
    CHECK(d.now() == "Stand");
    CHECK(d.state.capsule_height == Approx(d.profile.capsule.height));
    CHECK(d.told.empty());
  }
}

TEST_CASE("Nobody lies down in a wall or over a drop, nor crawls or turns there") {
  SECTION("no room between walls") {
    Driven d(Scene().floor().block({0, 0, -0.85}, {4, 2, 1}).block({0, 0, 0.85}, {4, 2, 1}).world());
    d.go(0.2, {}).tap(Action::Lie).go(0.5, {});
    CHECK(d.now() == "Stand");
  }
  SECTION("on a narrow beam across") {
    Driven d(Scene().block({0, -3, 0}, {8, 3, 0.8}).world());
    d.go(0.2, {}).tap(Action::Lie).go(0.5, {});
    CHECK(d.now() == "Stand");
  }
  SECTION("at an edge the head stays held") {
    Driven d(Scene().block({0, -3, 0}, {12, 3, 12}).world());
    d.tap(Action::Lie).go(1.0, {}).go(12.0, push(0, 1));
    CHECK(d.now() == "Lie");
    CHECK(d.state.grounded());
    CHECK(d.state.foot_C.z < -4.5);
    CHECK(d.state.foot_C.z > -5.95);
    CHECK_THAT(d.told.back(), Catch::Contains("0.250 m away, 0.250 m are kept"));
  }
  SECTION("a wall beside stops the turn") {
    Driven d(Scene().floor().block({0.9, 0, 0}, {1, 2, 6}).world());
    d.tap(Action::Lie).go(1.0, {}).go(1.0, push(1, 0));
    CHECK(deepest_overlap(d.state, d.profile, d.world) <= d.profile.capsule.margin + 1e-9);
    CHECK(std::abs(degrees(d.state.facing)) < 80.0);
    CHECK_FALSE(d.told.empty());
  }
}

TEST_CASE("Every press of jump that a state does not take says so") {
  Driven d(Scene().floor().world(), with_table([](StateTable& t) {
             std::erase_if(t.transitions, [](const TransitionSpec& r) { return r.guard == "can_jump"; });
           }));
  d.go(0.2, {}).tap(Action::Jump);
  CHECK(d.now() == "Stand");
  REQUIRE(d.told.size() == 1);
  CHECK_THAT(d.told[0], Catch::Contains("no transition of this state takes it"));
}

TEST_CASE("A circle of transitions is stopped within the tick and told as a finding") {
  const Profile profile = with_table([](StateTable& t) {
    t.transitions = {{"Stand", "Walk", "true", 0, 0.0, ""},
                     {"Walk", "Sprint", "true", 0, 0.0, ""},
                     {"Sprint", "Stand", "true", 0, 0.0, ""}};
  });
  Driven d(Scene().floor().world(), profile);
  d.go(0.1, {});
  REQUIRE_FALSE(d.told.empty());
  CHECK_THAT(d.told[0], Catch::Contains("round in a circle"));
  Run run(d.state, 60);
  for (int i = 0; i < 10; ++i) {
    Ledger ledger;
    const CharacterState after = step(run.last(), {}, profile, d.world, 1.0 / 60, &ledger);
    run.pass({}, after, ledger, profile);
  }
  const auto loops = std::count_if(run.findings().begin(), run.findings().end(),
                                   [](const Finding& f) { return f.kind == Finding::Kind::StateLoop; });
  CHECK(loops >= 1);
  CHECK(loops <= 3);  // One for each state that it stopped in, not one for each tick.
}

TEST_CASE("Scripts move the character, keep what they need in slots, and failing ones fall back") {
  const auto dash = [](const std::string& script) {
    return with_table([&](StateTable& t) {
      t.memory = {"fuel"};
      StateSpec state;
      state.name = "Dash";
      state.behaviour = Behaviour::Script;
      state.script = script;
      state.memory = {"fuel"};
      t.states.push_back(state);
      t.transitions.push_back({"Upright", "Dash", "climb.pressed", 95, 0.0, ""});
      t.transitions.push_back({"Dash", "Stand", "memory.fuel > 0.3", 10, 0.0, ""});
    });
  };
  SECTION("a dash of 0.3 s") {
    Driven d(Scene().floor().world(),
             dash("memory.fuel = memory.fuel + dt\nvelocity.forward = 12\nsteer(1, 0)"));
    d.go(0.2, {}).tap(Action::Climb);
    CHECK(d.now() == "Dash");
    d.go(0.2, {});
    CHECK(d.state.memory[0] == Approx(0.2 + 1.0 / 60).epsilon(1e-4));
    d.go(0.3, {});
    CHECK(d.now() == "Stand");
    CHECK(d.state.foot_C.z < -1.5);
    CHECK(d.told.empty());
  }
  SECTION("a mistake is told with its line, and the character falls back") {
    Driven d(Scene().floor().world(), dash("local fine = 1\nvelocity.forwards = 12"));
    d.go(0.2, {}).tap(Action::Climb);
    CHECK(d.now() != "Dash");
    REQUIRE(d.told.size() == 1);
    CHECK_THAT(d.told[0], Catch::Contains("Dash:2: a velocity has forward, right and up, but no 'forwards'"));
    CHECK(d.go(0.5, push(0, 1)).now() == "Walk");
  }
  SECTION("numbers that are none stay out of the state") {
    Driven d(Scene().floor().world(), dash("velocity.up = 0 / 0"));
    d.go(0.2, {}).tap(Action::Climb);
    CHECK(is_finite(d.state.velocity_C));
    CHECK_THAT(d.told.at(0), Catch::Contains("not finite"));
  }
}

TEST_CASE("A memory slot holds the number that is written") {
  for (const char* written : {"0.5", "0.1", "0.7", "2.3", "16777217", "1/3"}) {
    const std::string number = written;
    const Profile profile = with_table([&](StateTable& t) {
      t.memory = {"m"};
      t.states[0].on_entry = "memory.m = " + number;
      StateSpec kept;
      kept.name = "Kept";
      kept.like = t.states[0].name;
      t.states.push_back(kept);
      t.transitions.push_back({t.states[0].name, "Kept", "memory.m == " + number, 99, 0.0, ""});
    });
    Driven d(Scene().floor().world(), profile);
    d.go(0.1, push(0.0, 1.0)).go(2.0, {});
    INFO(number);
    CHECK(d.now() == "Kept");
  }
}

TEST_CASE("The state that a table begins in runs its entry action, again after a reset") {
  const Profile profile = with_table([](StateTable& t) {
    t.memory = {"begun", "entered"};
    for (StateSpec& s : t.states) s.on_entry = "memory.begun = 7\nmemory.entered = memory.entered + 1";
  });
  const TriangleWorld world = Scene().floor().world();
  for (const double height : {0.0, 2.0}) {
    CharacterState state = start_state(profile, {Vec3(0.0, height, 0.0)}, world);
    CHECK(state.memory[0] == 7.0);
    CHECK(state.memory[1] == 1.0);
    state = step(state, push(0.0, 1.0), profile, world, 1.0 / 60);
    const double more = state.memory[1];
    state = step(state, press(Action::Reset), profile, world, 1.0 / 60);
    CHECK(state.memory[1] == 1.0);
    CHECK(more >= 1.0);
  }
}

TEST_CASE("A name with a control character is refused, that of a state and that of a group") {
  const auto fault = [](const std::function<void(StateTable&)>& change) {
    StateTable table = built_in_states();
    change(table);
    const auto chart = StateChart::make(table);
    return chart ? std::string() : chart.error().sentence();
  };
  const std::string name("a\0b", 3);
  CHECK_THAT(fault([&](StateTable& t) { t.states[0].name = name; }), Catch::Contains("control characters"));
  CHECK_THAT(fault([&](StateTable& t) { t.states[0].group = name; }), Catch::Contains("control characters"));
}

TEST_CASE("A table goes through a file and back, and drives the same to the bit") {
  Profile named;
  named.states = built_in_chart();
  const auto text = profile_text(named);
  REQUIRE(text);
  const auto read = parse_profile(*text, "warden.profile.json");
  if (!read) FAIL(read.error().sentence());
  REQUIRE(read->states);
  CHECK(read->states->table() == built_in_states());
  CHECK(identity_of(*read) == identity_of(Profile{}));
  const TriangleWorld world = Scene().floor().block({0, 0, -4}, {3, 0.3, 2}).world();
  Random random(7);
  CharacterState a = start_state(*read, Home{}, world), b = start_state(Profile{}, Home{}, world);
  for (int i = 0; i < 2000; ++i) {
    InputFrame input = push(random.between(-1, 1), random.between(-1, 1));
    input.held.bits = static_cast<std::uint32_t>(random.below(1 << 4));
    input.pressed.bits = random.below(10) == 0 ? static_cast<std::uint32_t>(random.below(1 << 6)) : 0;
    a = step(a, input, *read, world, 1.0 / 60);
    b = step(b, input, Profile{}, world, 1.0 / 60);
    REQUIRE(hash_of(a) == hash_of(b));
  }
}

TEST_CASE("What is wrong in a table is told with its place") {
  const auto fault = [](const std::string& inner) {
    const auto read =
        parse_profile("{\"lagniappe\": \"profile\", \"version\": 1,\n" + inner + "}", "x.profile.json");
    return read ? std::string("taken") : read.error().sentence();
  };
  const std::string stand = "\"states\": [{\"name\": \"Stand\"}]";
  CHECK(fault(stand) == "taken");
  CHECK_THAT(fault("\"states\": []"), Catch::Contains("at least one state"));
  CHECK_THAT(fault("\"transitions\": []"), Catch::Contains("no states"));
  CHECK_THAT(fault("\"states\": [{\"name\": \"A\"}, {\"name\": \"A\"}]"), Catch::Contains("two states “A”"));
  CHECK_THAT(fault("\"states\": [{\"name\": \"A\", \"is\": \"B\"}, {\"name\": \"B\", \"is\": \"A\"}]"),
             Catch::Contains("like itself"));
  CHECK_THAT(fault("\"states\": [{\"name\": \"A\", \"set\": {\"ground.speed\": 2000}}]"),
             Catch::Contains("line 2"));
  CHECK_THAT(fault("\"states\": [{\"name\": \"A\", \"set\": {\"capsule.radius\": 1}}]"),
             Catch::Contains("stance"));
  CHECK_THAT(fault("\"states\": [{\"name\": \"A\", \"set\": {\"ground.speed\": {\"same\": \"gravity\"}}}]"),
             Catch::Contains("no value of the same kind"));
  CHECK_THAT(fault(stand + ", \"transitions\": [{\"from\": \"Stad\", \"to\": \"Stand\", \"when\": \"true\"}]"),
             Catch::Contains("did you mean “Stand”"));
  CHECK_THAT(
      fault(stand + ", \"transitions\": [{\"from\": \"Stand\", \"to\": \"Stand\", \"when\": \"intent >\"}]"),
      Catch::Contains("/transitions/0/when") && Catch::Contains("missing at the end"));
}

TEST_CASE("Random input leaves no standing capsule in a solid and no state without a way on") {
  const TriangleWorld world = Scene()
                                  .floor(12)
                                  .block({2, 0, -2}, {2, 1.2, 2})
                                  .block({-3, 1.25, -2}, {3, 1, 3})
                                  .ramp({0, 0, 5}, {3, 1.5, 4})
                                  .ramp({6, 0, 2}, {3, 4, 2})
                                  .world();
  Random random(11);
  for (const int hz : {30, 60, 144}) {
    INFO(hz << " ticks/s");
    const Profile profile;
    CharacterState state = start_state(profile, Home{}, world);
    InputFrame input;
    std::set<StateId> seen;
    int changes = 0;
    for (int i = 0; i < 12000; ++i) {
      input.pressed = {};
      if (random.below(12) == 0) {
        input.move = Vec2(random.between(-1, 1), random.between(-1, 1));
        const auto bits = static_cast<std::uint32_t>(random.below(1 << 4));
        input.pressed.bits = bits & ~input.held.bits;
        input.held.bits = bits;
      }
      input.look_delta = Vec2(random.between(-0.05, 0.05), 0.0);
      const StateId before = state.state;
      state = step(state, input, profile, world, 1.0 / hz);
      changes += state.state != before;
      seen.insert(state.state);
      REQUIRE(is_finite(state.foot_C));
      if (i % 5 == 0) REQUIRE(deepest_overlap(state, profile, world) <= profile.capsule.margin + 1e-6);
    }
    CHECK(seen.size() >= 8);
    CHECK(changes / (12000.0 / hz) < 12.0);  // Each second; the inputs change 2.5 to 12 times in one.
  }
}
