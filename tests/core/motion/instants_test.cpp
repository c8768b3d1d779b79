// SPDX-License-Identifier: MIT
// What is asked of landings, wind, jumps and steps, to the instant. Each tells of something that once went
// wrong.
#include <catch2/catch.hpp>

#include "lagniappe/handling.h"
#include "lagniappe/run_signals.h"
#include "support/forwarding_world.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr double kRamp = 2.3094;  // m up over 4 m: 30 degrees.

struct Ran {
  std::vector<CharacterState> states;
  std::vector<std::vector<LedgerEntry>> ledgers;

  template <typename Entry>
  std::vector<Entry> all() const {
    std::vector<Entry> found;
    for (const auto& entries : ledgers)
      for (const LedgerEntry& e : entries)
        if (const auto* one = std::get_if<Entry>(&e)) found.push_back(*one);
    return found;
  }
};

Ran ran(CharacterState state, const Profile& profile, const World& world, int hz, double seconds,
        const std::function<InputFrame(int)>& input) {
  Ran r;
  for (int i = 0; i < static_cast<int>(std::lround(seconds * hz)); ++i) {
    Ledger ledger;
    state = step(state, input(i), profile, world, 1.0 / hz, &ledger);
    r.states.push_back(state);
    r.ledgers.push_back(ledger.entries);
  }
  return r;
}

std::function<InputFrame(int)> jump_at(int tick, InputFrame frame) {
  return [=](int i) {
    InputFrame f = frame;
    f.pressed.set(Action::Jump, i == tick);
    f.held.set(Action::Jump, i == tick);
    return f;
  };
}

// A world with wind.
class Windy final : public ForwardingWorld {
 public:
  Windy(const World& world, const Vec3& wind) : ForwardingWorld(world), wind_(wind) {}
  Surroundings surroundings(const Vec3&, double) const override { return {wind_}; }

 private:
  Vec3 wind_;
};

Profile with_table(const StateTable& table, Profile profile = {}) {
  auto chart = StateChart::make(table);
  REQUIRE(chart);
  profile.states = *chart;
  return profile;
}

StateSpec& state_named(StateTable& table, const std::string& name) {
  return *std::find_if(table.states.begin(), table.states.end(),
                       [&](const StateSpec& s) { return s.name == name; });
}

}  // namespace

TEST_CASE("Landing on a slope keeps the speed along the ground, or projects it as the profile says") {
  const TriangleWorld up = Scene().floor().ramp({0, 0, -5}, {6, kRamp, 4}).world();
  const TriangleWorld down =
      Scene().floor().block({0, 0, 2}, {6, kRamp, 4}).ramp({0, 0, -2}, {6, kRamp, 4}, {180, 0, 0}).world();
  for (const int hz : {20, 60, 240}) {
    for (const bool uphill : {true, false}) {
      Profile p;
      p.air.response.acceleration = 0.0;  // Nothing is steered in the air.
      const TriangleWorld& world = uphill ? up : down;
      const Vec3 foot(0, uphill ? 0.0 : kRamp, uphill ? -0.5 : 3.2);
      const auto landed = [&](Profile::Ground::Landing how) {
        p.ground.landing = how;
        const Ran r = ran(start_state(p, {foot, Quat(1, 0, 0, 0), 0.0}, world), p, world, hz, 2.0,
                          jump_at(hz / 2, push(0, 1)));
        const auto all = r.all<entry::Landed>();
        REQUIRE_FALSE(all.empty());
        return all[0];
      };
      INFO(hz << " ticks/s, " << (uphill ? "up" : "down"));
      const entry::Landed kept = landed(Profile::Ground::Landing::Kept);
      CHECK(kept.before == Approx(4.0).epsilon(0.01));
      CHECK(kept.after == Approx(kept.before));
      const entry::Landed projected = landed(Profile::Ground::Landing::Projected);
      const double c = std::cos(radians(30.0)), s = std::sin(radians(30.0));
      CHECK(projected.after ==
            Approx(std::abs(projected.before * c + (uphill ? -1.0 : 1.0) * projected.fall * s)).epsilon(1e-3));
    }
  }
}

