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

TEST_CASE("A key that pushes counts from the instant at which it went down or up") {
  Driven d;
  d.session.set_tick_rate(20);
  d.frames(20, 0.05);
  d.session.push(DriveSession::Push::Forward, true, 0.0125);
  d.frames(2, 0.05);
  d.session.push(DriveSession::Push::Left, true, 0.025);
  d.frames(1, 0.05);
  d.session.push(DriveSession::Push::Forward, false, 0.0375);
  d.session.push(DriveSession::Push::Left, false, 0.0375);
  d.frames(2, 0.05);
  const std::vector<InputFrame>& inputs = d.session.shown().take.inputs;
  REQUIRE(inputs.size() == 25);
  const Vec2 expected[] = {{0, 0.75}, {0, 1}, {-0.5, 1}, {-0.75, 0.75}, {0, 0}};
  for (std::size_t i = 0; i < 5; ++i) {
    Vec2 mean(0.0);
    for (double share = 0.0; share < 1.0;) {
      const SticksUntil sticks = sticks_at(inputs[20 + i], share);
      mean += sticks.move * (double(sticks.until) - share);
      share = sticks.until;
    }
    INFO(i << ": " << mean.x << " " << mean.y);
    CHECK(length(mean - expected[i]) < 1e-7);
  }
  CHECK(sticks_at(inputs[20], 0.2).move == Vec2(0.0));
  CHECK(sticks_at(inputs[20], 0.3).move == Vec2(0.0, 1.0));
}

// Of the same hands: the ticks are recorded as ever, and the body in the frame is beside them.
TEST_CASE(
    "What moves in the frame itself goes the ticks' way, whatever the frames, and begins anew where they do") {
  for (const int rate : {20, 60, 120}) {
    Driven ticked, framed;
    std::vector<double> off;
    framed.session.set_drawing(*drawing_of("in-frame"));
    for (Driven* d : {&ticked, &framed}) {
      DriveSession& session = d->session;
      session.set_tick_rate(rate);
      for (int i = 0; i < 400; ++i) {
        const double frame = i == 300 ? 0.13 : i % 3 == 0 ? 0.004 : 0.0113;  // One hitch.
        if (i == 20) session.push(DriveSession::Push::Forward, true, 0.001);
        if (i == 90 || i == 200) session.hold(Action::Jump, true, 0.003);
        if (i == 130 || i == 202) session.hold(Action::Jump, false, 0.002);
        if (i >= 150 && i < 190) session.turn_by(Vec2(6.0, 0.0));
        if (i == 260) session.steer({{0.5, 0.5}, {0.3, 0.0}}, 0.002);
        if (i == 330) session.push(DriveSession::Push::Forward, false, 0.002);
        if (i == 340) session.steer({}, 0.0);
        session.advance(frame);
        if (d == &ticked) continue;
        REQUIRE(session.in_frame());
        CHECK(session.moment().time == Approx(session.drawn_state().time));
        if (i > 30) off.push_back(length(session.drawn_state().foot_C - session.exact_foot_C()));
      }
    }
    INFO(rate << " ticks/s");
    // At rest again. A mouse turns evenly over a tick, or over a frame: some ms sooner or later, at 4 m/s.
    INFO(off.back() << ", at most " << *std::max_element(off.begin(), off.end()));
    CHECK(*std::max_element(off.begin(), off.end()) < 0.015);
    CHECK(ticked.session.current().foot_C == framed.session.current().foot_C);
    CHECK(ticked.session.shown().take.inputs.size() == framed.session.shown().take.inputs.size());
    CHECK(length(framed.session.current().foot_C) > 5.0);
    // Time stands still: the ticks' body alone. It goes on from there.
    framed.session.set_paused(true);
    CHECK_FALSE(framed.session.in_frame());
    framed.frames(1, 0.01);
    framed.session.set_paused(false);
    framed.frames(1, 0.01);
    REQUIRE(framed.session.in_frame());
    CHECK(length(framed.session.drawn_state().foot_C - framed.session.current().foot_C) < 1e-3);
    framed.session.hold(Action::Reset, true);
    framed.frames(3, 1.0 / rate);
    CHECK(length(framed.session.drawn_state().foot_C - framed.session.current().foot_C) < 1e-3);
  }
}

