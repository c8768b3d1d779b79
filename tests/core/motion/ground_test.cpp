// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const auto kNothing = [](double) { return InputFrame{}; };
const auto kForward = [](double) { return push(0, 1); };

Profile with_model(Response::Model model) {
  Profile profile;
  profile.ground.response.model = model;
  return profile;
}

}  // namespace

TEST_CASE("Five seconds of walking and turning are the same within a centimetre at every tick rate") {
  const TriangleWorld world = Scene().floor().world();
  for (const auto model : {Response::Model::Instant, Response::Model::Steady, Response::Model::Exponential,
                           Response::Model::Smooth}) {
    const Profile profile = with_model(model);
    // Looks elsewhere twice, at instants that all tick rates have.
    const auto walk = [](double t) {
      InputFrame input = t < 2.0 ? push(0, 1) : t < 3.5 ? push(0.6, 0.3) : InputFrame{};
      if (t >= 1.0) input.look = Vec2(t < 2.5 ? 0.7 : -1.9, 0.0);
      return input;
    };
    const CharacterState start = start_state(profile, Home{}, world);
    CHECK(start.state == StateId::Stand);
    const CharacterState reference = run(start, profile, world, 480, 5.0, walk);
    CHECK(reference.foot_C.z < -5.0);
    CHECK(std::abs(reference.foot_C.x) > 1.0);
    for (const int hz : tick_rates()) {
      INFO(hz << " ticks/s, model " << int(model));
      const CharacterState end = run(start, profile, world, hz, 5.0, walk);
      CHECK(length(end.foot_C - reference.foot_C) < 0.01);
    }
  }
}

TEST_CASE("Walking from a stand is the closed form of its response") {
  const TriangleWorld world = Scene().floor().world();
  Profile profile = with_model(Response::Model::Exponential);
  for (const int hz : tick_rates()) {
    INFO(hz << " ticks/s");
    const CharacterState stand = step(standing_at(profile, {0, 0, 0}), {}, profile, world, 1.0 / hz);
    const CharacterState end = run(stand, profile, world, hz, 5.0, kForward);
    const double tau = profile.ground.response.time, v = profile.ground.speed;
    CHECK(-end.foot_C.z == Approx(v * 5.0 - v * tau * (1.0 - std::exp(-5.0 / tau))).margin(1e-6));
    CHECK(end.foot_C.y == Approx(0.0).margin(1e-9));
  }
}

TEST_CASE("A diagonal is no faster, and half a push is half the speed") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  const auto speed = [&](double right, double forward) {
    return length(run(standing_at(profile, {0, 0, 0}), profile, world, 60, 2.0, [&](double) {
                    return push(right, forward);
                  }).velocity_C);
  };
  CHECK(speed(0, 1) == Approx(profile.ground.speed).epsilon(1e-6));
  CHECK(speed(1, 1) == Approx(profile.ground.speed).epsilon(1e-6));
  const double half = profile.look.dead_zone + 0.5 * (1.0 - profile.look.dead_zone);
  CHECK(speed(0, half) == Approx(0.5 * profile.ground.speed).epsilon(1e-6));
  CHECK(speed(0.1, 0.0) == 0.0);
}

TEST_CASE("Up and down a walkable slope the speed along the surface is the ground speed, and contact is kept") {
  const Profile profile;
  for (const double angle : {15.0, 30.0, 44.0}) {
    const double depth = 4.0 / std::tan(radians(angle));
    const TriangleWorld world =
        Scene().floor().ramp({0, 0, -depth / 2}, {6, 4, depth}).block({0, 0, -depth - 20}, {6, 4, 40}).world();
    for (const int hz : tick_rates()) {
      INFO(angle << " degrees, " << hz << " ticks/s");
      bool airborne = false;
      const auto watch = [&](const CharacterState& s) { airborne = airborne || !s.grounded(); };
      CharacterState state = step(standing_at(profile, {0, 0, 1}), {}, profile, world, 1.0 / hz);
      // 1 m of run-up and half of the slope.
      state = run(state, profile, world, hz, (1.4 + 2.0 / std::sin(radians(angle))) / profile.ground.speed,
                  kForward, watch);
      CHECK(length(state.velocity_C) == Approx(profile.ground.speed).epsilon(1e-4));
      CHECK(degrees(std::acos(state.ground.normal_C.y)) == Approx(angle).margin(1e-6));
      state = run(state, profile, world, hz, 4.0, kForward, watch);
      CHECK(state.foot_C.y == Approx(4.0).margin(1e-6));
      state = run(
          state, profile, world, hz, 9.0, [](double) { return push(0, -1); }, watch);
      CHECK(state.foot_C.y == Approx(0.0).margin(1e-6));
      CHECK_FALSE(airborne);
    }
  }
}

