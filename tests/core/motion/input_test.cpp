// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>

#include "motion/look.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

TEST_CASE("The dead zone is round, continuous at its rim, and keeps direction") {
  const double zone = 0.2;
  CHECK(shaped_stick({0.14, 0.14}, zone) == Vec2(0.0));
  CHECK(glm::length(shaped_stick({0.2000001, 0.0}, zone)) < 1e-6);
  CHECK(glm::length(shaped_stick({0.0, 1.0}, zone)) == Approx(1.0));
  CHECK(glm::length(shaped_stick({1.0, 1.0}, zone)) == Approx(1.0));
  CHECK(glm::length(shaped_stick({0.6, 0.0}, zone)) == Approx(0.5));
  for (double a = 0.0; a < 6.28; a += 0.1) {
    const Vec2 raw(0.7 * std::cos(a), 0.7 * std::sin(a)), shaped = shaped_stick(raw, zone);
    CHECK(shaped.x * raw.y - shaped.y * raw.x == Approx(0.0).margin(1e-12));
  }
  CHECK(shaped_stick({std::nan(""), 1.0}, zone) == Vec2(0.0));
}

TEST_CASE("A mouse turns by what it moved, a stick by rate times time") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  for (const int hz : {20, 60, 240}) {
    CharacterState state = standing_at(profile, {0, 0, 0});
    InputFrame once;
    once.look_delta = mouse_look(profile.look, Vec2(100.0, -50.0));
    state = step(state, once, profile, world, 1.0 / hz);
    CHECK(degrees(state.yaw) == Approx(-12.0));  // To the right is negative yaw.
    CHECK(degrees(state.pitch) == Approx(6.0));

    InputFrame stick;
    stick.turn_rate = stick_turn_rate(profile.look, Vec2(-1.0, 0.0));
    state = run(state, profile, world, hz, 0.5, [&](double) { return stick; });
    CHECK(degrees(state.yaw) == Approx(-12.0 + 100.0));
  }
}

TEST_CASE("Pitch is limited, yaw wraps, and an absolute look comes before the turn") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  const auto turned = [&](const InputFrame& input) {
    return step(standing_at(profile, Vec3(0.0)), input, profile, world, 0.1);
  };
  InputFrame input;
  input.look_delta = Vec2(radians(200.0), radians(500.0));
  CHECK(degrees(turned(input).yaw) == Approx(-160.0));
  CHECK(turned(input).pitch == profile.look.highest_pitch);
  input = {};
  input.look = Vec2(radians(10.0), 0.0);
  input.turn_rate = Vec2(radians(100.0), 0.0);
  CHECK(degrees(turned(input).yaw) == Approx(20.0));
}

TEST_CASE("The body turns towards where it goes at its own rate") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  const auto left = [](double) { return push(-1, 0); };
  CharacterState state = run(standing_at(profile, {0, 0, 0}), profile, world, 60, 0.05, left);
  CHECK(degrees(state.facing) == Approx(36.0));
  state = run(state, profile, world, 60, 1.0, left);
  CHECK(degrees(state.facing) == Approx(90.0));
}

TEST_CASE("Axes are inverted one by one, and the look stick's push is raised to its power") {
  Profile::Look look;
  const Vec2 plain = mouse_look(look, Vec2(10, 20));
  look.invert_pitch = true;
  CHECK(mouse_look(look, Vec2(10, 20)) == Vec2(plain.x, -plain.y));
  CHECK(stick_turn_rate(look, Vec2(0, 1)).y == Approx(-look.stick_pitch));
  look.invert_yaw = true;
  CHECK(mouse_look(look, Vec2(10, 20)) == -plain);
  CHECK(stick_turn_rate(look, Vec2(1, 0)).x == Approx(look.stick_yaw));
  look = {};
  look.dead_zone = 0.0;
  look.stick_power = 2.0;
  const Vec2 half = stick_turn_rate(look, Vec2(0.3, 0.4));
  CHECK(half.x == Approx(-0.25 * 0.6 * look.stick_yaw));
  CHECK(half.y == Approx(0.25 * 0.8 * look.stick_pitch));
  CHECK(stick_turn_rate(look, Vec2(0.0)) == Vec2(0.0));
}
