// SPDX-License-Identifier: MIT
// Rims are where the blocks' own geometry says, in any frame; what keeps one is told with its number.
#include <catch2/catch.hpp>
#include <cmath>

#include "lagniappe/ledge.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// Asked from `foot_E` in the easy frame, straight along -z turned by `yaw`.
LedgeQuery query(const Frame& frame, const Vec3& foot_E = Vec3(0.0), double yaw = 0.0) {
  LedgeQuery q;
  q.foot_C = frame.point(foot_E);
  q.up_C = frame.vector(Vec3(0, 1, 0));
  q.towards_C = frame.vector(Vec3(-std::sin(yaw), 0.0, -std::cos(yaw)));
  return q;
}

// A wall of a block whose face is at z = -front, `thick` behind it.
Scene wall(double height, double front = 0.5, double thick = 4.0, double width = 6.0) {
  Scene scene;
  scene.floor().block({0, 0, -front - 0.5 * thick}, {width, height, thick});
  return scene;
}

}  // namespace

TEST_CASE("The rim of a block is where the block ends, in any frame") {
  for (const Frame& frame : frames()) {
    for (const double height : {0.5, 0.9, 1.37, 2.0, 2.29}) {
      for (const double front : {0.31, 0.5, 0.74}) {
        INFO(frame.name << ", " << height << " m high, " << front << " m away");
        const TriangleWorld world = wall(height, front).world(frame);
        const LedgeAnswer answer = find_ledge(world, query(frame));
        REQUIRE(answer.ledge);
        const Ledge& ledge = *answer.ledge;
        CHECK(length(frame.back(ledge.rim_C) - Vec3(0.0, height, -front)) < 1e-6);
        CHECK(ledge.height == Approx(height).margin(1e-6));
        CHECK(ledge.distance == Approx(front - 0.3).margin(1e-6));
        CHECK(dot(ledge.wall_normal_C, frame.vector({0, 0, 1})) > 1.0 - 1e-9);
        CHECK(dot(ledge.shelf_normal_C, frame.vector({0, 1, 0})) > 1.0 - 1e-9);
        CHECK(dot(ledge.along_C, frame.vector({1, 0, 0})) > 1.0 - 1e-9);
        CHECK(ledge.depth == Approx(1.0).margin(2e-3));
        CHECK(ledge.drop == Approx(height).margin(1e-6));
        CHECK(ledge.standing);
        CHECK(ledge.headroom == Approx(1.8).margin(1e-6));
      }
    }
  }
}

TEST_CASE("A rim that is turned or met askew has its own direction") {
  const Frame& frame = frames().front();
  for (const double turn : {10.0, 30.0, -55.0}) {
    Scene scene;
    scene.floor().block({0, 0, -3.5}, {20, 1.5, 6}, {turn, 0, 0});
    const TriangleWorld world = scene.world(frame);
    // The block's face, by its own rotation.
    const Quat q = glm::angleAxis(radians(turn), Vec3(0, 1, 0));
    const Vec3 out = q * Vec3(0, 0, 1), on = Vec3(0, 1.5, -3.5) + out * 3.0;
    const double ahead = dot(on, out) / dot(Vec3(0, 0, -1), out);  // Along -z from the origin.
    const Vec3 foot(0.0, 0.0, -ahead + 0.6);
    const LedgeAnswer answer = find_ledge(world, query(frame, foot));
    INFO(turn << " degrees");
    REQUIRE(answer.ledge);
    CHECK(length(answer.ledge->rim_C - Vec3(0.0, 1.5, -ahead)) < 1e-6);
    CHECK(dot(answer.ledge->wall_normal_C, out) > 1.0 - 1e-9);
    CHECK(std::abs(dot(answer.ledge->along_C, q * Vec3(1, 0, 0))) > 1.0 - 1e-9);
  }
}

