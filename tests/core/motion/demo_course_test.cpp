// SPDX-License-Identifier: MIT
// The demo course can be walked as it is meant to be, with every demo profile.
#include <catch2/catch.hpp>

#include "support/driven.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const std::string kSource = LAGNIAPPE_SOURCE_DIR;

struct Demo {
  Course course = *read_course(kSource + "/courses/tidewheel.course.json");
  TriangleWorld world = build_world(course);

  CharacterState at(const std::string& mark, const Profile& profile) const {
    for (const Mark& m : course.marks) {
      if (m.id == mark) return start_state(profile, {m.at_C, Quat(1, 0, 0, 0), m.facing}, world);
    }
    FAIL("no mark " << mark);
    return {};
  }
};

Profile profile_of(const std::string& name) {
  return *read_profile(kSource + "/profiles/" + name + ".profile.json");
}

// Walks towards one point after the other, each reached within 0.35 m across up; false if it takes too long.
bool walk_to(CharacterState& state, const std::vector<Vec3>& points, const Profile& profile, const World& world,
             int hz) {
  for (const Vec3& point : points) {
    int left = 40 * hz;
    for (;; --left) {
      const Vec3 gap = across(point - state.foot_C, state.up_C());
      if (length(gap) < 0.35) break;
      if (left == 0) return false;
      InputFrame input = push(0, 1);
      input.look = Vec2(std::atan2(-gap.x, -gap.z), 0.0);
      state = step(state, input, profile, world, 1.0 / hz);
    }
  }
  return true;
}

}  // namespace

TEST_CASE("The demo course has its places and a character is free at each of its marks") {
  const Demo demo;
  CHECK(demo.course.pieces.size() >= 60);
  CHECK(demo.course.pieces.size() <= 240);
  CHECK(demo.world.triangle_count() <= 10000);
  CHECK(demo.course.dropped_triangles == 0);
  for (const Mark& mark : demo.course.marks) {
    INFO(mark.id);
    const Profile profile = profile_of("warden");
    CharacterState state = demo.at(mark.id, profile);
    state = run(state, profile, demo.world, 60, 1.0, [](double) { return InputFrame{}; });
    CHECK(state.state == StateId::Stand);
    CHECK(length(state.foot_C - mark.at_C) < 0.02);
  }
}

TEST_CASE("Every profile climbs the sluice stairs and the spiral stair to the lookout and comes down again") {
  const Demo demo;
  const double deck = 3.06, loft = deck + 6.84;
  for (const std::string name : {"warden", "wader", "heron"}) {
    for (const int hz : {30, 60, 240}) {
      INFO(name << ", " << hz << " ticks/s");
      const Profile profile = profile_of(name);
      CharacterState state = demo.at("start", profile);
      REQUIRE(walk_to(state, {{0, 0, 2}, {0, deck, -5}, {4.85, deck, -9.5}, {4.85, deck, -12.9}}, profile,
                      demo.world, hz));
      CHECK(state.foot_C.y == Approx(deck).margin(1e-6));
      std::vector<Vec3> around;
      for (int i = 0; i <= 70; ++i) {
        const double yaw = radians(180.0 - 20.0 + 10.0 * i);
        around.push_back({6 - 1.35 * std::sin(yaw), 0, -14 - 1.35 * std::cos(yaw)});
      }
      REQUIRE(walk_to(state, around, profile, demo.world, hz));
      REQUIRE(walk_to(state, {{7.4, 0, -12.7}, {9.8, 0, -12.7}}, profile, demo.world, hz));
      CHECK(state.foot_C.y == Approx(loft).margin(1e-6));
      REQUIRE(walk_to(state, {{7.4, 0, -12.7}}, profile, demo.world, hz));
      std::reverse(around.begin(), around.end());
      REQUIRE(walk_to(state, around, profile, demo.world, hz));
      CHECK(state.foot_C.y < deck + 0.2);
    }
  }
}

TEST_CASE("Levee slopes up to 44 degrees are walked by the warden, 50 and 60 are not") {
  const Demo demo;
  const Profile profile = profile_of("warden");
  const auto crest = [&](double x) {
    const CharacterState state = start_state(profile, {{x, -1, 8}, Quat(1, 0, 0, 0), 0.0});
    double highest = -1.0;
    run(
        state, profile, demo.world, 60, 8.0, [](double) { return push(0, 1); },
        [&](const CharacterState& s) { highest = std::max(highest, s.foot_C.y); });
    return highest > 2.9;
  };
  CHECK(crest(-39.5));
  CHECK(crest(-34.5));
  CHECK(crest(-29.5));
  CHECK_FALSE(crest(-24.5));
  CHECK_FALSE(crest(-19.5));
}

