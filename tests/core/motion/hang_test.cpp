// SPDX-License-Identifier: MIT
// Hanging: caught, along, round, up, away and down, against rims whose places are known.
#include <catch2/catch.hpp>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Catch_ = Profile::Hang::Catch;

// A wall whose face is 0.5 m ahead, higher than hands reach from the ground.
constexpr double kHigh = 3.3;
Scene wall() { return Scene().floor().block({0, 0, -2.5}, {6, kHigh, 4}); }
Scene roofed_wall() { return wall().block({0, kHigh + 0.6, -2.5}, {6, 0.3, 4}); }

Profile catching(Catch_ grasps = Catch_::Falling) {
  Profile profile;
  profile.hang.grasps = grasps;
  return profile;
}

Driven hanging(const Scene& scene, int hz = 60, const Frame& frame = frames().front(),
               const Profile& profile = catching()) {
  Driven d(scene.world(frame), profile, Home{frame.point(Vec3(0.0)), frame.rotation_CE, 0.0});
  d.hz = hz;
  d.play("J j:0.8");
  return d;
}

// Pieces of which some move.
class Yard {
 public:
  Yard() {
    still();
    add({60, 1, 60}, {0, -1, 0});
  }
  Yard& still() {
    builder_.begin_piece("still");
    return *this;
  }
  Yard& moving(std::vector<PieceMotion::Key> keys, double period, const Vec3& at = Vec3(0.0)) {
    PieceMotion motion;
    motion.keys = std::move(keys);
    motion.period = period;
    motion.at_C = at;
    builder_.begin_moving_piece("mover", motion);
    return *this;
  }
  Yard& add(const Vec3& size, const Vec3& at) {
    for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}})) builder_.add(t);
    return *this;
  }
  TriangleWorld world() { return builder_.commit({Box{Vec3(-1e4), Vec3(1e4)}}); }

 private:
  TriangleWorld::Builder builder_;
};

bool says(const Driven& d, const std::string& beginning) {
  for (const std::string& s : d.told) UNSCOPED_INFO(s);
  return std::any_of(d.told.begin(), d.told.end(),
                     [&](const std::string& s) { return s.rfind(beginning, 0) == 0; });
}

}  // namespace

TEST_CASE(
    "A rim that the hands reach in a jump catches, and one hangs below it at hands' height, at any rate") {
  for (const Frame& frame : frames()) {
    for (const int hz : tick_rates()) {
      INFO(frame.name << ", " << hz);
      const Driven d = hanging(wall(), hz, frame);
      REQUIRE(d.now() == "Hang");
      const Vec3 foot = frame.back(d.state.foot_C);
      CHECK(foot.x == Approx(0.0).margin(1e-4));
      CHECK(foot.y == Approx(kHigh - d.profile.hang.hands).margin(1e-4));
      CHECK(foot.z == Approx(-0.5 + 0.32).margin(1e-4));
      CHECK(length(d.state.velocity_C) < 1e-5);
      CHECK(deepest_overlap(d.state, d.profile, d.world) < d.profile.capsule.margin);
    }
  }
}

TEST_CASE("It takes being asked for, a rim that is faced, and not to rise too fast") {
  const auto end = [](const std::string& drive, const Profile& profile, double yaw = 0.0) {
    Driven d(wall().world(), profile, Home{Vec3(0.0), Quat(1, 0, 0, 0), yaw});
    d.play(drive);
    return d.states.count("Hang") > 0;
  };
  CHECK(end("J j:0.8", catching()));
  CHECK_FALSE(end("J cj:0.8", catching()));
  CHECK_FALSE(end("J j:0.8", catching(Catch_::Never)));
  CHECK_FALSE(end("J j:0.8", catching(Catch_::Button)));
  CHECK_FALSE(end("J j:0.8", catching(), radians(75.0)));
  CHECK(end("J j:0.8", catching(), radians(50.0)));
  Profile wide = catching();
  wide.hang.facing = radians(90.0);
  CHECK(end("J j:0.8", wide, radians(75.0)));
  // By the button a mantle comes first where there is room; where there is none, the hands stay at the rim.
  Driven roofed(roofed_wall().world(), catching(Catch_::Button));
  roofed.play("J j:0.3 jk:0.5");
  CHECK(roofed.now() == "Hang");
  const auto rise_when_caught = [](const Profile& profile) {
    Driven d(wall().world(), profile);
    d.play("J");
    while (d.now() == "Rise") {
      const double rise = d.state.velocity_C.y;
      d.play("j");
      if (d.now() == "Hang") return rise;
    }
    return -1e9;
  };
  CHECK(rise_when_caught(catching()) <= Profile().hang.rising + Profile().gravity / 60);
  CHECK(rise_when_caught(catching(Catch_::Always)) > Profile().hang.rising);
}

