// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>

#include "motion/slide.h"
#include "support/allocations.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const auto kForward = [](double) { return push(0, 1); };

}  // namespace

TEST_CASE("Clipping against planes leaves the nearest vector that goes into none") {
  Planes planes;
  CHECK(planes.clip(Vec3(1, 2, 3)).vector_C == Vec3(1, 2, 3));
  planes.add(Vec3(0, 1, 0));
  CHECK(planes.clip(Vec3(1, -2, 3)).vector_C == Vec3(1, 0, 3));
  planes.add(Vec3(1, 0, 0));
  CHECK(planes.clip(Vec3(-1, -2, 3)).vector_C == Vec3(0, 0, 3));
  CHECK(planes.clip(Vec3(-1, -2, 3)).kind == entry::Slide::Kind::Crease);
  planes.add(Vec3(0, 0, -1));
  CHECK(planes.clip(Vec3(-1, -2, 3)).kind == entry::Slide::Kind::Stop);
  Random random(5);
  for (int i = 0; i < 2000; ++i) {
    Planes many;
    std::vector<Vec3> normals;
    for (int k = 0; k < 3; ++k) {
      normals.push_back(random.direction());
      many.add(normals.back());
    }
    const Vec3 v = random.point(1.0), clipped = many.clip(v).vector_C;
    for (const Vec3& n : normals) CHECK(dot(clipped, n) > -1e-8);
    CHECK(length(clipped) <= length(v) + 1e-12);
    CHECK(dot(clipped, v) > -1e-12);
  }
}

TEST_CASE("Pushing slantwise along a wall goes on at the share of speed that the profile keeps for the angle") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().block({0, 0, -3}, {60, 3, 1}).world();
  for (const double yaw : {20.0, 45.0, 70.0}) {
    for (const int hz : tick_rates()) {
      INFO("yaw " << yaw << ", " << hz << " ticks/s");
      CharacterState state = step(standing_at(profile, {0, 0, 0}, radians(yaw)), {}, profile, world, 1.0 / hz);
      state = run(state, profile, world, hz, 4.0, kForward);
      CHECK(state.foot_C.z == Approx(-2.5 + profile.capsule.radius).margin(1e-6));
      CHECK(length(state.foot_C - run(state, profile, world, hz, 1.0, kForward).foot_C) ==
            Approx(profile.ground.speed * profile.walls.kept.at(90.0 - yaw)).margin(0.005));
      CHECK(state.foot_C.y == Approx(0.0).margin(1e-9));
    }
  }
}

TEST_CASE("Pushed into a corner of any angle the character holds still") {
  const Profile profile;
  for (const double angle : {30.0, 60.0, 90.0, 120.0}) {
    Scene scene;
    scene.floor();
    for (const double side : {-1.0, 1.0}) {
      const double a = radians(side * angle / 2);
      scene.block({std::sin(a) * 2.5, 0, -4 + std::cos(a) * 2.5}, {0.3, 2.5, 5}, {side * angle / 2, 0, 0});
    }
    const TriangleWorld world = scene.world();
    for (const int hz : tick_rates()) {
      INFO(angle << " degrees, " << hz << " ticks/s");
      CharacterState state =
          step(standing_at(profile, {0.05, 0, 0.5}, radians(2.0)), {}, profile, world, 1.0 / hz);
      state = run(state, profile, world, hz, 4.0, kForward);
      const Vec3 before = state.foot_C;
      double farthest = 0.0;
      run(state, profile, world, hz, 3.0, kForward, [&](const CharacterState& s) {
        farthest = std::max(farthest, length(s.foot_C - before));
        CHECK(s.state == StateId::Walk);
      });
      CHECK(farthest < 1e-6);
      CHECK(deepest_overlap(state, profile, world) < 1e-6);
    }
  }
}

TEST_CASE("Walking into a cliff or under a slanted roof lifts or presses nobody") {
  const Profile profile;
  const TriangleWorld cliff = Scene().floor().block({0, 0, -3}, {20, 4, 2}, {0, -15, 0}).world();
  const TriangleWorld roof = Scene().floor().block({0, 1.2, -3}, {20, 0.3, 6}, {0, -25, 0}).world();
  for (const TriangleWorld* world : {&cliff, &roof}) {
    CharacterState state = step(standing_at(profile, {0, 0, 3}), {}, profile, *world, 1.0 / 60);
    state = run(state, profile, *world, 60, 4.0, kForward, [&](const CharacterState& s) {
      CHECK(s.foot_C.y == Approx(0.0).margin(1e-6));
      CHECK(s.grounded());
    });
    CHECK(deepest_overlap(state, profile, *world) < 1e-6);
  }
}

