// SPDX-License-Identifier: MIT
// Climbing: taking hold, over the wall, on and off it at the top, the floor and in between.
#include <catch2/catch.hpp>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// Blocks in the easy frame; those called ivy are climbable.
class Garden {
 public:
  explicit Garden(const Frame& frame = frames().front()) : frame_(frame) { stone({0, -1, 0}, {80, 1, 80}); }
  Garden& ivy(const Vec3& at, const Vec3& size, const Vec3& turn = Vec3(0.0)) {
    return add(at, size, turn, true);
  }
  Garden& stone(const Vec3& at, const Vec3& size, const Vec3& turn = Vec3(0.0)) {
    return add(at, size, turn, false);
  }
  // Ivy that moves; at its place at the start.
  Garden& moving(std::vector<PieceMotion::Key> keys, double period, const Vec3& at, const Vec3& size) {
    PieceMotion motion;
    motion.keys = std::move(keys);
    motion.period = period;
    motion.at_C = at;
    builder_.begin_moving_piece("moving ivy", motion);
    Surface surface;
    surface.climbable = true;
    for (const Triangle& t : triangles_of({"", Vec3(0.0), Vec3(0.0), "", shape::Block{size}}))
      builder_.add(t, surface);
    return *this;
  }
  TriangleWorld world() { return builder_.commit({Box{Vec3(-1e6), Vec3(1e6)}}); }

 private:
  Garden& add(const Vec3& at, const Vec3& size, const Vec3& turn, bool climbable) {
    builder_.begin_piece(climbable ? "ivy" : "stone");
    Surface surface;
    surface.climbable = climbable;
    Piece piece{"", at, Vec3(0.0), "", shape::Block{size}};
    piece.turn = turn;
    for (const Triangle& t : triangles_of(piece)) builder_.add(frame_.triangle(t), surface);
    return *this;
  }
  const Frame& frame_;
  TriangleWorld::Builder builder_;
};

Garden wall(const Frame& frame = frames().front()) {  // Its face 0.5 m ahead; one can stand on top.
  return Garden(frame).ivy({0, 0, -2.5}, {6, 5, 4});
}

Driven driven(TriangleWorld world, int hz = 60, const Profile& profile = {},
              const Frame& frame = frames().front()) {
  Driven d(std::move(world), profile, Home{frame.point(Vec3(0.0)), frame.rotation_CE, 0.0});
  d.hz = hz;
  return d;
}

}  // namespace

TEST_CASE("The wall is taken hold of from the ground and from the air, by what the profile says") {
  Profile button, stick, touch, never;
  stick.climb.grip = Profile::Climb::Grip::Stick;
  touch.climb.grip = Profile::Climb::Grip::Always;
  never.climb.grip = Profile::Climb::Grip::Never;
  const auto climbs = [](const std::string& drive, const Profile& profile) {
    Driven d = driven(wall().world(), 60, profile);
    d.play(drive);
    return d.states.count("Climb") > 0;
  };
  CHECK(climbs("K :0.3", button));
  CHECK(climbs("J j:0.2 jk:0.3", button));
  CHECK_FALSE(climbs("w:0.5", button));
  CHECK_FALSE(climbs("cK c:0.3", button));
  CHECK(climbs("w:0.5", stick));
  CHECK_FALSE(climbs("d:0.3", stick));
  CHECK(climbs("w:0.5", touch));
  CHECK_FALSE(climbs(":0.5", touch));
  CHECK(climbs("J j:0.4", touch));
  CHECK_FALSE(climbs("K :0.3", never));
  // Stone is none.
  Driven stone = driven(Garden().stone({0, 0, -2.5}, {6, 5, 4}).world());
  stone.play("K :0.3");
  CHECK(stone.states.count("Climb") == 0);
  CHECK(tells(stone, "climb refused: “stone” is not climbable"));
}

TEST_CASE("Up, down and along by the stick at the paces that are set, whatever the view, at any rate and up") {
  for (const Frame& frame : frames()) {
    for (const int hz : tick_rates()) {
      INFO(frame.name << ", " << hz);
      Driven d = driven(wall(frame).world(), hz, {}, frame);
      d.play("K :0.3");
      REQUIRE(d.now() == "Climb");
      const auto foot = [&] { return frame.back(d.state.foot_C); };
      const double gap = d.profile.climb.gap + d.profile.capsule.radius, tick = 1.0 / hz;
      CHECK(foot().z == Approx(-0.5 + gap).margin(1e-5));
      const double before = foot().y;
      d.play("w:1");
      CHECK(foot().y - before == Approx(d.profile.climb.up_speed * (1.0 + tick)).margin(1e-3));
      InputFrame along = push(1.0, 0.0);
      along.look = Vec2(radians(100.0), radians(-20.0));  // Looking elsewhere.
      d.go(1.0, along);
      CHECK(foot().x == Approx(d.profile.climb.side_speed).margin(1e-3));
      const double high = foot().y;
      InputFrame down = push(0.0, -0.5);
      down.look = along.look;
      d.go(0.5, down);
      CHECK(foot().y < high - 0.1);
      CHECK(foot().y > high - 0.5 * d.profile.climb.down_speed);
      CHECK(foot().z == Approx(-0.5 + gap).margin(1e-5));
      CHECK(d.now() == "Climb");
    }
  }
}

