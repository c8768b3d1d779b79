// SPDX-License-Identifier: MIT
// Responses: closed forms, equal curves at any tick rate, and what happens above the set speed.
#include "motion/respond.h"

#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Follows = Response::Model;

MovedSmooth in_ticks(const Response& r, Vec3 v, Vec3 target, bool wished, double seconds, int ticks,
                     const Vec3& growth = Vec3(0.0)) {
  MovedSmooth all{v, Vec3(0.0), Vec3(0.0)};
  for (int i = 0; i < ticks; ++i) {
    const MovedSmooth one =
        respond(r, all.velocity, all.acceleration, {target, growth}, wished, 1.0, seconds / ticks);
    all = {one.velocity, one.acceleration, all.displacement + one.displacement};
    target += growth * (seconds / ticks);
  }
  return all;
}

}  // namespace

TEST_CASE("Turning round has rates of its own until the velocity stands, to the instant, at any tick rate") {
  for (const Follows model : {Follows::Steady, Follows::Exponential, Follows::Smooth}) {
    Response r{model, 10.0, 20.0, 0.3, 0.2, 40.0, 0.1};
    for (const Vec3& v : {Vec3(-5, 0, 0), Vec3(-3, 0, 2), Vec3(4, 0, 0), Vec3(-0.01, 0, 0)}) {
      const Vec3 target(4, 0, 0);
      const MovedSmooth whole = in_ticks(r, v, target, true, 0.4, 1);
      for (const int ticks : {3, 8, 24, 96}) {
        const MovedSmooth cut = in_ticks(r, v, target, true, 0.4, ticks);
        INFO(int(model) << ", " << ticks << " ticks");
        CHECK(length(cut.velocity - whole.velocity) < 1e-9);
        CHECK(length(cut.displacement - whole.displacement) < 1e-9);
      }
    }
  }
  // Steady: 5 m/s against the intent are braked at 40, then 4 m/s are gained at 10.
  const Response steady{Follows::Steady, 10.0, 20.0, 0.3, 0.2, 40.0, 0.1};
  const Vec3 target(4, 0, 0);
  CHECK(length(in_ticks(steady, Vec3(-5, 0, 0), target, true, 5.0 / 40.0, 1).velocity) < 1e-12);
  CHECK(in_ticks(steady, Vec3(-5, 0, 0), target, true, 5.0 / 40.0 + 0.2, 7).velocity.x == Approx(2.0));
}

TEST_CASE("A target that turns is followed as small steps of the equation follow it") {
  Random random(12);
  for (int trial = 0; trial < 60; ++trial) {
    const auto model = static_cast<Follows>(1 + trial % 3);
    const double time = random.between(0.05, 0.5), steady = random.between(5.0, 40.0), seconds = 0.1;
    const Response r{model, steady, steady, time, time, steady, time};
    const double rate = random.between(-6.0, 6.0), angle = random.between(-1.5, 1.5);
    const Vec3 target(4, 0, 0), v = 3.9 * Vec3(std::cos(angle), 0.0, std::sin(angle));
    const MovedSmooth moved =
        respond(r, v, Vec3(0.0), {target, Vec3(0.0), Vec3(0, rate, 0)}, true, 1.0, seconds);
    // dv/dt, or of a smooth one d2v/dt2, by the midpoint rule; a turn about y takes x to -z.
    Vec3 at = v, rise(0.0), way(0.0);
    constexpr int kSteps = 40000;
    const double h = seconds / kSteps, w = 2.0 / time;
    for (int i = 0; i < kSteps; ++i) {
      const double turned = rate * (i + 0.5) * h;
      const Vec3 gap = 4.0 * Vec3(std::cos(turned), 0.0, -std::sin(turned)) - at;
      const Vec3 before = at;
      if (model == Follows::Steady) at += gap * std::min(steady * h / std::max(length(gap), 1e-12), 1.0);
      if (model == Follows::Exponential) at += gap * (h / time);
      if (model == Follows::Smooth) rise += (gap * (w * w) - rise * (2.0 * w)) * h, at += rise * h;
      way += (before + at) * (0.5 * h);
    }
    INFO("model " << int(model) << ", time " << time << ", " << steady << " m/s2, " << rate << " rad/s");
    CHECK(length(moved.velocity - at) < 2e-3);
    CHECK(length(moved.displacement - way) < 2e-4);
    // In parts it is the same.
    Vec3 parted = v, rose(0.0), gone(0.0);
    for (int i = 0; i < 7; ++i) {
      const Vec3 turned = glm::angleAxis(rate * seconds * i / 7.0, Vec3(0, 1, 0)) * target;
      const MovedSmooth on =
          respond(r, parted, rose, {turned, Vec3(0.0), Vec3(0, rate, 0)}, true, 1.0, seconds / 7.0);
      parted = on.velocity, rose = on.acceleration, gone += on.displacement;
    }
    const double within = model == Follows::Steady ? 2e-4 : 1e-9;
    CHECK(length(gone - moved.displacement) < within);
  }
}

