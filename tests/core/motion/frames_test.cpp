// SPDX-License-Identifier: MIT
// Up is a direction: a turned world gives the turned motion.
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Scene yard() {
  Scene scene;
  scene.floor()
      .stairs({0, 0, -4}, 3, 0.18, 0.28, 8)
      .ramp({5, 0, -4}, {3, 2, 4})
      .block({-4, 0, -3}, {2, 2, 2}, {30, 0, 0});
  return scene;
}

InputFrame tour(double t) {
  if (std::abs(t - 2.0) < 0.005) return press(Action::Jump);
  InputFrame input = push(t < 3.0 ? 0.2 : -0.7, t < 4.0 ? 1.0 : -0.5);
  input.turn_rate = Vec2(0.3 * std::sin(t), 0.1);
  return input;
}

}  // namespace

TEST_CASE("A turned and moved world gives the turned and moved motion") {
  const Profile profile;
  std::vector<Vec3> easy;
  for (const Frame& frame : frames()) {
    INFO(frame.name);
    const TriangleWorld world = yard().world(frame);
    std::vector<Vec3> path;
    run(standing_at(profile, {0.1, 0, 0.3}, 0.2, frame), profile, world, 60, 6.0, tour,
        [&](const CharacterState& s) { path.push_back(frame.back(s.foot_C)); });
    if (easy.empty()) easy = path;
    double apart = 0.0;
    for (std::size_t i = 0; i < path.size(); ++i) apart = std::max(apart, length(path[i] - easy[i]));
    CHECK(apart < 2e-5);
  }
  CHECK(length(easy.back() - easy.front()) > 3.0);
}

TEST_CASE("A mirrored world gives the mirrored motion") {
  const Profile profile;
  const TriangleWorld world =
      Scene().floor().block({2, 0, -3}, {3, 2, 2}, {25, 0, 0}).stairs({-1, 0, -5}, 2, 0.2, 0.3, 5).world();
  const TriangleWorld mirror =
      Scene().floor().block({-2, 0, -3}, {3, 2, 2}, {-25, 0, 0}).stairs({1, 0, -5}, 2, 0.2, 0.3, 5).world();
  const auto input = [](double t) { return push(0.6 * std::cos(t), 1.0); };
  const auto mirrored = [](double t) { return push(-0.6 * std::cos(t), 1.0); };
  const CharacterState a = run(standing_at(profile, {0.2, 0, 0}), profile, world, 60, 5.0, input);
  const CharacterState b = run(standing_at(profile, {-0.2, 0, 0}), profile, mirror, 60, 5.0, mirrored);
  CHECK(length(a.foot_C - Vec3(-b.foot_C.x, b.foot_C.y, b.foot_C.z)) < 1e-6);
}

TEST_CASE("Looking straight down does not disturb the walk") {
  const Profile profile;
  const TriangleWorld world = Scene().floor().world();
  InputFrame down = push(0, 1);
  down.look = Vec2(radians(30.0), radians(-90.0));
  Profile all_the_way = profile;
  all_the_way.look.lowest_pitch = radians(-90.0);
  const CharacterState state =
      run(standing_at(profile, {0, 0, 0}), all_the_way, world, 60, 2.0, [&](double) { return down; });
  CHECK(length(state.velocity_C) == Approx(profile.ground.speed).epsilon(1e-6));
  CHECK(std::atan2(-state.velocity_C.x, -state.velocity_C.z) == Approx(radians(30.0)));
}