TEST_CASE("The tours of the demo end where they should, without leaving the ground, at every tick rate") {
  const Demo demo;
  const Profile profile = profile_of("warden");
  const std::vector<std::pair<std::string, Vec3>> tours = {
      {"stairs", {0, 3.06, -8}}, {"lookout", {10, 9.9, -12.7}}, {"levee", {0, 3.06, -5}}};
  for (const auto& [name, end] : tours) {
    const auto script = read_inputs(kSource + "/takes/" + name + ".inputs.json");
    REQUIRE(script);
    for (const int hz : {30, 60, 144, 240}) {
      INFO(name << ", " << hz << " ticks/s");
      InputPlayer player(*script, hz);
      bool airborne = false;
      CharacterState state = demo.at("start", profile);
      state = run(
          state, profile, demo.world, hz, script->end() + 1.0, [&](double) { return player.next(); },
          [&](const CharacterState& s) { airborne = airborne || !s.grounded(); });
      CHECK_FALSE(airborne);
      CHECK(length(state.foot_C - end) < 0.5);
      CHECK(state.foot_C.y == Approx(end.y).margin(1e-6));
    }
  }
}

TEST_CASE("Down into the well by its ladder, and up again, at every tick rate") {
  const Demo demo;
  for (const int hz : {20, 60, 144, 240}) {
    INFO(hz);
    Driven d(build_world(demo.course), profile_of("warden"),
             {{-5.2, 3.06, -19.55}, Quat(1, 0, 0, 0), radians(180.0)});
    d.hz = hz;
    d.play("K :1.5");
    REQUIRE(d.now() == "Climb");
    CHECK(d.world.piece_name(d.state.hold.piece) == "Well ladder");
    for (int i = 0; i < 5 * hz && !d.state.grounded(); ++i) d.play("b");
    CHECK(d.state.foot_C.y == Approx(-1.0).margin(1e-3));
    d.play(":0.6 K :0.3");
    for (int i = 0; i < 6 * hz && !d.state.grounded(); ++i) d.play("w");
    CHECK(d.state.foot_C.y == Approx(3.06).margin(1e-3));
    CHECK(d.state.foot_C.z > -20.0);
  }
}

TEST_CASE("One hangs from the lift and from each cabin of the wheel, and stays at the same place of it") {
  const Demo demo;
  Profile profile = profile_of("warden");
  profile.hang.grasps = Profile::Hang::Catch::Always;
  int held = 0, stayed = 0;
  for (PieceId piece = 0; piece < demo.course.pieces.size(); ++piece) {
    const std::string& name = demo.course.pieces[piece].id;
    if (name != "Lift floor" && name.find("Wheel cabin") != 0) continue;
    Box own;
    for (const Triangle& t : own_triangles_of(demo.course.pieces[piece])) own.join(bounds(t));
    for (const double yaw : {0.0, 90.0, 180.0, 270.0}) {
      for (const int hz : {20, 60, 240}) {
        INFO(name << ", facing " << yaw << ", " << hz << " ticks/s");
        const double time = 2.5;
        const RigidPose frame = demo.world.piece_frame(piece, time);
        const Vec3 out(std::sin(radians(yaw)), 0, std::cos(radians(yaw)));
        Vec3 foot = frame.point(own.centre() + out * (0.5 * own.size().x + profile.capsule.radius + 0.1));
        foot.y = frame.point(own.high_C).y - profile.hang.hands;
        Driven d(build_world(demo.course), profile, {foot, Quat(1, 0, 0, 0), radians(yaw)});
        d.hz = hz;
        d.state.time = time;
        if (deepest_overlap(d.state, profile, d.world) > 0.0) continue;  // The lift's yard is in the way there.
        d.play(":0.3");
        if (!d.state.holding() || d.state.hold.piece != piece) continue;
        ++held;
        const auto foot_P = [&] { return d.world.piece_frame(piece, d.state.time).back(d.state.foot_C); };
        const Vec3 first = foot_P();
        for (int i = 0; i < 3 * hz && d.state.holding(); ++i) {
          d.go(1.0 / hz, {});
        }
        if (!d.state.holding()) continue;  // Something beside it pushed one off.
        ++stayed;
        CHECK(length(foot_P() - first) < 1e-3);
      }
    }
  }
  CHECK(held >= 18);
  CHECK(stayed >= 18);
}

TEST_CASE("A fall beyond the marsh puts the character back at the start") {
  const Demo demo;
  const Profile profile = profile_of("warden");
  CharacterState state = start_state(profile, start_home(demo.course));
  state.foot_C = Vec3(74.0, -1.0, 40.0);
  InputFrame east = push(0, 1);
  east.look = Vec2(radians(-90.0), 0.0);
  state = run(state, profile, demo.world, 60, 6.0, [&](double) { return east; });
  CHECK(state.times_put_home == 1);
}
