// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/drive_session.h"

#include <catch2/catch.hpp>

#include "support/places.h"

using namespace lagniappe;
using namespace lagniappe::app;

namespace {

struct Driven {
  DriveSession session;
  Driven() { session.set_place(test::floor_with()); }
  void frames(int count, double seconds) {
    for (int i = 0; i < count; ++i) session.advance(seconds);
  }
};

}  // namespace

TEST_CASE("A quick tap between two frames is one jump, not none and not two") {
  Driven d;
  d.frames(10, 1.0 / 60);
  d.session.hold(Action::Jump, true);
  d.session.hold(Action::Jump, false);
  d.frames(1, 1.0 / 60);
  CHECK(d.session.current().state == StateId::Rise);
  d.frames(120, 1.0 / 60);
  CHECK(d.session.current().state == StateId::Stand);
}

TEST_CASE("The look follows the mouse at once, between ticks and at any tick rate") {
  Driven d;
  d.session.set_tick_rate(10);
  d.frames(1, 0.001);
  const double before = d.session.look().x;
  d.session.turn_by(Vec2(100.0, 0.0));
  CHECK(degrees(d.session.look().x - before) == Approx(-12.0));
  CHECK(d.session.current().yaw == before);  // No tick has passed.
  d.frames(1, 0.1);
  CHECK(degrees(d.session.current().yaw) == Approx(-12.0));
  CHECK(degrees(d.session.look().x) == Approx(-12.0));  // Not turned twice.
}

TEST_CASE("Drawing is even between ticks, or as ticked") {
  Driven d;
  d.session.set_tick_rate(20);
  d.frames(20, 0.05);
  d.session.push(DriveSession::Push::Forward, true);
  d.frames(40, 0.05);
  const double one_tick = d.session.profile().ground.speed / 20.0;
  std::vector<double> even, stepped;
  for (int i = 0; i < 40; ++i) {
    const double z = d.session.pose().foot_C.z;
    d.session.set_drawing(*drawing_of("ticked"));
    const double z_tick = d.session.pose().foot_C.z;
    d.session.set_drawing(*drawing_of("interpolated"));
    d.frames(1, 0.0125);
    even.push_back(z - d.session.pose().foot_C.z);
    d.session.set_drawing(*drawing_of("ticked"));
    stepped.push_back(z_tick - d.session.pose().foot_C.z);
    d.session.set_drawing(*drawing_of("interpolated"));
  }
  for (const double moved : even) CHECK(moved == Approx(one_tick / 4.0).epsilon(1e-3));
  CHECK(*std::max_element(stepped.begin(), stepped.end()) == Approx(one_tick).epsilon(1e-3));
  CHECK(*std::min_element(stepped.begin(), stepped.end()) == Approx(0.0).margin(1e-9));
}

TEST_CASE("Pause, single tick and time scale") {
  Driven d;
  d.session.set_paused(true);
  d.frames(60, 1.0 / 60);
  CHECK(d.session.current().tick == 0);
  d.session.single_tick();
  CHECK(d.session.current().tick == 1);
  CHECK(d.session.last_ledger().entries.size() >= 2);
  d.session.set_paused(false);
  d.session.set_time_scale(0.25);
  d.frames(240, 1.0 / 60);
  CHECK(d.session.current().tick == Approx(61).margin(1));
}

TEST_CASE("Letting everything go stops a character that was walking") {
  Driven d;
  d.session.push(DriveSession::Push::Forward, true);
  d.session.hold(Action::Sprint, true);
  d.frames(60, 1.0 / 60);
  CHECK(d.session.current().state == StateId::Sprint);
  d.session.release_all();
  d.frames(120, 1.0 / 60);
  CHECK(d.session.current().state == StateId::Stand);
}

TEST_CASE("A hitch drops time, counts it, and does not make the session run after it") {
  Driven d;
  d.session.advance(5.0);
  CHECK(d.session.current().tick == 15);
  CHECK(d.session.dropped_seconds() == Approx(4.75));
}

TEST_CASE("A followed script gives what the command line would give") {
  Driven d;
  InputChange go;
  go.at = 0.5;
  go.move = Vec2(0.0, 1.0);
  const InputScript script{{go}};
  d.session.follow(script, 2.0);
  d.frames(150, 1.0 / 60);
  CHECK_FALSE(d.session.following());
  InputPlayer player(script, 60);
  std::vector<InputFrame> inputs;
  for (int i = 0; i < 120; ++i) inputs.push_back(player.next());
  std::vector<CharacterState> states;
  drive(d.session.shown().run.state(0), inputs, d.session.profile(), d.session.place()->world, 60,
        [&](const CharacterState& s, const Ledger*) { states.push_back(s); });
  // Each tick of the script to the bit; after it one runs out a little.
  const Run& run = d.session.shown().run;
  REQUIRE(run.ticks() > states.size());
  std::size_t differ = 0;
  for (std::size_t i = 0; i < states.size(); ++i) {
    const CharacterState &a = run.state(i + 1), &b = states[i];
    differ += a.foot_C != b.foot_C || a.velocity_C != b.velocity_C || a.state != b.state || a.yaw != b.yaw;
  }
  CHECK(differ == 0);
  CHECK(d.session.current().foot_C.z < states.back().foot_C.z);
}

TEST_CASE("The ledger is that of the last tick, also when the tick rate was changed since") {
  Driven d;
  d.session.push(DriveSession::Push::Forward, true);
  d.frames(30, 1.0 / 60);
  const auto swept = [&] {
    for (const LedgerEntry& e : d.session.last_ledger().entries) {
      if (const auto* sweep = std::get_if<entry::Sweep>(&e)) return length(sweep->motion_C);
    }
    return 0.0;
  };
  const double before = swept();
  CHECK(before == Approx(d.session.profile().ground.speed / 60.0).epsilon(0.02));
  d.session.set_paused(true);
  d.session.set_tick_rate(20);
  CHECK(swept() == before);
}
