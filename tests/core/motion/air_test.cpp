// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>

#include "lagniappe/handling.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const auto kNothing = [](double) { return InputFrame{}; };

InputFrame jump_at(double when, double t, int hz) {
  return std::abs(t - when) < 0.5 / hz ? press(Action::Jump) : InputFrame{};
}

}  // namespace

TEST_CASE("A fall of 10 m follows the parabola at every tick rate") {
  Profile profile;
  const TriangleWorld world = Scene().floor().world();
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    int n = 0;
    const CharacterState end =
        run(standing_at(profile, {0, 10, 0}), profile, world, hz, 1.5, kNothing, [&](const CharacterState& s) {
          const double t = ++n / double(hz);
          const double expected = std::max(10.0 - 0.5 * profile.gravity * t * t, 0.0);
          CHECK(s.foot_C.y == Approx(expected).margin(1e-9));
          CHECK(s.grounded() == (expected == 0.0));
        });
    CHECK(end.state == StateId::Stand);
    CHECK(length(end.velocity_C) == 0.0);
  }
}

TEST_CASE("A jump follows its parabola, whose apex is the profile's height") {
  Profile profile;
  profile.jump.height = 1.37;
  const TriangleWorld world = Scene().floor().world();
  const double speed = take_off_speed(profile.gravity, 1.37);
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    std::vector<CharacterState> states = {standing_at(profile, {0, 0, 0})};
    run(
        states.front(), profile, world, hz, 2.0, [&](double t) { return jump_at(0.5, t, hz); },
        [&](const CharacterState& s) {
          states.push_back(s);
          const double t = double(s.tick) / hz - 0.5;
          const double expected = t > 0.0 ? std::max(speed * t - 0.5 * profile.gravity * t * t, 0.0) : 0.0;
          CHECK(s.foot_C.y == Approx(expected).margin(1e-9));
        });
    CHECK(summarize(states, hz).highest_point == Approx(1.37).margin(0.001));
    CHECK(summarize(states, hz).airtime == Approx(2.0 * speed / profile.gravity).margin(1.0 / hz + 1e-9));
  }
}

TEST_CASE("A fall reaches the terminal speed and no more") {
  Profile profile;
  profile.terminal_speed = 12.0;
  const TriangleWorld world = Scene().world();
  const CharacterState end = run(standing_at(profile, {0, 0, 0}), profile, world, 60, 5.0, kNothing);
  const double until = 12.0 / profile.gravity;
  CHECK(end.velocity_C.y == Approx(-12.0));
  CHECK(end.foot_C.y == Approx(-0.5 * 12.0 * until - 12.0 * (5.0 - until)));
}

TEST_CASE("A ceiling ends the rise and is not entered") {
  Profile profile;
  const TriangleWorld world = Scene().floor().block({0, 2.2, 0}, {4, 0.5, 4}).world();
  double highest = 0.0;
  run(
      standing_at(profile, {0, 0, 0}), profile, world, 60, 1.0, [](double t) { return jump_at(0.1, t, 60); },
      [&](const CharacterState& s) { highest = std::max(highest, s.foot_C.y); });
  // Met within a tick, at whose end it has fallen for less than one.
  CHECK(highest < 0.4 + 1e-9);
  CHECK(highest > 0.4 - 0.5 * profile.gravity / (60.0 * 60.0));
}

TEST_CASE("The jump is remembered before landing and forgiven after the edge") {
  Profile profile;
  profile.jump.buffer = 0.10;
  profile.jump.coyote_time = 0.10;
  const double fall = std::sqrt(2.0 * 2.0 / profile.gravity);  // From 2 m.
  const auto rises_after_landing = [&](double early, int hz) {
    const TriangleWorld world = Scene().floor().world();
    bool rose = false;
    run(
        standing_at(profile, {0, 2, 0}), profile, world, hz, fall + 0.4,
        [&](double t) { return jump_at(fall - early, t, hz); },
        [&](const CharacterState& s) { rose = rose || s.state == StateId::Rise; });
    return rose;
  };
  const auto rises_after_edge = [&](double late, int hz) {
    const TriangleWorld world = Scene().block({0, -1, 0}, {4, 1, 4}).world();
    double left = -1.0;
    bool rose = false;
    run(
        standing_at(profile, {0, 0, 0}), profile, world, hz, 1.5,
        [&](double t) {
          return left >= 0.0 && std::abs(t - left - late) < 0.5 / hz ? press(Action::Jump) : push(0, 1);
        },
        [&](const CharacterState& s) {
          if (left < 0.0 && s.state == StateId::Fall && s.tick > 2) left = double(s.tick) / hz;
          rose = rose || s.state == StateId::Rise;
        });
    return rose;
  };
  for (const int hz : {60, 144, 240}) {
    INFO(hz << " ticks/s");
    CHECK(rises_after_landing(0.07, hz));
    CHECK_FALSE(rises_after_landing(0.14, hz));
    CHECK(rises_after_edge(0.07, hz));
    CHECK_FALSE(rises_after_edge(0.14, hz));
  }
}

TEST_CASE("An air jump is as high as it is set, however fast the fall, and is counted") {
  Profile profile;
  profile.jump.air_jumps = 1;
  const TriangleWorld world = Scene().world();
  CharacterState state = run(standing_at(profile, {0, 0, 0}), profile, world, 60, 1.0, kNothing);
  const double from = state.foot_C.y;
  double highest = from;
  state = run(
      state, profile, world, 60, 1.0,
      [](double t) { return t == 0.0 || t == 0.5 ? press(Action::Jump) : InputFrame{}; },
      [&](const CharacterState& s) { highest = std::max(highest, s.foot_C.y); });
  CHECK(highest - from == Approx(profile.jump.height).margin(0.01));
  CHECK(state.air_jumps_used == 1);
}

TEST_CASE("Steering in the air reaches the air speed and keeps a faster run-up") {
  Profile profile;
  const TriangleWorld world = Scene().world();
  CharacterState state =
      run(standing_at(profile, {0, 0, 0}), profile, world, 60, 2.0, [](double) { return push(0, 1); });
  CHECK(-state.velocity_C.z == Approx(profile.air.speed));
  state.velocity_C = Vec3(0, 0, -9.0);
  state.run_up_speed = 9.0;
  state = run(state, profile, world, 60, 1.0, [](double) { return push(0, 1); });
  CHECK(-state.velocity_C.z == Approx(9.0));
  state = run(state, profile, world, 60, 1.0, kNothing);
  CHECK(-state.velocity_C.z == Approx(9.0));  // Nothing wished: the velocity is kept.
}

TEST_CASE("Flying goes where the look goes, up and down on its buttons, and ends in a fall") {
  Profile profile;
  const TriangleWorld world = Scene().floor().world();
  CharacterState state = step(standing_at(profile, {0, 1, 0}), press(Action::Fly), profile, world, 1.0 / 60);
  CHECK(state.state == StateId::Fly);
  InputFrame up = push(0, 0);
  up.held.set(Action::Jump, true);
  state = run(state, profile, world, 60, 1.0, [&](double) { return up; });
  CHECK(state.velocity_C.y == Approx(profile.fly.speed).epsilon(1e-4));
  state.pitch = radians(30.0);
  state = run(state, profile, world, 60, 1.0, [](double) { return push(0, 1); });
  CHECK(state.velocity_C.y == Approx(0.5 * profile.fly.speed).epsilon(1e-3));
  state = step(state, press(Action::Fly), profile, world, 1.0 / 60);
  CHECK((state.state == StateId::Fall || state.state == StateId::Rise));
}
