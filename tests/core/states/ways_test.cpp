// SPDX-License-Identifier: MIT
// The ways of moving that are shipped as examples: states and Lua, no code.
#include <catch2/catch.hpp>

#include "lagniappe/files.h"
#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

Profile way(const std::string& name) {
  const auto profile =
      read_profile(std::string(LAGNIAPPE_SOURCE_DIR "/profiles/ways/") + name + ".profile.json");
  if (!profile) FAIL(profile.error().sentence());
  return *profile;
}

double forward_speed(const Driven& d) { return -d.state.velocity_C.z; }

}  // namespace

TEST_CASE("Running along a wall sinks slowly, ends by itself, and can be jumped off") {
  for (const double side : {-1.0, 1.0}) {
    INFO("wall on side " << side);
    const auto place = [&] { return Scene().floor().block({side * 0.95, 0, -30}, {1, 8, 80}).world(); };
    const char* towards = side > 0 ? "wds" : "was";
    Driven d(place(), way("wall-run"));
    d.play("ws:0.8").play(std::string(towards) + "J:0.3").play(std::string(towards) + ":0.3");
    CHECK(d.now() == "Wall run");
    CHECK(forward_speed(d) > 3.0);
    const double height = d.state.foot_C.y;
    d.play(std::string(towards) + ":0.4");
    CHECK(d.now() == "Wall run");
    CHECK(d.state.foot_C.y > height - 0.4);
    d.play(std::string(towards) + ":2.5");
    CHECK(d.states.contains("Fall"));
    CHECK(d.state.grounded());

    Driven jumper(place(), way("wall-run"));
    jumper.play("ws:0.8").play(std::string(towards) + "J:0.3").play(std::string(towards) + ":0.3");
    REQUIRE(jumper.now() == "Wall run");
    jumper.play(std::string(towards) + "J");
    CHECK(jumper.fired.contains("Wall run Rise"));
    CHECK(jumper.state.velocity_C.x * side < -1.0);
  }
}

TEST_CASE("Gliding falls at the set speed, exactly in time, while jump is held") {
  for (const int hz : {30, 60, 144}) {
    INFO(hz << " ticks/s");
    Driven d(Scene().floor().world(), way("glide"), Home{Vec3(0, 9, 0)});
    d.hz = hz;
    d.play("w:0.5 wj:2");
    CHECK(d.now() == "Glide");
    CHECK(d.state.velocity_C.y == Approx(-1.8).margin(0.01));
    d.play("w:0.1");
    CHECK(d.now() == "Fall");
    d.play("wj:5");
    CHECK(d.state.grounded());
  }
}

TEST_CASE("A dash covers its way at every tick rate, once in the air, again from the ground") {
  for (const int hz : {30, 60, 240}) {
    INFO(hz << " ticks/s");
    Driven d(Scene().floor().world(), way("dash"));
    d.hz = hz;
    d.play(":0.2 K:0.4");
    CHECK(d.states.contains("Dash"));
    CHECK(-d.state.foot_C.z == Approx(0.18 * 14.0 + 0.6).margin(0.7));
    d.play(":0.5 J:0.1 K:0.25");
    CHECK(d.states.contains("Fall"));
    const auto in_air = d.state.foot_C.z;
    d.play("K:0.05");
    CHECK(d.now() != "Dash");
    CHECK(d.state.foot_C.z == Approx(in_air).margin(0.8));
    d.play(":1 K:0.05");
    CHECK(d.now() == "Dash");
  }
}

TEST_CASE("Sprint switches on its button, forward only, until the breath is out; strolling turns in place") {
  Driven d(Scene().floor().world(), way("breath"));
  CHECK(d.play("w:0.3 wS:0.3").now() == "Sprint");
  CHECK(forward_speed(d) < 6.0);  // It gathers.
  CHECK(d.play("w:1.5").now() == "Sprint");
  CHECK(forward_speed(d) == Approx(6.5).margin(0.05));
  CHECK(d.play("w:3").now() == "Walk");  // Out of breath.
  CHECK(d.play("wS:0.2").now() == "Walk");
  d.play("w:4");  // 2 s of breath are back.
  CHECK(d.play("wS:0.5").now() == "Sprint");
  CHECK(d.play("wJ:0.2 w:1").now() == "Sprint");  // It goes on after a jump.
  CHECK(d.play("b:0.1").now() == "Walk");
  CHECK(d.play("wS:0.1").now() == "Sprint");
  CHECK(d.play("wS:0.1").now() == "Walk");
  const double yaw = d.state.yaw;
  d.play("kd:0.5");
  CHECK(d.now() == "Stroll");
  CHECK(degrees(yaw - d.state.yaw) == Approx(120.0 * (0.5 + 1.0 / 60)).margin(3.0));
}

namespace {

TriangleWorld ivy() {
  TriangleWorld::Builder builder;
  Surface ivy;
  ivy.climbable = true;
  const auto add = [&](const Vec3& at, const Vec3& size, const Surface& surface) {
    for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}})) builder.add(t, surface);
  };
  builder.begin_piece("floor");
  add({0, -1, 0}, {40, 1, 40}, {});
  builder.begin_piece("ivy");
  add({0, 0, -2.5}, {30, 30, 4}, ivy);
  return builder.commit({Box{Vec3(-1e4), Vec3(1e4)}});
}

}  // namespace

TEST_CASE("Hands that tire climb slower after 6 s, give way after 9, and hold on again when they have rested") {
  for (const int hz : {30, 60, 144}) {
    INFO(hz << " ticks/s");
    Driven d(ivy(), way("tired"));
    d.hz = hz;
    d.play("K w:5.8");
    CHECK(d.now() == "Climb");
    d.play("w:0.3");
    CHECK(d.now() == "Climb weary");
    const double height = d.state.foot_C.y;
    d.play("w:1");
    CHECK(d.state.foot_C.y - height == Approx(0.5 * d.profile.climb.up_speed * (1.0 + 1.0 / hz)).epsilon(0.01));
    CHECK(d.state.hold.kind == Hold::Kind::Climb);  // Held all along.
    d.play("w:1.9");
    CHECK(d.now() == "Fall");
    d.play("k:2");
    REQUIRE(d.state.grounded());
    d.play("K k:0.3");
    CHECK_FALSE(d.state.holding());
    d.play(":3 w K k:0.3");
    CHECK(d.now() == "Climb");
  }
}