TEST_CASE("However fast it falls, at any rate, a rim is not passed between two ticks") {
  for (const int hz : {20, 60, 240}) {
    for (const double speed : {5.0, 20.0, 30.0}) {
      for (const double from : {9.0, 9.3, 9.77}) {
        INFO(hz << " ticks/s, " << speed << " m/s, " << from);
        Driven d(wall().world(), catching());
        d.hz = hz;
        d.state.foot_C = {0, from, -0.15};
        d.state.velocity_C = {0, -speed, 0};
        d.state.ground = Ground{};
        d.play(":2");
        CHECK(d.now() == "Hang");
        CHECK(d.state.foot_C.y == Approx(kHigh - d.profile.hang.hands).margin(1e-4));
      }
    }
  }
}

TEST_CASE("Along the rim, round its corner, at the pace that is set, the same at any rate") {
  std::optional<Vec3> first;
  for (const int hz : {20, 24, 60, 144, 240}) {
    INFO(hz);
    Driven d = hanging(wall(), hz);
    d.play("d:1");
    CHECK(d.state.foot_C.x == Approx(d.profile.hang.speed * (1.0 + 1.0 / hz)).margin(0.001));
    // Round the corner: looking along the wall, as far round as one still pushes along it.
    d.play("d:3");
    REQUIRE(d.now() == "Hang");
    CHECK(d.state.foot_C.x > 3.0);
    if (!first) first = d.state.foot_C;
    CHECK(length(d.state.foot_C - *first) < 0.01);
  }
}

TEST_CASE("Half a stick goes along at half the pace") {
  Driven d = hanging(wall());
  InputFrame half = push(0.0, 0.0);
  const double dead = d.profile.look.dead_zone;
  half.move = {dead + 0.5 * (1.0 - dead), 0.0};
  const double share = std::pow(0.5, d.profile.look.stick_power);
  d.go(1.0, half);
  CHECK(d.state.foot_C.x == Approx(d.profile.hang.speed * share).epsilon(0.35));
  CHECK(d.state.foot_C.x < 0.75 * d.profile.hang.speed);
}

TEST_CASE("From a rim one gets up where there is room, down, and away") {
  Driven up = hanging(wall());
  up.play("K :1.5");
  CHECK(up.state.foot_C.y == Approx(kHigh).margin(1e-4));
  CHECK(up.now() == "Stand");
  Driven jumped_up = hanging(wall());
  jumped_up.play("J :1.5");
  CHECK(jumped_up.state.foot_C.y == Approx(kHigh).margin(1e-4));
  Driven down = hanging(wall());
  down.play("C :1");
  CHECK(down.state.foot_C.y == Approx(0.0).margin(1e-6));
  CHECK(down.now() == "Stand");
  Driven away = hanging(wall());
  away.play("bJ bj:0.1");
  CHECK(away.now() == "Rise");
  away.play("b:1.5");
  CHECK(away.state.foot_C.z > 1.0);
}

TEST_CASE("Where there is no room above, each way of asking tells why, and one hangs on") {
  for (const std::string ask : {"K", "J"}) {
    Driven d = hanging(roofed_wall());
    REQUIRE(d.now() == "Hang");
    d.told.clear();
    d.play(ask + " :0.2");
    CHECK(d.now() == "Hang");
    REQUIRE(d.told.size() == 1);
    CHECK_THAT(d.told[0], Catch::StartsWith("mantle refused"));
  }
}