TEST_CASE("A target that whirls round thousands of times in a tick is followed no faster than one can go") {
  for (const Follows model : {Follows::Instant, Follows::Steady, Follows::Exponential, Follows::Smooth}) {
    const Response r{model, 20.0, 20.0, 0.1, 0.1, 20.0, 0.1};
    const Vec3 target(4, 0, 0), v(1, 0, 0);
    const MovedSmooth on = respond(r, v, Vec3(0.0), {target, Vec3(0.0), Vec3(0, 1e6, 0)}, true, 1.0, 0.05);
    INFO("model " << int(model));
    CHECK(length(on.velocity) <= 4.0 + 1e-9);
    CHECK(length(on.displacement) <= 4.0 * 0.05 + 1e-9);
    if (model == Follows::Steady) CHECK(length(on.velocity - v) <= 20.0 * 0.05 + 1e-9);
    if (model == Follows::Exponential) CHECK(length(on.velocity) < 1.0);  // Of the whirl nothing is left.
  }
}

TEST_CASE("Faster than the set speed one is slowed down, not clamped, and steers meanwhile") {
  const Response r{Follows::Exponential, 30.0, 40.0, 0.05, 0.5, 30.0, 0.05};
  const Vec3 target(0, 0, -4), fast(0, 0, -12);
  const Vec3 after = in_ticks(r, fast, target, true, 0.25, 15).velocity;
  CHECK(after.z == Approx(-4.0 - 8.0 * std::exp(-0.25 / 0.5)));
  // Wishing aside turns the velocity aside.
  const Vec3 aside = in_ticks(r, fast, Vec3(4, 0, 0), true, 0.25, 15).velocity;
  CHECK(aside.x > 3.5);
}

TEST_CASE(
    "In the air a velocity above the air speed is kept along the intent and turned by steering, never raised") {
  Profile profile;
  TriangleWorld::Builder nothing;
  const TriangleWorld world = nothing.commit({Box{Vec3(-1e5), Vec3(1e5)}});
  CharacterState state = start_state(profile, {Vec3(0, 5e4, 0), Quat(1, 0, 0, 0), 0.0});
  state.velocity_C = Vec3(0, 0, -20.0);
  const CharacterState straight = run(state, profile, world, 60, 1.0, [](double) { return push(0, 1); });
  CHECK(-straight.velocity_C.z == Approx(20.0));
  Random random(3);
  double fastest = 0.0;
  run(
      state, profile, world, 60, 20.0,
      [&](double) { return push(random.between(-1, 1), random.between(-1, 1)); },
      [&](const CharacterState& s) { fastest = std::max(fastest, length(across(s.velocity_C, s.up_C()))); });
  CHECK(fastest < 20.0 + 1e-9);
}