TEST_CASE("With the axes of the view the push into the wall is up") {
  Profile profile;
  profile.climb.axes = Profile::Climb::Axes::View;
  Driven d = driven(wall().world(), 60, profile);
  d.play("K :0.3 w:1");
  const Vec3 before = d.state.foot_C;
  CHECK(before.y > 1.0);
  // Looking to the left along the wall, pushing on leads to the left along it.
  InputFrame forward = push(0.0, 1.0);
  forward.look = Vec2(radians(90.0), 0.0);
  d.go(0.5, forward);
  CHECK(d.state.foot_C.x < before.x - 0.4);
  CHECK(d.state.foot_C.y == Approx(before.y).margin(0.02));
}

TEST_CASE("The way up ends over the top where one can stand, in a hang where one cannot, else at the top") {
  Driven over = driven(wall().world());
  over.play("K :0.2 w:4.2 :0.5");
  CHECK(over.now() == "Stand");
  CHECK(over.state.foot_C.y == Approx(5.0).margin(1e-3));
  CHECK(over.states.count("Mantle") == 1);
  Profile hangs;
  hangs.hang.grasps = Profile::Hang::Catch::Button;
  Driven under = driven(wall().stone({0, 5.7, -2.5}, {6, 0.3, 4}).world(), 60, hangs);
  under.play("K :0.2 w:6");
  CHECK(under.now() == "Hang");
  Profile neither = hangs;
  neither.hang.grasps = Profile::Hang::Catch::Never;
  Driven stays = driven(wall().stone({0, 5.7, -2.5}, {6, 0.3, 4}).world(), 60, neither);
  stays.play("K :0.2 w:6");
  CHECK(stays.now() == "Climb");
  CHECK(tells(stays, "climbs no farther: the wall ends"));
}

TEST_CASE(
    "Off the wall: the foot on the floor, letting go, jumping away; and not at once onto the same piece") {
  Driven floor = driven(wall().world());
  floor.play("K :0.2 w:1 b:3");
  CHECK((floor.now() == "Stand" || floor.now() == "Walk"));
  CHECK(floor.state.foot_C.y == Approx(0.0).margin(1e-4));
  Driven let_go = driven(wall().world());
  let_go.play("K :0.2 w:1.5 C");
  CHECK_FALSE(let_go.state.holding());
  let_go.play("k:0.2");
  CHECK_FALSE(let_go.state.holding());  // Held, within the pause.
  Driven jumps = driven(wall().world());
  jumps.play("K :0.2 w:1.5 J j:0.1");
  CHECK(jumps.now() == "Rise");
  CHECK(jumps.state.velocity_C.z > 1.0);
  jumps.play(":2");
  CHECK(jumps.now() == "Stand");
}

TEST_CASE(
    "Who comes down with the button held, or by stick or touch, stands on the floor and does not take hold "
    "again") {
  for (const auto grip :
       {Profile::Climb::Grip::Button, Profile::Climb::Grip::Stick, Profile::Climb::Grip::Always}) {
    for (const double yaw : {0.0, 90.0, 180.0}) {
      INFO(static_cast<int>(grip) << ", looking " << yaw << " degrees away");
      Driven d = driven(wall().world());
      d.play("K kw:0.8");
      REQUIRE(d.now() == "Climb");
      d.profile.climb.grip = grip;
      InputFrame down = held({Action::Climb}, 0.0, -1.0);
      down.look = Vec2(radians(yaw), 0.0);
      for (int i = 0; i < 120 && !d.state.grounded(); ++i) d.go(1.0 / 60, down);
      d.fired.clear();
      d.go(1.0, down);
      CHECK(d.fired.count("Stand Climb") + d.fired.count("Walk Climb") == 0);
      CHECK(d.state.grounded());
    }
  }
}

TEST_CASE("What stops a part of the way does not stop the rest: up beside a post, along under the top") {
  for (const int hz : {20, 60, 240}) {
    INFO(hz);
    Driven post = driven(wall().stone({1.2, 0, -0.3}, {0.2, 5, 0.6}).world(), hz);
    post.play("K :0.3 wd:2.2");
    CHECK(post.now() == "Climb");
    CHECK(post.state.foot_C.x == Approx(1.1 - 0.3).margin(0.01));
    CHECK(post.state.foot_C.y == Approx(2.2 * std::sqrt(0.5) * post.profile.climb.up_speed).epsilon(0.1));
    CHECK(tells(post, "is in the way"));
    Profile never;
    never.mantle.start = Profile::Mantle::Start::Never;
    never.hang.grasps = Profile::Hang::Catch::Never;
    Driven top = driven(wall().world(), hz, never);
    top.play("K :0.3 w:3.5");
    const double high = top.state.foot_C.y;
    top.play("wd:1");
    CHECK(top.state.foot_C.y == Approx(high).margin(2e-3));
    CHECK(top.state.foot_C.x > 0.6);
  }
}