TEST_CASE("Who lets go is not caught by the same rim again, but by one below it") {
  Driven same = hanging(wall());
  same.play("C");
  for (int i = 0; i < 20; ++i) {
    same.play(":0.016667");
    CHECK(same.now() != "Hang");
  }
  // A slot in the wall 1.6 m below the rim.
  Driven below(Scene().floor().block({0, 0, -2.5}, {6, 3.4, 4}).block({0, 3.9, -2.5}, {6, 1.1, 4}).world(),
               catching());
  below.state.foot_C = {0, 5.0 - below.profile.hang.hands + 0.2, -0.15};
  below.state.ground = Ground{};
  below.play(":0.5");
  REQUIRE(below.now() == "Hang");
  CHECK(below.state.foot_C.y == Approx(5.0 - below.profile.hang.hands).margin(1e-4));
  below.play("C :0.35");
  REQUIRE(below.now() == "Hang");
  below.play(":0.3");
  CHECK(below.state.foot_C.y == Approx(3.4 - below.profile.hang.hands).margin(1e-4));
}

TEST_CASE("On what rises, sinks, crosses and turns one hangs as on what stands, and goes along it") {
  using Keys = std::vector<PieceMotion::Key>;
  const std::pair<const char*, Keys> motions[] = {
      {"lift", Keys{{0.0}, {0.5, Vec3(0, 2.5, 0)}, {1.0}}},
      {"ferry", Keys{{0.0}, {0.5, Vec3(5, 0, 3)}, {1.0}}},
      {"turntable", Keys{{0.0}, {1.0, Vec3(0.0), Vec3(2.0 * kPi, 0, 0)}}},
  };
  for (const auto& [name, keys] : motions) {
    for (const int hz : {20, 60, 240}) {
      INFO(name << ", " << hz << " ticks/s");
      Driven d(Yard().moving(keys, 8.0, {0, 0, -2.5}).add({6, 2.0, 4}, {0, 0, 0}).world(), catching());
      d.hz = hz;
      d.state.foot_C = {0, 0.4, -0.15};
      d.state.ground = Ground{};
      d.play(":0.3");
      REQUIRE(d.now() == "Hang");
      const auto foot_P = [&] { return d.world.piece_frame(1, d.state.time).back(d.state.foot_C); };
      const Vec3 first = foot_P();
      CHECK(first.y == Approx(2.0 - d.profile.hang.hands).margin(1e-4));
      CHECK(first.z == Approx(2.0 + 0.32).margin(1e-4));
      d.play(":7.7");
      CHECK(d.now() == "Hang");
      CHECK(length(foot_P() - first) < 1e-3);
      CHECK(d.state.penetration < d.profile.capsule.margin);
    }
  }
}

TEST_CASE(
    "What ends a hold is told: a rim that turns steep, a lid over it, a thing that pushes, a rim that goes") {
  const auto let_go = [](TriangleWorld world, double height = 0.4) {
    Driven d(std::move(world), catching());
    d.state.foot_C = {0, height, -0.15};
    d.state.ground = Ground{};
    d.play(":0.3");
    CHECK(d.now() == "Hang");
    d.play(":2.5");
    CHECK(d.now() != "Hang");
    return d;
  };
  const auto turning = [&](const Vec3& to_degrees) {
    const Vec3 to(radians(to_degrees.x), radians(to_degrees.y), radians(to_degrees.z));
    return let_go(Yard()
                      .moving({{0.0}, {0.2}, {1.0, Vec3(0.0), to}}, 2.0, {0, 4, -2.5})
                      .add({6, 2.0, 4}, {0, 0, 0})
                      .world(),
                  4.4);
  };
  CHECK(says(turning({0, 0, 55}), "lets go: the shelf of “mover” has become too steep"));
  CHECK(says(turning({0, -55, 0}), "lets go: the wall of “mover” leans too far"));
  CHECK(says(turning({0, 60, 0}), "lets go: the rim is no longer there"));
  const Driven lid =
      let_go(Yard()
                 .still()
                 .add({6, 2.0, 4}, {0, 0, -2.5})
                 .moving({{0.0}, {0.2}, {0.6, Vec3(0, 0, 3.5)}, {1.0, Vec3(0, 0, 3.5)}}, 2.0, {0, 2.03, -5.6})
                 .add({6, 0.3, 4}, {0, 0, 0})
                 .world());
  CHECK(says(lid, "lets go: “mover” leaves no room for the hands"));
  const Driven pushed =
      let_go(Yard()
                 .still()
                 .add({6, 2.0, 4}, {0, 0, -2.5})
                 .moving({{0.0}, {0.2}, {0.6, Vec3(4, 0, 0)}, {1.0, Vec3(4, 0, 0)}}, 2.0, {-3, 0.3, -0.2})
                 .add({1, 1, 0.5}, {0, 0, 0})
                 .world());
  CHECK(says(pushed, "lets go: pushed off by “mover”"));
}

