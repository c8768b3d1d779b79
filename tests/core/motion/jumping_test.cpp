// SPDX-License-Identifier: MIT
// When a jump happens, and what refuses it.
#include <catch2/catch.hpp>

#include "lagniappe/handling.h"
#include "lagniappe/ledger.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Why = entry::JumpRefused::Why;
using From = entry::Jump::From;

template <typename Entry>
std::vector<Entry> entries_of(const Ledger& ledger) {
  std::vector<Entry> found;
  for (const LedgerEntry& entry : ledger.entries) {
    if (const auto* e = std::get_if<Entry>(&entry)) found.push_back(*e);
  }
  return found;
}

// A drive tick by tick, for inputs that depend on what happened.
struct Drive {
  const Profile& profile;
  const World& world;
  int hz;
  CharacterState state;
  Ledger ledger;

  const CharacterState& tick(InputFrame frame = {}) {
    ledger.entries.clear();
    state = step(state, frame, profile, world, 1.0 / hz, &ledger);
    return state;
  }
  void ticks(int count, const InputFrame& frame = {}) {
    for (int i = 0; i < count; ++i) tick(frame);
  }
  std::vector<entry::Jump> jumps() const { return entries_of<entry::Jump>(ledger); }
  std::vector<entry::JumpRefused> refused() const { return entries_of<entry::JumpRefused>(ledger); }
};

InputFrame pressed_along(double forward) {
  InputFrame frame = push(0, forward);
  frame.pressed.set(Action::Jump, true);
  return frame;
}

}  // namespace

TEST_CASE("The coyote time counts from the instant at which the ground is left, at every rate") {
  const TriangleWorld world = Scene().block({0, -1, 0}, {4, 1, 4}).world();
  for (const int hz : tick_rates()) {
    for (const double window : {0.0, 0.004, 0.03, 0.12, 0.25}) {
      Profile p;
      p.jump.coyote_time = window;
      double left_for = 0.0;  // At the end of the tick that left it.
      const auto jumps_after = [&](int ticks) {
        Drive d{p, world, hz, standing_at(p, {0, 0, 0}), {}};
        d.ticks(2, push(0, 1));
        while (d.state.grounded()) d.tick(push(0, 1));
        left_for = d.state.since_grounded;
        d.ticks(ticks, push(0, 1));
        d.tick(pressed_along(1));
        return d.jumps().size() == 1;
      };
      int good = 0;
      while (good < 200 && jumps_after(good)) ++good;
      INFO(hz << " ticks/s, window " << window << " s: " << good << " ticks");
      CHECK(left_for < 1.0 / hz);
      // All ticks that begin in the window, and no other.
      CHECK(good == (window <= left_for ? 0 : int(std::floor((window - left_for) * hz + 1e-9)) + 1));
    }
  }
}

TEST_CASE("The buffer counts from the press to the instant of landing, at every rate") {
  const TriangleWorld world = Scene().floor().world();
  for (const int hz : tick_rates()) {
    for (const double window : {0.0, 0.004, 0.03, 0.12, 0.25}) {
      Profile p;
      p.jump.buffer = window;
      // The tick that lands, counted from a drop.
      Drive drop{p, world, hz, standing_at(p, {0, 3, 0}), {}};
      int lands = 0;
      while (!drop.tick().grounded()) ++lands;
      const auto jumps_before = [&](int ticks) {
        Drive d{p, world, hz, standing_at(p, {0, 3, 0}), {}};
        d.ticks(lands - ticks);
        d.tick(press(Action::Jump));
        bool jumped = !d.jumps().empty();
        for (int i = 0; i < ticks + 3; ++i) d.tick(), jumped = jumped || !d.jumps().empty();
        return jumped;
      };
      int good = 0;
      while (good < lands && jumps_before(good)) ++good;
      INFO(hz << " ticks/s, window " << window << " s: " << good << " ticks");
      const double falls = std::sqrt(2.0 * 3.0 / p.gravity), into_tick = falls - double(lands) / hz;
      CHECK(good == (window <= into_tick ? 0 : int(std::floor((window - into_tick) * hz + 1e-9)) + 1));
    }
  }
}

TEST_CASE("A remembered press jumps once, and a jump is never followed by a late one") {
  const TriangleWorld world = Scene().floor().world();
  for (const int hz : tick_rates()) {
    Profile p;
    p.jump.buffer = p.jump.coyote_time = 0.5;
    Drive d{p, world, hz, standing_at(p, {0, 0.3, 0}), {}};
    d.tick(press(Action::Jump));
    std::size_t jumps = 0;
    double seconds = 0.0;
    for (; seconds < 2.0; seconds += 1.0 / hz) d.tick(), jumps += d.jumps().size();
    CHECK(jumps == 1);
    // Pressing all the time after the jump: refused in the air, remembered for the landing, never late.
    d.tick(press(Action::Jump));
    REQUIRE(d.jumps().size() == 1);
    int flying = 0;
    for (d.tick(press(Action::Jump)); d.jumps().empty(); d.tick(press(Action::Jump))) {
      ++flying;
      REQUIRE(d.refused().size() == 1);
      CHECK(d.refused()[0].why == Why::NoGround);
      CHECK(d.refused()[0].remembered == 0.5);
    }
    // Off again at the instant of landing, within the tick.
    CHECK(flying == int(std::floor(2.0 * take_off_speed(p.gravity, p.jump.height) / p.gravity * hz)) - 1);
    CHECK(d.jumps()[0].from == From::Ground);
  }
}