TEST_CASE("Why there is no rim is told with its number") {
  for (const Frame& frame : frames()) {
    INFO(frame.name);
    const auto asked = [&](Scene& scene, const std::function<void(LedgeQuery&)>& with = {}) {
      const TriangleWorld world = scene.world(frame);
      LedgeQuery q = query(frame);
      if (with) with(q);
      const LedgeAnswer answer = find_ledge(world, q);
      CHECK_FALSE(answer.ledge);
      return answer;
    };
    Scene high = wall(2.41);
    const LedgeAnswer too_high = asked(high);
    CHECK(too_high.fault == LedgeFault::TooHigh);
    CHECK(too_high.found == Approx(2.41).margin(1e-6));
    Scene endless = wall(9.0);
    CHECK(asked(endless).fault == LedgeFault::TooHigh);
    CHECK(std::isinf(asked(endless).found));
    Scene far = wall(1.5, 0.91);
    const LedgeAnswer out_of_reach = asked(far);
    CHECK(out_of_reach.fault == LedgeFault::OutOfReach);
    CHECK(out_of_reach.found == Approx(0.61).margin(1e-6));
    Scene thin = wall(1.5, 0.5, 0.06);
    const LedgeAnswer too_short = asked(thin);
    CHECK(too_short.fault == LedgeFault::ShelfTooShort);
    CHECK(too_short.found == Approx(0.06).margin(2e-3));
    Scene rail = wall(1.5, 0.5, 0.02);
    CHECK(asked(rail).found == Approx(0.02).margin(2e-3));
    Scene empty;
    empty.floor();
    CHECK(asked(empty).fault == LedgeFault::NothingThere);
    Scene kerb = wall(0.3);
    CHECK(asked(kerb).fault == LedgeFault::NothingThere);
    Scene steep;
    steep.floor().block({0, 0, -1.5}, {6, 1.0, 2.0});
    steep.ramp({0, 1.0, -1.5}, {6, 2.0 * std::tan(radians(41.0)), 2.0});
    const LedgeAnswer slopes = asked(steep);
    CHECK(slopes.fault == LedgeFault::ShelfTooSteep);
    CHECK(slopes.found == Approx(radians(41.0)).margin(1e-6));
  }
}

TEST_CASE("Under a roof there is a rim, and room for what fits") {
  const Frame& frame = frames()[3];
  Scene scene = wall(1.0);
  scene.block({0, 2.52, -2.5}, {6, 0.3, 4.0});  // 1.52 m over the shelf.
  const LedgeAnswer answer = find_ledge(scene.world(frame), query(frame));
  REQUIRE(answer.ledge);
  CHECK(answer.ledge->height == Approx(1.0).margin(1e-6));
  CHECK_FALSE(answer.ledge->standing);
  CHECK(answer.ledge->crouched);
  CHECK(answer.ledge->headroom == Approx(1.52).margin(3e-3));
  // A beam in the height of the hands: the way in is below it.
  Scene beam = wall(1.0);
  beam.block({0, 1.6, -2.5}, {6, 2.0, 4.0});
  const LedgeAnswer low = find_ledge(beam.world(frame), query(frame));
  REQUIRE(low.ledge);
  CHECK(low.ledge->height == Approx(1.0).margin(1e-6));
  CHECK_FALSE(low.ledge->crouched);
}

TEST_CASE(
    "Of several shelves the lowest that fits is found, and what juts out less than hands need is passed") {
  const Frame& frame = frames().front();
  Scene stepped = wall(2.2, 0.7);
  stepped.block({0, 0, -0.6}, {6, 0.9, 0.2});  // A shelf of 20 cm before it.
  const LedgeAnswer lower = find_ledge(stepped.world(frame), query(frame));
  REQUIRE(lower.ledge);
  CHECK(lower.ledge->height == Approx(0.9).margin(1e-6));
  Scene rib = wall(1.8, 0.55);
  rib.block({0, 0.9, -0.54}, {6, 0.05, 0.03});  // Juts out by 3 cm.
  const LedgeAnswer above = find_ledge(rib.world(frame), query(frame));
  REQUIRE(above.ledge);
  CHECK(above.ledge->height == Approx(1.8).margin(1e-6));
}

TEST_CASE("Walls that lean have their rim where they end") {
  const Frame& frame = frames().front();
  for (const double lean : {-12.0, -8.0, -1.0, 1.0, 8.0, 25.0}) {
    const double a = radians(lean), height = 1.6;
    // A slab, turned about the line of its foot; its rim by hand.
    Scene scene;
    scene.floor();
    const double x = height * std::tan(a);  // How far the rim stands over towards the body.
    const double rim = lean > 0.0 ? -0.6 : -0.36 + x;
    const Vec3 low(-4, 0, rim - x), rim_l(-4, height, rim), w(8, 0, 0);
    scene.triangle({low, low + w, rim_l + w}).triangle({low, rim_l + w, rim_l});
    const Vec3 back(0, 0, -3);
    scene.triangle({rim_l, rim_l + w, rim_l + w + back}).triangle({rim_l, rim_l + w + back, rim_l + back});
    const LedgeAnswer answer = find_ledge(scene.world(frame), query(frame));
    INFO(lean << " degrees");
    REQUIRE(answer.ledge);
    CHECK(length(answer.ledge->rim_C - Vec3(0.0, height, rim)) < 1e-6);
    CHECK(degrees(answer.ledge->over) == Approx(lean).margin(1e-4));
  }
}