TEST_CASE("From above one backs over the rim and down, or walks off it facing away") {
  for (const int hz : {20, 60, 240}) {
    INFO(hz);
    Profile profile;
    Driven d(wall().world(), profile, Home{{0, 5, -1.0}, Quat(1, 0, 0, 0), 0.0});
    d.hz = hz;
    d.play(":0.1 K :1.5");
    REQUIRE(d.now() == "Climb");
    CHECK(d.state.foot_C.y == Approx(5.0 - profile.climb.hands).margin(0.05));
    CHECK(d.state.foot_C.z == Approx(-0.5 + profile.capsule.radius + profile.climb.gap).margin(1e-4));
    CHECK(std::abs(wrap_angle(d.state.facing)) < 0.1);
    d.play("b:1");
    CHECK(d.state.foot_C.y < 2.5);
    CHECK(d.now() == "Climb");
  }
  // Too far from the rim there is none.
  Driven far(wall().world(), {}, Home{{0, 5, -2.5}, Quat(1, 0, 0, 0), 0.0});
  far.play(":0.1 K :0.5");
  CHECK(far.now() == "Stand");
}

TEST_CASE("From piece to piece, and with one that moves, rises and turns, at the gap") {
  const Driven across = [] {
    Driven d = driven(Garden().ivy({0, 0, -2.5}, {2, 5, 4}).ivy({2.0, 0, -2.5}, {2, 5, 4}).world());
    d.play("K :0.3 w:0.5 d:1.5");
    return d;
  }();
  CHECK(across.now() == "Climb");
  CHECK(across.state.hold.piece == 2u);
  using Keys = std::vector<PieceMotion::Key>;
  for (const Keys& keys : {Keys{{0.0}, {0.5, Vec3(0, 3, 0)}, {1.0}}, Keys{{0.0}, {0.5, Vec3(4, 0, 2)}, {1.0}},
                           Keys{{0.0}, {1.0, Vec3(0.0), Vec3(2.0 * kPi, 0, 0)}}}) {
    for (const int hz : {20, 60, 240}) {
      INFO(hz);
      Driven d = driven(Garden().moving(keys, 8.0, {0, 0, -2.5}, {6, 5, 4}).world(), hz);
      d.play("K :0.3 w:0.8");
      REQUIRE(d.now() == "Climb");
      const auto foot_P = [&] { return d.world.piece_frame(1, d.state.time).back(d.state.foot_C); };
      const Vec3 first = foot_P();
      d.play(":6");
      CHECK(d.now() == "Climb");
      CHECK(length(foot_P() - first) < 1e-3);
      CHECK(d.state.penetration < d.profile.capsule.margin);
    }
  }
}

TEST_CASE("The walk of it all: up the ivy, sideways, round a corner, over the top, back down, to the floor") {
  std::optional<Vec3> first;
  for (const Frame& frame : frames()) {
    for (const int hz : {20, 24, 60, 144, 240}) {
      INFO(frame.name << ", " << hz << " ticks/s");
      Driven d = driven(wall(frame).world(), hz, {}, frame);
      const auto foot = [&] { return frame.back(d.state.foot_C); };
      const auto go = [&](double seconds, double right, double forward) {
        d.go(seconds, push(right, forward));
      };
      d.play("K");
      go(0.5, 0, 0);
      REQUIRE(d.now() == "Climb");
      go(1.5, 0, 1);
      go(4.0, 1, 0);  // Along the face and round its end.
      REQUIRE(d.now() == "Climb");
      CHECK(foot().x > 3.0);
      CHECK(foot().z < -0.5);
      const Vec3 round = foot();
      for (int i = 0; i < 5 * hz && !d.state.grounded(); ++i) d.go(1.0 / hz, push(0, 1));  // Over the top.
      go(0.3, 0, 0);
      REQUIRE(d.now() == "Stand");
      CHECK(foot().y == Approx(5.0).margin(1e-3));
      d.tap(Action::Climb, push(1, 0));  // And back over the rim.
      go(1.5, 0, 0);
      REQUIRE(d.now() == "Climb");
      go(4.0, 0, -1);
      CHECK(d.state.grounded());
      CHECK(foot().y == Approx(0.0).margin(1e-3));
      if (!first) first = round;
      CHECK(length(round - *first) < 0.01);
      CHECK(d.state.penetration < d.profile.capsule.margin);
    }
  }
}