TEST_CASE("What is pressed in a long frame whose end is dropped waits for neither body longer than the frame") {
  Driven d;
  d.session.set_drawing(*drawing_of("in-frame"));
  d.frames(30, 1.0 / 60);
  REQUIRE(d.session.in_frame());
  d.session.hold(Action::Jump, true, 0.9);
  d.frames(1, 1.0);  // Three quarters of it are dropped.
  d.frames(2, 1.0 / 60);
  CHECK(d.session.current().state == StateId::Rise);
  CHECK(d.session.drawn_state().state == StateId::Rise);
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

TEST_CASE("A stick stands as it stood in each part of a tick, by its own instants") {
  HeldSticks sticks;
  Profile::Look look;
  InputFrame tick;
  sticks.set({{0.0, 1.0}, {0.0, 0.0}}, 0.01);
  sticks.set({{0.0, 0.5}, {1.0, 0.0}}, 0.03);
  sticks.set({{0.0, 0.0}, {0.0, 0.0}}, 0.07);
  // Told too late: no earlier than what came before it.
  sticks.set({{1.0, 0.0}, {0.0, 0.0}}, 0.02);
  // As far as the drawn look turns, and no farther.
  CHECK(sticks.turned(0.04, look).x == Approx(-radians(2.0)));
  sticks.deal(0.04, look, tick);
  CHECK(sticks_at(tick, 0.0).move == Vec2(0.0));
  CHECK(sticks_at(tick, 0.0).until == Approx(0.25f));
  CHECK(sticks_at(tick, 0.25).move == Vec2(0.0, 1.0));
  CHECK(sticks_at(tick, 0.25).until == Approx(0.75f));
  CHECK(tick.move == Vec2(0.0, 0.5));
  CHECK(degrees(turned_until(tick, 1.0, 0.04).x) == Approx(-0.01 * 200.0));
  CHECK(sticks.turned(0.01, look).x == Approx(-radians(2.0)));
  sticks.deal(0.04, look, tick);
  CHECK(sticks_at(tick, 0.0).move == Vec2(0.0, 0.5));
  CHECK(sticks_at(tick, 0.0).until == Approx(0.75f));
  CHECK(tick.move == Vec2(1.0, 0.0));
  sticks.deal(0.04, look, tick);
  CHECK(sticks_at(tick, 0.0).move == Vec2(1.0, 0.0));
  CHECK(sticks_at(tick, 0.0).until == 1.0f);
  CHECK(turned_until(tick, 1.0, 0.04) == Vec2(0.0));
}

TEST_CASE("A look stick turns as far at any tick rate, seen between ticks too, and never twice") {
  for (const int rate : {10, 20, 60, 144, 240}) {
    INFO(rate << " ticks/s");
    Driven d;
    d.session.set_tick_rate(rate);
    d.frames(1, 0.001);
    d.session.steer({{0.0, 0.0}, {1.0, 0.0}});
    const double begun = d.session.look().x, per_frame = -200.0 / 1000.0;  // Degrees; 200 a second.
    for (int frame = 1; frame <= 300; ++frame) {
      d.frames(1, 0.001);
      REQUIRE(degrees(d.session.look().x - begun) == Approx(per_frame * frame).margin(1e-6));
    }
    d.session.steer({});
    d.frames(200, 0.001);
    CHECK(degrees(d.session.look().x - begun) == Approx(per_frame * 300).margin(1e-6));
  }
}

TEST_CASE(
    "Of keys and a stick the farther push counts, and a recording says which devices drove from when on") {
  Driven d;
  d.frames(10, 1.0 / 60);
  d.session.drive_with("Brass Pad");
  d.frames(10, 1.0 / 60);
  CHECK(d.session.shown().take.devices.empty());  // Nothing was done with it.
  d.session.steer({{0.0, 0.1}, {0.05, 0.0}});     // A stick that does not come quite to its middle.
  d.frames(10, 1.0 / 60);
  CHECK(d.session.shown().take.devices.empty());
  CHECK_FALSE(is_worth_keeping(d.session.shown()));
  d.session.steer({{0.0, 0.56}, {0.0, 0.0}});  // Half, without the dead zone.
  d.frames(60, 1.0 / 60);
  CHECK(length(d.session.current().velocity_C) == Approx(0.5 * d.session.profile().ground.speed).epsilon(1e-3));
  const std::size_t at = d.session.shown().run.ticks();
  d.session.drive_with("keys and mouse");
  d.session.push(DriveSession::Push::Right, true);
  d.frames(60, 1.0 / 60);
  CHECK(length(d.session.current().velocity_C) == Approx(d.session.profile().ground.speed).epsilon(1e-3));
  CHECK(dot(d.session.current().velocity_C, Vec3(1.0, 0.0, 0.0)) > 0.99 * d.session.profile().ground.speed);
  d.session.release_all();
  d.frames(60, 1.0 / 60);
  CHECK(length(d.session.current().velocity_C) < 1e-3);
  CHECK(d.session.shown().take.devices ==
        std::vector<DeviceUse>{{30, "Brass Pad"}, {std::uint64_t(at), "keys and mouse"}});
}

TEST_CASE("A stick that moves while time stands still counts only for where it is when time goes on") {
  Driven d;
  d.frames(1, 1.0 / 60);
  d.session.set_paused(true);
  d.session.steer({{1.0, 0.0}, {1.0, 0.0}});
  const Vec2 look = d.session.look();
  d.frames(20, 1.0 / 60);
  CHECK(d.session.look() == look);
  d.session.steer({{0.0, 1.0}, {0.0, 0.0}});
  d.frames(5, 1.0 / 60);
  d.session.single_tick();
  CHECK(d.session.shown().take.inputs.back().move == Vec2(0.0, 1.0));
  CHECK(d.session.shown().take.inputs.back().turn_rate == Vec2(0.0));
}