TEST_CASE("Standing on a walkable slope does not creep") {
  const Profile profile;
  const TriangleWorld world = Scene().ramp({0, 0, 0}, {6, 4, 6}).world();
  CharacterState state = run(standing_at(profile, {0.3, 2.6, 0.2}), profile, world, 60, 2.0, kNothing);
  REQUIRE(state.state == StateId::Stand);
  const Vec3 before = state.foot_C;
  state = run(state, profile, world, 60, 30.0, kNothing);
  CHECK(length(state.foot_C - before) < 1e-9);
}

TEST_CASE("A slope that is too steep is judged so, cannot be walked up, and is slid down") {
  const Profile profile;
  const double depth = 4.0 / std::tan(radians(55.0));
  const TriangleWorld world = Scene().floor().ramp({0, 0, -2 - depth / 2}, {6, 4, depth}).world();
  double highest = 0.0;
  run(standing_at(profile, {0, 0, 0}), profile, world, 60, 4.0, kForward,
      [&](const CharacterState& s) { highest = std::max(highest, s.foot_C.y); });
  CHECK(highest < 0.01);

  CharacterState state = standing_at(profile, {0, 3.5, -2 - 0.6 * depth});
  bool skidded = false;
  state = run(state, profile, world, 60, 3.0, kNothing,
              [&](const CharacterState& s) { skidded = skidded || s.ground.verdict == Verdict::Steep; });
  CHECK(skidded);
  CHECK(state.foot_C.y == Approx(0.0).margin(1e-6));
  CHECK(state.state == StateId::Stand);
}

TEST_CASE("Stairs are walked up and down without leaving the ground, at every tick rate and speed") {
  Profile profile;
  const TriangleWorld world =
      Scene().floor().stairs({0, 0, -3.4}, 3, 0.18, 0.28, 10).block({0, 0, -9.8}, {3, 1.8, 10}).world();
  for (const bool sprint : {false, true}) {
    for (const int hz : {20, 30, 60, 144, 240}) {
      INFO(hz << " ticks/s, sprint " << sprint);
      bool airborne = false;
      double slowest = 99.0;
      const auto drive_to = [&](double forward) {
        InputFrame input = push(0, forward);
        input.held.set(Action::Sprint, sprint);
        return [=](double) { return input; };
      };
      CharacterState state = step(standing_at(profile, {0, 0, 0}), {}, profile, world, 1.0 / hz);
      double begun = 0.0;
      const auto watch = [&](const CharacterState& s) {
        airborne = airborne || !s.grounded();
        // Turning round takes its time.
        if (s.time - begun > 0.8) slowest = std::min(slowest, length(s.velocity_C));
      };
      state = run(state, profile, world, hz, sprint ? 1.3 : 2.0, drive_to(1), watch);
      CHECK(state.foot_C.y == Approx(1.8).margin(1e-6));
      begun = state.time;
      state = run(state, profile, world, hz, 2.5, drive_to(-1), watch);
      CHECK(state.foot_C.y == Approx(0.0).margin(1e-6));
      CHECK(slowest > 0.97 * (sprint ? profile.ground.sprint_speed : profile.ground.speed));
      CHECK_FALSE(airborne);
    }
  }
}

TEST_CASE("The verdict on a step is the same at every tick rate, with no run-up at all") {
  Profile profile;
  profile.ground.highest_step = 0.34;
  for (const int hz : {30, 60, 144, 240}) {
    for (const double rise : {0.10, 0.25, 0.33, 0.35, 0.60}) {
      INFO(hz << " ticks/s, rise " << rise);
      const TriangleWorld world = Scene().floor().block({0, 0, -2.3}, {4, rise, 4}).world();
      CharacterState state = step(standing_at(profile, {0, 0, 0}), {}, profile, world, 1.0 / hz);
      state = run(state, profile, world, hz, 0.6, kForward);
      CHECK(state.foot_C.y == Approx(rise < 0.34 ? rise : 0.0).margin(1e-6));
    }
  }
}