TEST_CASE("The number of jumps that is set is the number one gets, from the ground and off an edge") {
  const TriangleWorld world = Scene().block({0, 99, 0}, {4, 1, 4}).world();
  for (const int hz : {20, 60, 240}) {
    for (const int air_jumps : {0, 1, 3}) {
      for (const bool edge_uses_first : {true, false}) {
        Profile p;
        p.jump.air_jumps = air_jumps;
        p.jump.edge_uses_first = edge_uses_first;
        const auto count = [&](bool off_edge) {
          Drive d{p, world, hz, standing_at(p, {0, 100, 0}), {}};
          d.ticks(2, push(0, 1));
          std::size_t jumps = 0;
          if (off_edge) {
            while (d.state.grounded()) d.tick(push(0, 1));
            d.ticks(hz / 4 + 1, push(0, 1));  // Well beyond the coyote time.
          }
          std::vector<Why> why;
          for (int i = 0; i < 8; ++i) {
            d.tick(pressed_along(1));
            jumps += d.jumps().size();
            for (const auto& r : d.refused()) why.push_back(r.why);
            d.ticks(2, push(0, 1));
          }
          CHECK(why.size() == 8 - jumps);
          for (const Why w : why) CHECK(w == (air_jumps > 0 ? Why::AirJumpsUsed : Why::NoGround));
          return int(jumps);
        };
        INFO(air_jumps << " air jumps, edge uses the first: " << edge_uses_first);
        CHECK(count(false) == 1 + air_jumps);
        CHECK(count(true) == air_jumps + (edge_uses_first ? 0 : 1));
      }
    }
  }
}

TEST_CASE("A press without head room is refused, says so, and stays on the ground") {
  Profile p;
  const TriangleWorld low = Scene().floor().block({0, 1.81, 0}, {4, 1, 4}).world();
  Drive d{p, low, 60, standing_at(p, {0, 0, 0}), {}};
  d.ticks(3);
  d.tick(press(Action::Jump));
  REQUIRE(d.refused().size() == 1);
  CHECK(d.refused()[0].why == Why::NoHeadRoom);
  CHECK(d.state.grounded());
  const TriangleWorld higher = Scene().floor().block({0, 1.9, 0}, {4, 1, 4}).world();
  Drive room{p, higher, 60, standing_at(p, {0, 0, 0}), {}};
  room.ticks(3);
  room.tick(press(Action::Jump));
  CHECK(room.jumps().size() == 1);
}

TEST_CASE("A ceiling ends the rise, or throws some of it back, and nothing hangs below it") {
  const TriangleWorld world = Scene().floor().block({0, 2.3, 0}, {6, 1, 6}).world();
  for (const double back : {0.0, 0.4}) {
    Profile p;
    p.jump.head_bump = back;
    p.jump.apex_speed = 3.0;
    p.jump.apex_factor = 0.1;
    Drive d{p, world, 120, standing_at(p, {0, 0, 0}), {}};
    d.ticks(2);
    d.tick(press(Action::Jump));
    std::vector<entry::HeadBump> bumps;
    while (bumps.empty()) d.tick(), bumps = entries_of<entry::HeadBump>(d.ledger);
    CHECK(bumps[0].thrown_back == Approx(back * bumps[0].speed));
    // At the instant; from there on it falls.
    const double fell = -back * bumps[0].speed - d.state.velocity_C.y;
    CHECK(fell >= 0.0);
    CHECK(fell <= p.gravity / 120.0);
    const double before = d.state.velocity_C.y;
    d.tick();
    CHECK(before - d.state.velocity_C.y == Approx(p.gravity / 120.0));  // Not a tenth of it.
  }
}

TEST_CASE("A press while skidding is refused, and remembered or not as is set; from a skid if allowed") {
  const double angle = radians(60.0);
  const TriangleWorld world = Scene().floor().ramp({0, 0, -10}, {10, 10.0 * std::tan(angle), 10}).world();
  const auto skidding = [&](const Profile& p) {
    Drive d{p, world, 60, standing_at(p, {0, 3.0 * std::tan(angle) + 0.6, -8}), {}};
    while (d.state.state != StateId::Skid || d.state.grounded()) d.tick();
    return d;
  };
  Profile p;
  p.jump.buffer = 5.0;
  for (const bool remembers : {true, false}) {
    p.jump.remember_on_skid = remembers;
    Drive d = skidding(p);
    d.tick(press(Action::Jump));
    REQUIRE(d.refused().size() == 1);
    CHECK(d.refused()[0].why == Why::Skidding);
    CHECK(d.refused()[0].remembered == (remembers ? 5.0 : 0.0));
    bool jumped = false;
    for (int i = 0; i < 240; ++i) d.tick(), jumped = jumped || !d.jumps().empty();
    CHECK(jumped == remembers);
  }
  p.jump.from_skid = true;
  Drive d = skidding(p);
  d.tick(press(Action::Jump));
  REQUIRE(d.jumps().size() == 1);
  CHECK(d.jumps()[0].from == From::Skid);
}

