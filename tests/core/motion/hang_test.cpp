// SPDX-License-Identifier: MIT
// Hanging: caught, along, round, up, away and down, against rims whose places are known.
#include <catch2/catch.hpp>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// A wall whose face is 0.5 m ahead, too high to be mantled from a jump: its rim is reached by the hands.
constexpr double kHigh = 3.3;
Scene wall() { return Scene().floor().block({0, 0, -2.5}, {6, kHigh, 4}); }

Driven hanging(const Scene& scene, int hz = 60, const Profile& profile = {}) {
  Driven d(scene.world(), profile);
  d.hz = hz;
  d.play("J kj:0.8");
  return d;
}

}  // namespace

TEST_CASE("A rim that the hands reach in a jump catches, and one hangs below it at hands' height, at any rate") {
  for (const int hz : tick_rates()) {
    INFO(hz);
    const Driven d = hanging(wall(), hz);
    REQUIRE(d.now() == "Hang");
    CHECK(d.state.foot_C.y == Approx(kHigh - d.profile.hang.hands).margin(1e-5));
    CHECK(d.state.foot_C.z == Approx(-0.5 + 0.32).margin(1e-5));
    CHECK(length(d.state.velocity_C) < 1e-6);
    CHECK(deepest_overlap(d.state, d.profile, d.world) < d.profile.capsule.margin);
  }
}

TEST_CASE("Along the rim, round its corner, at the pace that is set, the same at any rate") {
  std::optional<Vec3> first;
  for (const int hz : {20, 24, 60, 144, 240}) {
    INFO(hz);
    Driven d = hanging(wall(), hz);
    d.play("d:1");
    CHECK(d.state.foot_C.x == Approx(d.profile.hang.speed).margin(0.01));
    d.play("d:3");
    REQUIRE(d.now() == "Hang");
    CHECK(d.state.foot_C.x == Approx(3.32).margin(0.001));
    if (!first) first = d.state.foot_C;
    CHECK(length(d.state.foot_C - *first) < 0.01);
  }
}

TEST_CASE("From a rim one gets up where there is room, down, and away") {
  Driven up = hanging(wall());
  up.play("K :1.5");
  CHECK(up.state.foot_C.y == Approx(kHigh).margin(1e-4));
  Driven jumped_up = hanging(wall());
  jumped_up.play("J :1.5");
  CHECK(jumped_up.state.foot_C.y == Approx(kHigh).margin(1e-4));
  Driven down = hanging(wall());
  down.play("C :1");
  CHECK(down.state.foot_C.y == Approx(0.0).margin(1e-6));
  Driven away = hanging(wall());
  away.play("bJ b:1.5");
  CHECK(away.state.foot_C.z > 1.0);
  Driven roofed = hanging(wall().block({0, kHigh + 0.6, -2.5}, {6, 0.3, 4}));
  REQUIRE(roofed.now() == "Hang");
  roofed.told.clear();
  roofed.play("K :0.2");
  CHECK(roofed.now() == "Hang");
  REQUIRE(roofed.told.size() == 1);
  CHECK_THAT(roofed.told[0], Catch::StartsWith("mantle refused"));
}