TEST_CASE("A step is refused without head room and without a tread") {
  const Profile profile;
  const auto climbs = [&](const TriangleWorld& world) {
    const CharacterState stand = step(standing_at(profile, {0, 0, 0}), {}, profile, world, 1.0 / 60);
    return run(stand, profile, world, 60, 1.0, kForward).foot_C.y > 0.1;
  };
  CHECK(climbs(Scene().floor().block({0, 0, -2.5}, {4, 0.25, 4}).world()));
  CHECK_FALSE(
      climbs(Scene().floor().block({0, 0, -2.5}, {4, 0.25, 4}).block({0, 1.9, -2}, {4, 0.2, 5}).world()));
  CHECK_FALSE(
      climbs(Scene().floor().block({0, 0, -2.5}, {4, 0.25, 4}).block({0, 0, -2.55}, {4, 3.0, 4}).world()));
  CHECK_FALSE(
      climbs(Scene().floor().ramp({0, 0, -0.8}, {4, 0.3, 0.15}).block({0, 0, -2.875}, {4, 3.0, 4}).world()));
}

TEST_CASE("Walking off a ledge keeps the speed and starts falling without a kick") {
  const Profile profile = with_model(Response::Model::Instant);
  const TriangleWorld world = Scene().floor().block({0, 0, 0}, {4, 3, 4}).world();
  CharacterState state = step(standing_at(profile, {0, 3, 0}), {}, profile, world, 1.0 / 60);
  bool first = true;
  run(state, profile, world, 60, 1.2, kForward, [&](const CharacterState& s) {
    if (s.grounded() || !first) return;
    first = false;
    CHECK(-s.velocity_C.z == Approx(profile.ground.speed).epsilon(1e-3));
    // Since the instant at which it was left.
    CHECK(s.velocity_C.y == Approx(-profile.gravity * s.since_grounded));
    CHECK(s.since_grounded < 1.0 / 60.0);
  });
  CHECK_FALSE(first);
}

TEST_CASE("The drawn foot follows a step smoothly and settles on the true foot") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().block({0, 0, -2.5}, {4, 0.3, 4}).world();
  CharacterState state = step(standing_at(profile, {0, 0, 0}), {}, profile, world, 1.0 / 60);
  double before = 0.0, steepest = 0.0, largest = 0.0;
  state = run(state, profile, world, 60, 1.0, kForward, [&](const CharacterState& s) {
    const double drawn = s.foot_C.y + s.eye_offset;
    steepest = std::max(steepest, drawn - before);
    largest = std::max(largest, std::abs(s.eye_offset));
    before = drawn;
  });
  CHECK(state.foot_C.y == Approx(0.3).margin(1e-6));
  CHECK(steepest < 0.1);
  CHECK(largest <= profile.ground.snap_distance);
  CHECK(std::abs(state.eye_offset) < 1e-3);
}

TEST_CASE("Reset and leaving the limits put the character back home and count the tick on") {
  const Profile profile;
  TriangleWorld::Builder builder;
  builder.begin_piece("island");
  for (const Triangle& t : triangles_of({"island", {0, -1, 0}, Vec3(0.0), "", shape::Block{{4, 1, 4}}}))
    builder.add(t);
  const TriangleWorld world = builder.commit({Box{{-50, -5, -50}, {50, 50, 50}}});
  CharacterState state = standing_at(profile, {0, 0, 1}, radians(90));
  state = run(state, profile, world, 60, 1.0, kForward);
  CHECK(state.foot_C.x < -1.0);
  const CharacterState reset = step(state, press(Action::Reset), profile, world, 1.0 / 60);
  CHECK(reset.foot_C == Vec3(0, 0, 1));
  CHECK(reset.yaw == radians(90));
  CHECK(reset.tick == state.tick + 1);
  state = run(state, profile, world, 60, 2.0, kForward);
  CHECK(state.times_put_home >= 1);
}