TEST_CASE("The rim of random boxes, cut into random triangles, is where the box ends") {
  Random random(11);
  const Frame& frame = frames()[2];
  for (int i = 0; i < 300; ++i) {
    const double height = random.between(0.45, 2.25), front = random.between(0.32, 0.72);
    const double thick = random.between(0.3, 3.0), left = random.between(0.2, 2.0),
                 right = random.between(0.2, 2.0);
    Scene scene;
    scene.floor().block({0.5 * (right - left), 0, -front - 0.5 * thick}, {left + right, height, thick});
    const LedgeAnswer answer = find_ledge(scene.world(frame), query(frame));
    INFO(i << ": " << height << " high, " << front << " away, " << thick << " thick");
    REQUIRE(answer.ledge);
    CHECK(length(frame.back(answer.ledge->rim_C) - Vec3(0.0, height, -front)) < 1e-6);
    CHECK(answer.ledge->depth == Approx(std::min(thick, 1.0)).margin(3e-3));
  }
}

TEST_CASE("In a high wall of many stones the lowest niche is found, wherever it is, and none in one without") {
  Random random(17);
  int solid = 0;
  for (int trial = 0; trial < 300; ++trial) {
    const Frame& frame = frames()[std::size_t(trial) % frames().size()];
    // Courses of stones up to 6 m; a niche of at least two rays between some of them, or none, or two.
    const int niches = random.below(3);
    Scene scene;
    scene.floor();
    double at = 0.0, lowest = 0.0;
    int left = niches;
    while (at < 6.0) {
      const double high = random.between(0.05, 0.6);
      scene.block({0, at, -1.5}, {4, high, 2});
      at += high;
      const bool reached = at > 0.7 && at < 1.9;
      if (left > 0 && reached) {
        if (left-- == niches) lowest = at;
        at += random.between(0.14, 0.5);
      }
    }
    INFO("trial " << trial << ", " << niches << " niches, the lowest at " << lowest);
    const LedgeAnswer answer = find_ledge(scene.world(frame), query(frame));
    if (lowest == 0.0) {
      ++solid;
      CHECK(answer.fault == LedgeFault::TooHigh);
      continue;
    }
    REQUIRE(answer.ledge);
    CHECK(answer.ledge->height == Approx(lowest).margin(1e-6));
  }
  CHECK(solid > 50);
}

TEST_CASE("A block of so many faces that they are not gathered has the rim of one of twelve") {
  // Three centimetres each way: thousands within reach.
  constexpr int kParts = 60;
  constexpr double kWide = 1.8, kHigh = 1.4, kFront = 0.5;
  Scene fine;
  fine.floor();
  const auto grid = [&](const Vec3& corner, const Vec3& a, const Vec3& b) {
    for (int i = 0; i < kParts; ++i) {
      for (int k = 0; k < kParts; ++k) {
        const auto at = [&](int x, int y) {
          return corner + a * (double(x) / kParts) + b * (double(y) / kParts);
        };
        fine.triangle({at(i, k), at(i + 1, k), at(i + 1, k + 1)});
        fine.triangle({at(i, k), at(i + 1, k + 1), at(i, k + 1)});
      }
    }
  };
  grid({-0.5 * kWide, 0, -kFront}, {kWide, 0, 0}, {0, kHigh, 0});
  grid({-0.5 * kWide, kHigh, -kFront}, {kWide, 0, 0}, {0, 0, -kWide});
  const TriangleWorld many = fine.world(), few = wall(kHigh, kFront, kWide, kWide).world();
  for (const double yaw : {-0.5, 0.0, 0.3}) {
    for (const double x : {-0.317, 0.0, 0.21}) {
      INFO(yaw << " rad, " << x << " m");
      const LedgeAnswer a = find_ledge(many, query(frames().front(), Vec3(x, 0, 0), yaw));
      const LedgeAnswer b = find_ledge(few, query(frames().front(), Vec3(x, 0, 0), yaw));
      REQUIRE(a.ledge);
      REQUIRE(b.ledge);
      CHECK(length(a.ledge->rim_C - b.ledge->rim_C) < 1e-9);
      CHECK(length(a.ledge->wall_normal_C - b.ledge->wall_normal_C) < 1e-9);
      CHECK(a.ledge->depth == Approx(b.ledge->depth).margin(2e-3));
      CHECK(a.ledge->headroom == Approx(b.ledge->headroom).margin(1e-6));
      CHECK(a.ledge->standing == b.ledge->standing);
    }
  }
}
