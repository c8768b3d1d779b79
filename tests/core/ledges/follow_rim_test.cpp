// SPDX-License-Identifier: MIT
// Along rims whose lines are known: the body's way is the rim's outline, moved outwards, with arcs at its
// corners.
#include <catch2/catch.hpp>

#include "ledges/follow_rim.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr double kAway = 0.32;  // m, of the default body from an upright wall.

HangShape shape_in(const Frame& frame) {
  HangShape shape;
  shape.up_C = frame.vector(Vec3(0, 1, 0));
  return shape;
}

RimGrip take(const TriangleWorld& world, const HangShape& shape, const Frame& frame, const Vec3& foot_E,
             const Vec3& towards_E = Vec3(0, 0, -1)) {
  const GripAnswer answer =
      grip_from(world, shape, frame.point(foot_E), frame.vector(towards_E), 0.6, 1.0, 2.6);
  REQUIRE(answer.grip);
  return *answer.grip;
}

// Goes so far in steps, and returns how far that was.
double go(const TriangleWorld& world, const HangShape& shape, RimGrip& grip, double distance, double step,
          RimStop* stop = nullptr) {
  double gone = 0.0;
  while (std::abs(gone) < std::abs(distance) - 1e-12) {
    const double next = std::clamp(distance - gone, -step, step);
    const RimWay way = follow_rim(world, shape, grip, next);
    grip = way.grip;
    gone += way.gone;
    if (stop != nullptr) *stop = way.stop;
    if (way.stop != RimStop::None) break;
  }
  return gone;
}

}  // namespace

TEST_CASE("Once round a block one is back where one began, in steps of any size and in any frame") {
  const double round = 2.0 * (3.0 + 2.0) + 2.0 * kPi * kAway;
  for (const Frame& frame : frames()) {
    const TriangleWorld world = Scene().floor().block({0, 0, -3}, {3, 2.2, 2}).world(frame);
    const HangShape shape = shape_in(frame);
    for (const double step : {0.011, 0.08, 0.7}) {
      for (const double way : {round, -round}) {
        INFO(frame.name << ", " << step << ", " << way);
        RimGrip grip = take(world, shape, frame, {0.2, 0.3, -1.6});
        const Vec3 start = frame.back(grip.foot_C(shape));
        CHECK(go(world, shape, grip, way, step) == Approx(way).margin(1e-6));
        CHECK(length(frame.back(grip.foot_C(shape)) - start) < 0.003);
      }
    }
  }
}

TEST_CASE("Everywhere round a block the body is as far from it as it hangs, and never in it") {
  const Frame& frame = frames().front();
  const TriangleWorld world = Scene().floor().block({0, 0, -3}, {3, 2.2, 2}).world();
  const HangShape shape = shape_in(frame);
  RimGrip grip = take(world, shape, frame, {0.2, 0.3, -1.6});
  for (int i = 0; i < 400; ++i) {
    grip = follow_rim(world, shape, grip, 0.037).grip;
    const Vec3 foot = grip.foot_C(shape);
    const double x = std::max(std::abs(foot.x) - 1.5, 0.0), z = std::max(std::abs(foot.z + 3.0) - 1.0, 0.0);
    CHECK(std::hypot(x, z) == Approx(kAway).margin(2e-4));
    CHECK(foot.y == Approx(2.2 - shape.hands).margin(1e-6));
  }
}

TEST_CASE("Back and forth at random, and all of it back again, is where one began: round corners too") {
  const Frame& frame = frames().front();
  const TriangleWorld world =
      Scene().floor().block({0, 0, -3}, {6, 2.2, 2}).block({2, 0, -1.5}, {2, 2.2, 3}).world();
  const HangShape shape = shape_in(frame);
  for (std::uint64_t seed = 0; seed < 20; ++seed) {
    INFO(seed);
    Random random(seed);
    RimGrip grip = take(world, shape, frame, {-1.0, 0.3, -1.6});
    const Vec3 start = grip.foot_C(shape);
    double at = 0.0;
    for (int i = 0; i < 120; ++i) {
      const RimWay way = follow_rim(world, shape, grip, random.between(-0.6, 0.65));
      REQUIRE(way.stop == RimStop::None);
      grip = way.grip;
      at += way.gone;
    }
    go(world, shape, grip, -at, 0.05);
    CHECK(length(grip.foot_C(shape) - start) < 0.025);  // 0.1 mm or 0.2 at each corner.
  }
}

TEST_CASE("Gaps narrower than the hands are crossed from piece to piece, wider ones end the rim") {
  const Frame& frame = frames().front();
  const HangShape shape = shape_in(frame);
  for (const double gap : {0.02, 0.2, 0.4, 0.43, 0.46, 0.6}) {
    INFO(gap);
    const TriangleWorld world =
        Scene().floor().block({-2, 0, -3}, {3, 2.2, 2}).block({1.0 + gap, 0, -3}, {3, 2.2, 2}).world();
    for (const double step : {0.02, 0.5}) {
      RimGrip grip = take(world, shape, frame, {-2, 0.3, -1.6});
      RimStop stop{};
      const double gone = go(world, shape, grip, 3.5, step, &stop);
      const bool crosses = gap < shape.between;
      CHECK(gone == Approx(crosses ? 3.5 : 1.5).margin(0.001));
      CHECK((stop == RimStop::End) == !crosses);
      CHECK(grip.piece == (crosses ? 2u : 1u));
    }
  }
}

TEST_CASE("Round a column of many faces one goes on evenly") {
  const Frame& frame = frames().front();
  for (const double radius : {0.3, 1.0}) {
    for (const int sides : {16, 48}) {
      Scene scene;
      const auto at = [&](int i, double y) {
        const double a = 2.0 * kPi * i / sides;
        return Vec3(radius * std::sin(a), y, radius * std::cos(a));
      };
      for (int i = 0; i < sides; ++i) {
        scene.triangle({at(i, 0), at(i + 1, 0), at(i + 1, 2.2)});
        scene.triangle({at(i, 0), at(i + 1, 2.2), at(i, 2.2)});
        scene.triangle({at(i, 2.2), at(i + 1, 2.2), Vec3(0, 2.2, 0)});
      }
      const TriangleWorld world = scene.world();
      const HangShape shape = shape_in(frame);
      const double round = 2.0 * sides * std::sin(kPi / sides) * radius + 2.0 * kPi * kAway;
      for (const double step : {0.02, 0.3}) {
        INFO(radius << " m, " << sides << " sides, " << step);
        RimGrip grip = take(world, shape, frame, {0.02, 0.3, radius + 0.5});
        const Vec3 start = grip.foot_C(shape);
        CHECK(go(world, shape, grip, round, step) == Approx(round).margin(1e-6));
        CHECK(length(grip.foot_C(shape) - start) < 0.02);
      }
    }
  }
}

TEST_CASE("What stands in the way of the body stops it, at the rim's end there is told so") {
  const Frame& frame = frames().front();
  const HangShape shape = shape_in(frame);
  const TriangleWorld world =
      Scene().floor().block({0, 0, -3}, {6, 2.2, 2}).block({1.5, 0, -1.6}, {0.1, 1.4, 0.8}).world();
  RimGrip grip = take(world, shape, frame, {0, 0.3, -1.6});
  RimStop stop{};
  go(world, shape, grip, 3.0, 0.05, &stop);
  CHECK(stop == RimStop::Blocked);
  CHECK(grip.foot_C(shape).x == Approx(1.45 - 0.3).margin(0.03));
}