TEST_CASE("A skid does not stop the coyote time") {
  const double angle = radians(60.0);
  Profile p;
  p.jump.coyote_time = 0.2;
  // A slope that is too steep, over nothing.
  const TriangleWorld world = Scene().ramp({0, 40, 0}, {10, 10.0 * std::tan(angle), 10}).world();
  Drive d{p, world, 60, standing_at(p, {0, 40 + 4.0 * std::tan(angle) + 0.6, 1}), {}};
  d.state.may_jump_late = true;
  while (d.state.ground.verdict != Verdict::Steep) d.tick();
  while (d.state.ground.verdict == Verdict::Steep) d.tick();
  d.tick(press(Action::Jump));
  CHECK(d.jumps().empty());
  CHECK(d.state.since_grounded > 0.3);
}

TEST_CASE("A wall that is pushed against in the air is jumped off once, then the other one") {
  Profile p;
  p.jump.height = 5.0;
  p.jump.from_wall = true;
  p.jump.wall_push = 5.0;
  p.jump.buffer = 0.0;
  const TriangleWorld world =
      Scene().floor().block({0, 0, -1.75}, {6, 30, 2}).block({0, 0, 1.75}, {6, 30, 2}).world();
  Drive d{p, world, 60, standing_at(p, {0, 0, 0}), {}};
  d.ticks(2);
  d.tick(pressed_along(1));
  REQUIRE(d.jumps().size() == 1);
  while (d.state.wall_normal_C.z <= 0.0) d.tick(push(0, 1));
  d.tick(pressed_along(1));
  REQUIRE(d.jumps().size() == 1);
  CHECK(d.jumps()[0].from == From::Wall);
  CHECK(d.state.velocity_C.y == Approx(take_off_speed(p.gravity, p.jump.height) - p.gravity / 60.0));
  // Back at the same wall: refused, and told why.
  while (d.state.wall_normal_C.z <= 0.0) d.tick(push(0, 1));
  d.tick(pressed_along(1));
  REQUIRE(d.refused().size() == 1);
  CHECK(d.refused()[0].why == Why::SameWall);
  while (d.state.wall_normal_C.z >= 0.0 && !d.state.grounded()) d.tick(push(0, -1));
  REQUIRE_FALSE(d.state.grounded());
  d.tick(pressed_along(-1));
  REQUIRE(d.jumps().size() == 1);
  CHECK(d.jumps()[0].from == From::Wall);
  p.jump.from_wall = false;
  while (d.state.wall_normal_C.z <= 0.0 && !d.state.grounded()) d.tick(push(0, 1));
  REQUIRE_FALSE(d.state.grounded());
  d.tick(pressed_along(1));
  CHECK(d.jumps().empty());
}

TEST_CASE("A held button repeats only if it is set to") {
  const TriangleWorld world = Scene().floor().world();
  for (const bool repeats : {false, true}) {
    Profile p;
    p.jump.held_repeats = repeats;
    p.jump.height = 0.4;
    InputFrame held;
    held.held.set(Action::Jump, true);
    InputFrame first = held;
    first.pressed.set(Action::Jump, true);
    Drive d{p, world, 60, standing_at(p, {0, 0, 0}), {}};
    d.ticks(2);
    d.tick(first);
    std::size_t jumps = 0;
    for (int i = 0; i < 120; ++i) d.tick(held), jumps += d.jumps().size();
    CHECK(jumps == (repeats ? 5u : 0u));
  }
}

TEST_CASE("Letting go cuts a jump once, and pressing again in the air does not give it back") {
  Profile p;
  p.jump.lowest_share = 0.4;
  const TriangleWorld world = Scene().floor().world();
  Drive d{p, world, 120, standing_at(p, {0, 0, 0}), {}};
  d.ticks(2);
  InputFrame held;
  held.held.set(Action::Jump, true);
  InputFrame down = held;
  down.pressed.set(Action::Jump, true);
  d.tick(down);
  std::size_t cuts = 0;
  double highest = 0.0;
  for (int i = 0; i < 200; ++i) {
    d.tick(i % 4 == 0 ? InputFrame{} : held);
    cuts += entries_of<entry::JumpCut>(d.ledger).size();
    highest = std::max(highest, d.state.foot_C.y);
  }
  CHECK(cuts == 1);
  CHECK(highest == Approx(jump_arc(p, 0, 1.0 / 120.0).height).margin(1e-3));
}