TEST_CASE(
    "A headwind slows who jumps against it, a storm blows back who stands in the air, still air does nothing") {
  for (const int hz : {20, 60, 240}) {
    INFO(hz << " ticks/s");
    Profile p;
    const TriangleWorld floor = Scene().floor().world();
    const auto flown = [&](const Vec3& wind, const InputFrame& pushed) {
      const Windy world(floor, wind);
      const Ran r = ran(start_state(p, Home{}, world), p, world, hz, 1.0, jump_at(hz / 2, pushed));
      std::vector<double> speeds;
      for (const CharacterState& s : r.states)
        if (!s.grounded()) speeds.push_back(-s.velocity_C.z);
      REQUIRE_FALSE(speeds.empty());
      return speeds.back();
    };
    CHECK(flown(Vec3(0.0), push(0, 1)) == Approx(4.0).epsilon(0.01));
    CHECK(flown(Vec3(0, 0, 6), push(0, 1)) < 0.0);  // Against 6 m/s of air one gets 2 m/s backwards.
    CHECK(flown(Vec3(0, 0, 6), push(0, 1)) > -2.01);
    CHECK(flown(Vec3(0, 0, 6), push(0, 0)) < -3.0);  // From a stand.
    CHECK(flown(Vec3(0, 0, 6), push(0, 0)) > -6.01);
    CHECK(std::abs(flown(Vec3(0, 0, 0.05), push(0, 0))) < 0.05);
  }
}

TEST_CASE("A jump is as high as it is set under the gravity of the state that it flies in") {
  for (const double factor : {0.0, 0.5, 2.0}) {
    StateTable table = built_in_states();
    state_named(table, "Fall").overrides.push_back({"gravity", Override::Kind::Times, factor, {}, {}});
    const Profile p = with_table(in_order(table));
    const TriangleWorld world = Scene().block({0, 20, 0}, {4, 1, 4}).world();
    CharacterState state = start_state(p, {Vec3(0, 21, 0), Quat(1, 0, 0, 0), 0.0}, world);
    while (state.grounded()) state = step(state, push(0, 1), p, world, 1.0 / 120);
    REQUIRE(chart_of(p).name_of(state.state) == "Fall");
    const double from = state.foot_C.y;
    Ledger ledger;
    InputFrame press = push(0, 1);
    press.pressed.set(Action::Jump, true);
    state = step(state, press, p, world, 1.0 / 120, &ledger);
    double highest = state.foot_C.y;
    while (chart_of(p).name_of(state.state) == "Rise") {
      state = step(state, push(0, 1), p, world, 1.0 / 120);
      highest = std::max(highest, state.foot_C.y);
    }
    INFO("gravity times " << factor << " in Fall");
    CHECK(highest - from == Approx(1.2).margin(0.002));
  }
}

TEST_CASE(
    "A press that a transition used is no jump on landing, and a script's own jump is not told as refused") {
  StateTable table = built_in_states();
  StateSpec glide;
  glide.name = "Glide";
  glide.group = "Airborne";
  glide.behaviour = Behaviour::Air;
  table.states.push_back(glide);
  table.transitions.push_back({"Fall", "Glide", "jump.pressed", 99, 0.0, ""});
  const Profile p = with_table(in_order(table));
  const TriangleWorld world = Scene().floor().world();
  const Ran r = ran(start_state(p, {Vec3(0, 0.4, 0), Quat(1, 0, 0, 0), 0.0}, world), p, world, 60, 1.0,
                    jump_at(8, push(0, 0)));
  CHECK(r.all<entry::Jump>().empty());
  CHECK(r.all<entry::JumpRefused>().empty());

  StateTable own = built_in_states();
  StateSpec hop;
  hop.name = "Hop";
  hop.behaviour = Behaviour::Script;
  hop.script = "if jump.since == 0 then jump() end";
  own.states.push_back(hop);
  own.transitions.push_back({"Stand", "Hop", "state_time > 0.1", 99, 0.0, ""});
  const Profile q = with_table(in_order(own));
  const Ran s = ran(start_state(q, Home{}, world), q, world, 60, 1.0, jump_at(30, push(0, 0)));
  CHECK(s.all<entry::Jump>().size() == 1);
  CHECK(s.all<entry::JumpRefused>().empty());
}

TEST_CASE("In the air, above the speed that the stick asks for, one still steers aside") {
  for (const double stick : {0.5, 0.95, 1.0}) {
    Profile p;
    p.look.dead_zone = 0.0;
    const TriangleWorld world = Scene().floor().world();
    CharacterState state = start_state(p, Home{}, world);
    InputFrame sprint = push(0, 1);
    sprint.held.set(Action::Sprint, true);
    for (int i = 0; i < 60; ++i) state = step(state, sprint, p, world, 1.0 / 60);
    sprint.pressed.set(Action::Jump, true);
    state = step(state, sprint, p, world, 1.0 / 60);
    for (int i = 0; i < 30; ++i)
      state = step(state, push(stick * std::sqrt(0.5), stick * std::sqrt(0.5)), p, world, 1.0 / 60);
    INFO(stick);
    CHECK(state.velocity_C.x > 2.0);
    // What goes along is kept: 6.5 m/s at 45 degrees.
    CHECK(dot(state.velocity_C, Vec3(std::sqrt(0.5), 0, -std::sqrt(0.5))) > 4.5);
  }
}

