// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

TEST_CASE("Uneven frames give the ticks that their time holds") {
  for (const int rate : {10, 30, 60, 144, 480}) {
    FixedStepClock clock(rate);
    Random random(rate);
    double time = 0.0;
    long ticks = 0;
    for (int i = 0; i < 5000; ++i) {
      const double frame = random.between(0.0005, 0.05);
      time += frame;
      ticks += clock.advance(frame);
      CHECK(clock.blend() >= 0.0);
      CHECK(clock.blend() < 1.0 + 1e-9);
    }
    CHECK(std::abs(ticks - time * rate) <= 1.0);
    CHECK(clock.dropped_seconds() == 0.0);
  }
}

TEST_CASE("Frames as long as a tick give one tick each") {
  FixedStepClock clock(60);
  for (int i = 0; i < 10000; ++i) CHECK(clock.advance(1.0 / 60) == 1);
}

TEST_CASE("A long hitch is caught up with only so far, and the rest is counted") {
  FixedStepClock clock(60, 0.25);
  CHECK(clock.advance(3.0) == 15);
  CHECK(clock.dropped_seconds() == Approx(2.75));
  CHECK(clock.advance(-1.0) == 0);
  CHECK(clock.advance(std::nan("")) == 0);
  CHECK(clock.advance(std::numeric_limits<double>::infinity()) == 0);
  clock.clear();
  CHECK(clock.dropped_seconds() == 0.0);
}

TEST_CASE("A change of rate keeps the share of a tick that was waited for") {
  FixedStepClock clock(20);
  clock.advance(0.025);
  CHECK(clock.blend() == Approx(0.5));
  clock.set_tick_rate(100);
  CHECK(clock.blend() == Approx(0.5));
  CHECK(clock.waiting_seconds() == Approx(0.005));
}

TEST_CASE("Drawing goes evenly from one tick to the next, and jumps when put home") {
  const Profile profile;
  CharacterState a = standing_at(profile, {0, 0, 0}), b = a;
  b.foot_C = Vec3(1, 0, 0);
  b.facing = radians(170.0);
  a.facing = radians(-170.0);
  CHECK(interpolate(a, b, 0.25).foot_C.x == Approx(0.25));
  CHECK(std::abs(degrees(interpolate(a, b, 0.5).facing)) == Approx(180.0));
  b.frame_CB = glm::angleAxis(radians(60.0), Vec3(0, 0, 1));
  CHECK(length(interpolate(a, b, 0.5).up_C() - glm::angleAxis(radians(30.0), Vec3(0, 0, 1)) * Vec3(0, 1, 0)) <
        1e-9);
  b.times_put_home = 1;
  CHECK(interpolate(a, b, 0.25).foot_C.x == 1.0);
}

TEST_CASE("The drawn look is the tick's look and what was turned since") {
  Profile profile;
  CharacterState state = standing_at(profile, {0, 0, 0});
  state.yaw = radians(179.0);
  const Vec2 look = drawn_look(state, Vec2(radians(2.0), radians(400.0)), profile.look);
  CHECK(degrees(look.x) == Approx(-179.0));
  CHECK(look.y == profile.look.highest_pitch);
}

TEST_CASE("On a turntable the drawn look turns evenly between ticks") {
  CharacterState state;
  state.yaw = radians(10.0);
  state.carried_yaw = radians(4.0);
  const Profile profile;
  for (const double blend : {0.0, 0.25, 1.0}) {
    CHECK(degrees(drawn_look(state, Vec2(0.0), profile.look, blend).x) == Approx(6.0 + 4.0 * blend));
  }
}