TEST_CASE("Who turns to a rim that moves away meanwhile stays where the hands are, and may turn back") {
  for (const int hz : tick_rates()) {
    for (const double begun : {0.2, 0.3, 0.38}) {
      INFO(hz << " ticks/s, the rim leaves when the turn has gone on for " << begun << " s");
      // Pushed towards both walls, so that one goes on round the corner.
      const double to_corner = (1.5 - 0.32) / (Profile{}.hang.speed * std::sqrt(0.5));
      const double leaves = (0.3 + to_corner + begun) / 20.0;
      Driven d(Yard()
                   .still()
                   .add({6, 2.0, 4}, {0, 0, -2.5})
                   .moving({{0.0}, {leaves}, {leaves + 0.005, Vec3(0, 3, 0)}, {1.0, Vec3(0, 3, 0)}}, 20.0,
                           {3.5, 0, 1.5})
                   .add({4, 2.0, 4}, {0, 0, 0})
                   .world(),
               catching());
      d.hz = hz;
      d.state.foot_C = {0, 0.4, -0.15};
      d.state.ground = Ground{};
      d.play(":0.3");
      REQUIRE(d.now() == "Hang");
      d.go(to_corner + 2.0, push(0.7, -0.7));
      CHECK(d.now() == "Hang");
      CHECK(d.state.hold.rim().turn_left > 0.0f);
      CHECK(d.state.foot_C.x == Approx(1.5 - 0.32).margin(0.01));
      CHECK(d.state.foot_C.y == Approx(2.0 - d.profile.hang.hands).margin(1e-3));
      d.go(to_corner + 1.5, push(-0.7, 0.7));
      CHECK(d.now() == "Hang");
      CHECK(d.state.foot_C.x < 0.5);
    }
  }
}

TEST_CASE(
    "Where the wall below the rim begins to lean back the body swings to its new place, and no farther than "
    "arms reach") {
  // To the right of x = 0 the wall leans back by so many degrees, with the rim going on.
  const auto bent = [](double lean) {
    const double out = -0.5 + kHigh * std::tan(radians(lean));
    Scene scene;
    scene.floor().block({-2, 0, -2.5}, {4, kHigh, 4});
    const Vec3 a(0, 0, out), b(4, 0, out), c(4, kHigh, -0.5), d(0, kHigh, -0.5), e(4, kHigh, -4.5),
        f(0, kHigh, -4.5);
    scene.triangle({a, b, c}).triangle({a, c, d}).triangle({d, c, e}).triangle({d, e, f}).triangle({a, d, f});
    return scene.world();
  };
  for (const int hz : tick_rates()) {
    INFO(hz);
    Driven d(bent(9.0), catching());
    d.hz = hz;
    d.state.foot_C = {1.0, 1.6, 0.2};
    d.state.ground = Ground{};
    d.play(":0.4");
    REQUIRE(d.now() == "Hang");
    const double reach = d.state.foot_C.z + 0.5;
    CHECK(reach > 0.5);
    double fastest = 0.0;
    for (int i = 0; i < 2 * hz; ++i) {
      const Vec3 before = d.state.foot_C;
      d.go(1.0 / hz, push(-1.0, 0.0));
      fastest = std::max(fastest, length(d.state.foot_C - before) * hz);
    }
    REQUIRE(d.now() == "Hang");
    CHECK(d.state.foot_C.x < -0.5);
    CHECK(d.state.foot_C.z == Approx(-0.5 + 0.32).margin(1e-4));
    CHECK(fastest < 4.0);
  }
  Driven steep(bent(30.0), catching());
  steep.state.foot_C = {2.0, 1.6, 1.0};
  steep.state.ground = Ground{};
  steep.play(":0.6");
  CHECK(steep.states.count("Hang") == 0);
}