TEST_CASE("A floor cut into many triangles is walked like one") {
  const Profile profile;
  Random random(3);
  Scene cut;
  std::vector<Vec3> grid;
  const int n = 30;
  for (int j = 0; j <= n; ++j) {
    for (int i = 0; i <= n; ++i) {
      const bool inside = i > 0 && j > 0 && i < n && j < n;
      grid.emplace_back(i - n / 2 + (inside ? random.between(-0.4, 0.4) : 0.0), 0.0,
                        j - n / 2 + (inside ? random.between(-0.4, 0.4) : 0.0));
    }
  }
  for (int j = 0; j < n; ++j) {
    for (int i = 0; i < n; ++i) {
      const Vec3 &a = grid[j * (n + 1) + i], &b = grid[j * (n + 1) + i + 1], &c = grid[(j + 1) * (n + 1) + i],
                 &d = grid[(j + 1) * (n + 1) + i + 1];
      cut.triangle({a, c, b});
      cut.triangle({b, c, d});
    }
  }
  const TriangleWorld pieces = cut.world(), whole = Scene().floor().world();
  const auto wander = [](double t) { return push(std::sin(0.7 * t), std::cos(1.1 * t)); };
  const CharacterState stand = step(standing_at(profile, {0, 0, 0}), {}, profile, whole, 1.0 / 60);
  const CharacterState a =
      run(stand, profile, pieces, 60, 20.0, wander, [](const CharacterState& s) { CHECK(s.slides == 0); });
  const CharacterState b = run(stand, profile, whole, 60, 20.0, wander);
  CHECK(length(a.foot_C - b.foot_C) < 1e-9);
}

TEST_CASE("Nothing passes a sheet of one layer at 200 m/s") {
  Profile profile;
  profile.terminal_speed = 400.0;
  Random random(9);
  const double half = 60.0;
  const TriangleWorld world = Scene()
                                  .triangle({{-half, 0, -half}, {half, 0, -half}, {half, 0, half}})
                                  .triangle({{-half, 0, -half}, {half, 0, half}, {-half, 0, half}})
                                  .world();
  for (int i = 0; i < 2000; ++i) {
    const int hz = tick_rates()[random.below(5)];
    CharacterState state =
        standing_at(profile, Vec3(random.between(-5, 5), random.between(0.5, 15.0), random.between(-5, 5)));
    state.velocity_C =
        glm::normalize(Vec3(random.between(-1, 1), -random.between(0.05, 1), random.between(-1, 1))) * 200.0;
    state = run(state, profile, world, hz, 0.25, [](double) { return InputFrame{}; });
    CHECK(state.foot_C.y > -profile.capsule.margin);
  }
}

TEST_CASE("A start inside a solid is pushed out, or reported") {
  const Profile profile;
  const TriangleWorld floor = Scene().floor().block({0, 0, -1.2}, {4, 2, 2}).world();
  CharacterState state = step(standing_at(profile, {0, -0.2, 0}), {}, profile, floor, 1.0 / 60);
  CHECK(state.penetration > 0.15);
  CHECK_FALSE(state.crushed);
  CHECK(deepest_overlap(state, profile, floor) < profile.capsule.margin);

  const TriangleWorld press_shut = Scene().floor().block({0, 1.0, 0}, {4, 1, 4}).world();
  state = run(standing_at(profile, {0, 0, 0}), profile, press_shut, 60, 1.0, kForward);
  CHECK(state.crushed);
  CHECK(is_finite(state.foot_C));
}

TEST_CASE("A step allocates nothing") {
  const Profile profile;
  const TriangleWorld world =
      Scene().floor().stairs({0, 0, -4}, 3, 0.18, 0.28, 10).block({2, 0, -1}, {1, 2, 1}).world();
  CharacterState state = standing_at(profile, {0, 0, 0});
  const std::size_t before = allocations();
  for (int i = 0; i < 600; ++i) {
    const InputFrame input = i % 50 == 0 ? press(Action::Jump) : push(i % 90 < 45 ? 0.5 : 0.0, 1.0);
    state = step(state, input, profile, world, 1.0 / 60);
  }
  CHECK(allocations() == before);
  Ledger ledger;
  step(state, push(0, 1), profile, world, 1.0 / 60, &ledger);
  CHECK(allocations() > before);  // The counter does count.
}