TEST_CASE("The time off the ground counts from every leaving, jumps too") {
  const Profile p;
  const TriangleWorld world = Scene().floor().world();
  const Signal* off = find_signal("off_ground");
  REQUIRE(off != nullptr);
  CharacterState before = start_state(p, Home{}, world), state = before;
  const InputFrame press = jump_at(0, push(0, 0))(0);
  state = step(before, press, p, world, 1.0 / 60);
  for (int i = 1; i < 30; ++i) {
    CHECK(off->value({before, state, press, p, world, 1.0 / 60, {state.time}}) == Approx(i / 60.0));
    before = state;
    state = step(before, push(0, 0), p, world, 1.0 / 60);
  }
}

TEST_CASE("An even flight tells each riser once, as high as it is") {
  const TriangleWorld world =
      Scene().floor().stairs({0, 0, -3}, 3, 0.18, 0.28, 6).block({0, 0, -5.7}, {3, 1.08, 2}).world();
  for (const int hz : {20, 60, 144, 240}) {
    for (const double stick : {0.6, 1.0}) {
      Profile p;
      const Ran r = ran(start_state(p, Home{}, world), p, world, hz, 4.0, [&](int) { return push(0, stick); });
      INFO(hz << " ticks/s, stick " << stick);
      const auto steps = r.all<entry::Step>();
      std::size_t taken = 0;
      for (const entry::Step& s : steps) {
        if (s.outcome != entry::Step::Outcome::Taken) continue;
        ++taken;
        CHECK(s.rise == Approx(0.18).margin(1e-6));
      }
      CHECK(taken == 6);
    }
  }
}

TEST_CASE("The deepest drop that is followed is the one that is set, at any rate and pace") {
  for (const int hz : {12, 24, 60, 240}) {
    for (const double pace : {0.4, 1.0, 1.6}) {
      for (const double drop : {0.345, 0.355}) {
        for (int shift = 0; shift < 5; ++shift) {
          Profile p;
          const TriangleWorld world =
              Scene().block({0, 0, 0}, {6, 2, 6}).block({0, 0, -8}, {6, 2 - drop, 10}).world();
          const auto input = [&](int) {
            InputFrame f = push(0, std::min(pace, 1.0));
            f.held.set(Action::Sprint, pace > 1.0);
            return f;
          };
          const Ran r = ran(start_state(p, {Vec3(0, 2, -0.5 + 0.031 * shift), Quat(1, 0, 0, 0), 0.0}, world), p,
                            world, hz, pace < 1.0 ? 4.0 : 1.4, input);
          INFO(hz << " ticks/s, pace " << pace << ", drop " << drop << ", shift " << shift);
          REQUIRE(r.states.back().foot_C.y == Approx(2 - drop));
          CHECK(r.all<entry::LeftGround>().size() == (drop > 0.35 ? 1u : 0u));
        }
      }
    }
  }
}

TEST_CASE("A state entered within a tick counts its time from then") {
  const Profile p;
  const TriangleWorld world = Scene().floor().world();
  // Dropped from 1 m: on the ground after this long.
  const double falls = std::sqrt(2.0 / p.gravity);
  for (const int hz : {12, 24, 60, 240}) {
    const Ran r = ran(start_state(p, {Vec3(0, 1, 0), Quat(1, 0, 0, 0), 0.0}, world), p, world, hz, 1.0,
                      [](int) { return push(0, 0); });
    const CharacterState& end = r.states.back();
    INFO(hz << " ticks/s");
    CHECK(end.state_time == Approx(1.0 - falls).margin(1e-6));
    CHECK(end.ground_time == Approx(1.0 - falls).margin(1e-5));
    const auto instants = r.all<entry::Instant>();
    REQUIRE(instants.size() == 1);
    CHECK(instants[0].why == entry::Instant::Why::Contact);
    CHECK(instants[0].at == Approx(falls - std::floor(falls * hz) / hz).margin(1e-6));
  }
}