TEST_CASE("What throws one off is not held on to again and again in one tick") {
  // Between two blocks that close.
  Driven d(Yard()
               .still()
               .add({6, 2.0, 4}, {0, 0, -2.5})
               .moving({{0.0}, {0.2}, {0.4, Vec3(0, 0, -0.4)}, {1.0, Vec3(0, 0, -0.4)}}, 4.0, {0, 0.3, 0.75})
               .add({2, 1.5, 1}, {0, 0, 0})
               .world(),
           catching(Catch_::Always));
  d.state.foot_C = {0, 0.4, -0.15};
  d.state.ground = Ground{};
  d.play(":0.3");
  CHECK(d.now() == "Hang");
  d.told.clear();
  d.play(":1.2");
  CHECK(std::count_if(d.told.begin(), d.told.end(),
                      [](const std::string& s) { return s.rfind("lets go", 0) == 0; }) <= 3);
}

TEST_CASE("A capsule that was tucked when it was caught hangs at its length, and the feed tells the hold") {
  Driven d(wall().world(), catching());
  d.play("cJ cj:0.35 j:0.6");
  REQUIRE(d.now() == "Hang");
  CHECK(d.state.capsule_height == Approx(d.profile.capsule.height).margin(1e-6));
  const PoseFeed feed = pose_feed(d.state, d.state, d.profile, 1.0 / 60);
  CHECK(feed.hold == "hang");
  CHECK(feed.hold_phase == 1.0);
  CHECK(length(feed.hold_rim_P - Vec3(0, kHigh, -0.5)) < 1e-3);
  CHECK(length(feed.hold_away_P - Vec3(0, 0, 1)) < 1e-6);
  CHECK(length(feed.hold_along_P - Vec3(1, 0, 0)) < 1e-6);
  CHECK(feed.hold_wall == Approx(0.32).margin(1e-3));
  // Below a shelf without a wall the feet hang free.
  Driven free(Scene().floor().block({0, kHigh - 0.2, -2.5}, {6, 0.2, 4}).world(), catching());
  free.play("J j:0.8");
  REQUIRE(free.now() == "Hang");
  CHECK(pose_feed(free.state, free.state, free.profile, 1.0 / 60).hold_wall == 0.0);
}

TEST_CASE(
    "Driven about at random along the rims of random blocks one never overlaps and never holds on to nothing") {
  int hung = 0;
  for (std::uint64_t seed = 1; seed <= 24; ++seed) {
    INFO(seed);
    Random random(seed);
    Scene scene;
    scene.floor();
    for (int i = 0; i < 9; ++i) {
      const Vec3 size(random.between(0.4, 3.0), random.between(1.8, 3.4), random.between(0.4, 3.0));
      scene.block({random.between(-3, 3), 0, random.between(-3, 3)}, size,
                  {random.between(-180, 180), random.between(-8, 8), 0});
    }
    const Frame& frame = frames()[seed % frames().size()];
    Profile profile = catching(seed % 2 == 0 ? Catch_::Always : Catch_::Falling);
    Driven d(scene.world(frame), profile, Home{frame.point({4.5, 0, 4.5}), frame.rotation_CE, radians(45.0)});
    d.hz = tick_rates()[seed % tick_rates().size()];
    double yaw = radians(45.0);
    for (int turn = 0; turn < 40; ++turn) {
      if (random.below(3) == 0) yaw = random.between(-kPi, kPi);
      InputFrame input = push(random.between(-1, 1), random.between(-0.3, 1));
      input.look = Vec2(yaw, 0.0);
      Buttons pressed;
      if (d.state.grounded()) pressed.set(Action::Jump, random.below(3) > 0);
      if (d.state.holding()) pressed.set(Action::Climb, random.below(12) == 0);
      input.held.set(Action::Jump, true);
      for (int i = 0; i < 8; ++i) {
        d.go(2.0 / d.hz, input, pressed);
        pressed = {};
        CHECK(d.state.penetration < profile.capsule.margin + 1e-6);
        if (d.state.hold.kind != Hold::Kind::Hang) continue;
        ++hung;
        CHECK(deepest_overlap(d.state, profile, d.world) < profile.capsule.margin + 1e-6);
      }
    }
  }
  CHECK(hung > 250);
}
