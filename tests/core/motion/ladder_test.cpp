// SPDX-License-Identifier: MIT
// Ladders: on and off at the top, the bottom and the sides, along the middle line, and with one that moves.
#include <catch2/catch.hpp>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr shape::Ladder kLadder{0.5, 4.0, 0.3};

// A place around a ladder, in the easy frame.
class Yard {
 public:
  explicit Yard(const Frame& frame = frames().front()) : frame_(frame) { block({0, -1, 0}, {80, 1, 80}); }
  Yard& block(const Vec3& at, const Vec3& size, bool climbable = false) {
    Surface surface;
    surface.climbable = climbable;
    return block(at, size, surface);
  }
  Yard& block(const Vec3& at, const Vec3& size, const Surface& surface) {
    builder_.begin_piece(surface.climbable ? "ivy" : "stone");
    for (const Triangle& t : triangles_of({"", at, Vec3(0.0), "", shape::Block{size}}))
      builder_.add(frame_.triangle(t), surface);
    return *this;
  }
  Yard& ladder(const Vec3& at, const Vec3& turn = Vec3(0.0), const shape::Ladder& shape = kLadder) {
    builder_.begin_piece("ladder");
    Piece piece{"", at, Vec3(0.0), "", shape};
    piece.turn = turn;
    for (const Triangle& t : triangles_of(piece)) builder_.add(frame_.triangle(t));
    const Quat rotation = frame_.rotation_CE * rotation_of(turn);
    Ladder ladder;
    ladder.base_C = frame_.point(at);
    ladder.along_C = rotation * Vec3(0, 1, 0);
    ladder.front_C = rotation * Vec3(0, 0, 1);
    ladder.width = shape.width;
    ladder.height = shape.height;
    ladder.first = ladder.spacing = shape.spacing;
    builder_.set_ladder(ladder);
    return *this;
  }
  TriangleWorld world() { return builder_.commit({Box{Vec3(-1e6), Vec3(1e6)}}); }

 private:
  const Frame& frame_;
  TriangleWorld::Builder builder_;
};

Driven driven(TriangleWorld world, const Vec3& foot, int hz = 60, double yaw = 0.0, const Profile& profile = {},
              const Frame& frame = frames().front()) {
  Driven d(std::move(world), profile, Home{frame.point(foot), frame.rotation_CE, radians(yaw)});
  d.hz = hz;
  return d;
}

// Goes on tick by tick, and never deeper into anything than the margin.
void go(Driven& d, double seconds, const InputFrame& input) {
  for (long i = std::lround(seconds * d.hz); i > 0; --i) {
    d.go(1.0 / d.hz, input);
    CHECK(deepest_overlap(d.state, d.profile, d.world) <= d.profile.capsule.margin + 1e-6);
  }
}

double reach_of(const Driven& d) { return d.profile.capsule.radius + d.profile.climb.gap + 0.035; }

}  // namespace

TEST_CASE("A ladder is climbed along its middle at one gap, as fast as is set, at every rate and up") {
  for (const Frame& frame : frames()) {
    for (const int hz : tick_rates()) {
      INFO(frame.name << ", " << hz);
      Driven d = driven(Yard(frame).ladder({0, 0, 0}).world(), {0.15, 0, 0.7}, hz, 0.0, {}, frame);
      const auto foot = [&] { return frame.back(d.state.foot_C); };
      d.play("K :0.3");
      REQUIRE(d.now() == "Climb");
      CHECK(std::abs(foot().x) < 1e-5);
      CHECK(foot().z == Approx(reach_of(d)).margin(1e-5));
      const double before = foot().y;
      go(d, 1.0, push(0.3, 1.0));  // A little to the side does nothing.
      CHECK(d.now() == "Climb");
      CHECK(std::abs(foot().x) < 1e-5);
      CHECK(foot().z == Approx(reach_of(d)).margin(1e-5));
      const double share = foot().y - before;
      CHECK(share > 0.9 * d.profile.climb.up_speed);
      CHECK(share < 1.05 * d.profile.climb.up_speed);
      go(d, 0.5, push(0.0, -0.5));
      CHECK(foot().y < before + share - 0.1);
      CHECK(d.now() == "Climb");
    }
  }
}

TEST_CASE(
    "One gets on from the front, the back, either side, askew, and exactly beside it, around the stiles") {
  struct Start {
    Vec3 foot;
    double yaw;
  };
  for (const Start& start :
       {Start{{0.0, 0, 0.7}, 0.0}, Start{{0.0, 0, -0.7}, 180.0}, Start{{0.75, 0, 0.0}, 90.0},
        Start{{-0.75, 0, 0.0}, -90.0}, Start{{0.75, 0, 0.2}, 90.0}, Start{{-0.75, 0, -0.1}, -90.0},
        Start{{0.5, 0, 0.6}, 45.0}, Start{{0.4, 0, 0.6}, 0.0}}) {
    for (const int hz : {20, 60, 240}) {
      INFO(start.foot.x << " " << start.foot.z << ", " << hz);
      Driven d = driven(Yard().ladder({0, 0, 0}).world(), start.foot, hz, start.yaw);
      d.tap(Action::Climb);
      go(d, 0.6, {});
      REQUIRE(d.now() == "Climb");
      CHECK(std::abs(d.state.foot_C.x) < 1e-5);
      CHECK(std::abs(d.state.foot_C.z) == Approx(reach_of(d)).margin(1e-5));
      if (std::abs(start.foot.z) > 0.05) CHECK(d.state.foot_C.z * start.foot.z > 0.0);
    }
  }
  // With a wall close behind it, from the side onto the front.
  Driven d =
      driven(Yard().ladder({0, 0, 0}).block({0, 0, -0.6}, {6, 5, 0.8}).world(), {0.8, 0, 0.15}, 60, 90.0);
  d.tap(Action::Climb);
  go(d, 0.6, {});
  CHECK(d.now() == "Climb");
  CHECK(d.state.foot_C.z == Approx(reach_of(d)).margin(1e-5));
}

TEST_CASE("By stick or touch a ladder is taken hold of when it is pushed towards, not in passing") {
  Profile stick;
  stick.climb.grip = Profile::Climb::Grip::Stick;
  Driven towards = driven(Yard().ladder({0, 0, 0}).world(), {0, 0, 1.2}, 60, 0.0, stick);
  towards.play("w:0.8");
  CHECK(towards.states.count("Climb") == 1);
  Driven past = driven(Yard().ladder({0, 0, 0}).world(), {-1.5, 0, 0.5}, 60, 0.0, stick);
  past.play("d:1");
  CHECK(past.states.count("Climb") == 0);
}

TEST_CASE("At its end one goes over onto what is behind it, level, higher or lower, at any distance") {
  for (const double rim : {3.6, 3.8, 4.0, 4.3}) {
    for (const double gap : {0.04, 0.15, 0.3}) {
      for (const int hz : {20, 60, 240}) {
        INFO("rim " << rim << ", gap " << gap << ", " << hz);
        Driven d =
            driven(Yard().ladder({0, 0, 0}).block({0, 0, -2.035 - gap}, {6, rim, 4}).world(), {0, 0, 0.7}, hz);
        d.tap(Action::Climb);
        for (int i = 0; i < 5 * hz && !(d.state.grounded() && d.state.foot_C.y > 1.0); ++i)
          go(d, 1.0 / hz, push(0, 1));
        go(d, 0.3, {});
        CHECK(d.now() == "Stand");
        CHECK(d.state.foot_C.y == Approx(rim).margin(1e-3));
        CHECK(d.state.foot_C.z < -0.3);
      }
    }
  }
  // Where nobody can stand one stays at its end, told; and one that leads nowhere is no rim to hang from.
  Profile hangs;
  hangs.hang.grasps = Profile::Hang::Catch::Button;
  Driven end =
      driven(Yard().ladder({0, 0, 0}).block({0, 0, -2.2}, {6, 6, 4}).world(), {0, 0, 0.7}, 60, 0.0, hangs);
  end.play("K :0.3 w:4");
  CHECK(end.now() == "Climb");
  CHECK(end.state.foot_C.y == Approx(4.0 - end.profile.climb.hands).margin(1e-4));
  CHECK(tells(end, "climbs no farther"));
}

TEST_CASE("From above one backs onto it, over its end too, and comes down to the floor", "[long]") {
  for (const Frame& frame : frames()) {
    for (const double rim : {3.7, 4.0, 4.2}) {
      for (const int hz : {20, 60, 240}) {
        INFO(frame.name << ", rim " << rim << ", " << hz);
        Driven d = driven(Yard(frame).ladder({0, 0, 0}).block({0, 0, -2.1}, {6, rim, 4}).world(),
                          {0.1, rim, -0.45}, hz, 0.0, {}, frame);
        const auto foot = [&] { return frame.back(d.state.foot_C); };
        go(d, 0.1, {});
        d.tap(Action::Climb);
        go(d, 2.0, {});
        REQUIRE(d.now() == "Climb");
        CHECK(std::abs(foot().x) < 1e-5);
        CHECK(foot().z == Approx(reach_of(d)).margin(1e-5));
        CHECK(foot().y < rim - 0.8);
        CHECK(std::abs(wrap_angle(d.state.facing)) < 0.1);
        go(d, 3.0, push(0, -1));
        CHECK(d.state.grounded());
        CHECK(foot().y == Approx(0.0).margin(1e-3));
      }
    }
  }
}

TEST_CASE("At the bottom the foot on the floor ends it; one that hangs in the air ends at its lowest rung") {
  Driven floor = driven(Yard().ladder({0, 0, 0}).world(), {0, 0, 0.7});
  floor.play("K :0.3 w:1 b:2");
  CHECK((floor.now() == "Stand" || floor.now() == "Walk"));
  CHECK(floor.state.foot_C.y == Approx(0.0).margin(1e-4));
  Driven air = driven(Yard().ladder({0, 2.0, 0}).world(), {0, 0, 0.6});
  air.play("J j:0.25 jk:0.4");
  REQUIRE(air.now() == "Climb");
  air.play("b:1.5");
  CHECK(air.now() == "Climb");
  CHECK(air.state.foot_C.y == Approx(2.3 - air.profile.climb.hands).margin(1e-4));
  CHECK(tells(air, "climbs no farther"));
  air.play("C :0.5");
  CHECK(air.state.grounded());
}

TEST_CASE("To the side one steps onto a floor there, level, higher and lower") {
  for (const Frame& frame : frames()) {
    for (const double side : {-1.0, 1.0}) {
      for (const double over : {-0.3, 0.0, 0.3}) {
        INFO(frame.name << ", to " << side << ", floor " << over << " m over the foot");
        const double top = 1.5 + over;
        Yard yard(frame);
        yard.ladder({0, 0, 0}).block({side * (0.3 + 1.0), top - 0.3, 0}, {2, 0.3, 4});
        Driven d = driven(yard.world(), {0, 0, 0.7}, 60, 0.0, {}, frame);
        const auto foot = [&] { return frame.back(d.state.foot_C); };
        d.tap(Action::Climb);
        while (foot().y < 1.5 && d.state.time < 5.0) go(d, 1.0 / 60, push(0, 1));
        for (int i = 0; i < 120 && !d.state.grounded(); ++i) go(d, 1.0 / 60, push(side, 0));
        CHECK(d.state.grounded());
        CHECK(foot().y == Approx(top).margin(1e-3));
        CHECK(foot().x * side > 0.3);
        CHECK(d.fired.count("Climb Fall") == 0);
      }
    }
  }
  // One that begins so far away that the foot would slip off its edge is stepped onto farther in.
  Driven edge = driven(Yard().ladder({0, 0, 0}).block({0.85 + 1.0, 1.2, 0}, {2, 0.3, 4}).world(), {0, 0, 0.7});
  edge.tap(Action::Climb);
  while (edge.state.foot_C.y < 1.5 && edge.state.time < 5.0) go(edge, 1.0 / 60, push(0, 1));
  for (int i = 0; i < 120 && !edge.state.grounded(); ++i) go(edge, 1.0 / 60, push(1, 0));
  go(edge, 0.5, {});
  CHECK(edge.now() == "Stand");
  CHECK(edge.state.foot_C.y == Approx(1.5).margin(1e-3));
  // Where there is none, or only what nobody stands on, one stays on it.
  Surface slime;
  slime.walk = Surface::Walk::Never;
  Driven slippery =
      driven(Yard().ladder({0, 0, 0}).block({1.3, 1.2, 0}, {2, 0.3, 4}, slime).world(), {0, 0, 0.7});
  slippery.tap(Action::Climb);
  while (slippery.state.foot_C.y < 1.5 && slippery.state.time < 5.0) go(slippery, 1.0 / 60, push(0, 1));
  go(slippery, 1.0, push(1, 0));
  CHECK(slippery.now() == "Climb");
  Driven d = driven(Yard().ladder({0, 0, 0}).world(), {0, 0, 0.7});
  d.play("K :0.3 w:0.8 d:1");
  CHECK(d.now() == "Climb");
  CHECK(std::abs(d.state.foot_C.x) < 1e-5);
}

TEST_CASE("From a ladder to the climbable wall beside it and back, around the stile") {
  for (const int hz : {20, 60, 240}) {
    INFO(hz);
    Driven d = driven(Yard().ladder({0, 0, 0}).block({0, 0, -2.25}, {8, 5, 4}, true).world(), {0, 0, 0.7}, hz);
    d.tap(Action::Climb);
    go(d, 0.3, {});
    go(d, 0.8, push(0, 1));
    REQUIRE(d.state.hold.piece == 1u);
    for (int i = 0; i < hz && d.state.hold.piece == 1u; ++i) go(d, 1.0 / hz, push(1, 0));
    REQUIRE(d.state.hold.piece == 2u);
    go(d, 0.5, push(1, 0));
    CHECK(d.now() == "Climb");
    CHECK(d.state.foot_C.x > 0.6);
    CHECK(d.state.foot_C.z == Approx(-0.25 + d.profile.capsule.radius + d.profile.climb.gap).margin(1e-4));
    for (int i = 0; i < 3 * hz && d.state.hold.piece == 2u; ++i) go(d, 1.0 / hz, push(-1, 0));
    go(d, 0.3, {});
    CHECK(d.state.hold.piece == 1u);
    CHECK(std::abs(d.state.foot_C.x) < 1e-5);
    CHECK(d.state.foot_C.z == Approx(reach_of(d)).margin(1e-5));
  }
}

TEST_CASE("A jump off it goes away from it, and with the stick to the side, to that side") {
  Driven away = driven(Yard().ladder({0, 0, 0}).world(), {0, 0, 0.7});
  away.play("K :0.3 w:1 J j:0.1");
  CHECK(away.now() == "Rise");
  CHECK(away.state.velocity_C.z > 1.0);
  Driven aside = driven(Yard().ladder({0, 0, 0}).world(), {0, 0, 0.7});
  aside.play("K :0.3 w:1");
  go(aside, 1.0 / 60, push(1, 0));
  aside.tap(Action::Jump, push(1, 0));
  CHECK(aside.now() == "Rise");
  CHECK(aside.state.velocity_C.x > 1.0);
  CHECK(std::abs(aside.state.velocity_C.z) < 0.5);
}

TEST_CASE("A leaning ladder is climbed upright before it at the gap; one that leans too far is refused, told") {
  for (const double lean : {-20.0, 20.0}) {
    for (const int hz : {20, 60, 240}) {
      INFO(lean << " degrees, " << hz);
      const Vec3 turn(0.0, radians(lean), 0.0);
      Driven d = driven(Yard().ladder({0, 0, 0}, turn).world(), {0, 0, lean < 0.0 ? 0.5 : 1.0}, hz);
      d.tap(Action::Climb);
      go(d, 0.4, {});
      REQUIRE(d.now() == "Climb");
      go(d, 0.6, push(0, 1));
      const Vec3 out = rotation_of(turn) * Vec3(0, 0, 1), foot = d.state.foot_C;
      const double low = dot(foot + Vec3(0, d.profile.capsule.radius, 0), out),
                   high = dot(foot + Vec3(0, d.state.capsule_height - d.profile.capsule.radius, 0), out);
      CHECK(std::min(low, high) == Approx(reach_of(d)).margin(1e-5));
      CHECK(std::abs(foot.x) < 1e-5);
      CHECK(d.now() == "Climb");
    }
  }
  Driven flat = driven(Yard().ladder({0, 0, 0}, {0.0, radians(-60.0), 0.0}).world(), {0, 0, 0.3});
  flat.play("K :0.2");
  CHECK(flat.now() != "Climb");
  CHECK(tells(flat, "leans"));
}

TEST_CASE("A ladder that rises, crosses or turns takes one along to the millimetre") {
  using Keys = std::vector<PieceMotion::Key>;
  for (const Keys& keys : {Keys{{0.0}, {0.5, Vec3(0, 3, 0)}, {1.0}}, Keys{{0.0}, {0.5, Vec3(4, 0, 2)}, {1.0}},
                           Keys{{0.0}, {1.0, Vec3(0.0), Vec3(2.0 * kPi, 0, 0)}}}) {
    for (const int hz : {20, 60, 240}) {
      INFO(hz);
      Course course;
      course.marks.push_back({"start", {0, 0, 0.7}});
      course.pieces.push_back({"floor", {0, -1, 0}, Vec3(0.0), "", shape::Block{{80, 1, 80}}});
      course.pieces.push_back({"ladder", {0, 0.05, 0}, Vec3(0.0), "", kLadder});
      course.pieces.back().motion = PieceMotion{};
      course.pieces.back().motion->keys = keys;
      course.pieces.back().motion->period = 8.0;
      Driven d = driven(build_world(course), {0, 0, 0.7}, hz);
      d.play("K :0.3 w:0.8");
      REQUIRE(d.now() == "Climb");
      const auto foot_P = [&] { return d.world.piece_frame(1, d.state.time).back(d.state.foot_C); };
      const Vec3 first = foot_P();
      d.play(":6");
      CHECK(d.now() == "Climb");
      CHECK(length(foot_P() - first) < 1e-3);
    }
  }
}

TEST_CASE("What is in the way on a ladder stops there, and what comes into it pushes off, told") {
  Driven d = driven(Yard().ladder({0, 0, 0}).block({0, 2.6, 0.6}, {2, 0.2, 0.8}).world(), {0, 0, 0.7});
  d.tap(Action::Climb);
  go(d, 3.0, push(0, 1));
  CHECK(d.now() == "Climb");
  CHECK(d.state.foot_C.y + d.state.capsule_height == Approx(2.6).margin(2e-3));
  CHECK(tells(d, "is in the way"));
}

TEST_CASE("The feed has the rungs for hands and feet") {
  Driven d = driven(Yard().ladder({0, 0, 0}).world(), {0, 0, 0.7});
  d.play("K :0.3 w:0.5");
  const PoseFeed feed = pose_feed(d.state, d.state, d.profile, 1.0 / 60);
  CHECK(feed.hold == "climb");
  CHECK(feed.hold_spacing == Approx(0.3));
  CHECK(feed.hold_over_rung == Approx(d.state.foot_C.y + d.profile.climb.hands - 0.3).margin(1e-5));
  CHECK(feed.hold_rim_P.z == Approx(0.035).margin(1e-6));
}

TEST_CASE("The signal hold.gap is the gap to the ladder and to the wall, and 0 off them") {
  const auto gap = [](const Driven& d) {
    const InputFrame input{};
    return find_signal("hold.gap")
        ->value({d.state, d.state, input, d.profile, d.world, 1.0 / d.hz, Moment{d.state.time}});
  };
  Driven d = driven(Yard().ladder({0, 0, 0}).block({0, 0, -2.25}, {8, 5, 4}, true).world(), {0, 0, 0.7});
  CHECK(gap(d) == 0.0);
  d.play("K :0.3 w:0.77");
  CHECK(gap(d) == Approx(d.profile.climb.gap).margin(1e-5));
  d.play("d:1");
  REQUIRE(d.state.hold.piece == 2u);
  CHECK(gap(d) == Approx(d.profile.climb.gap).margin(1e-5));
}

TEST_CASE("Who stands over a ladder and faces it, without a push, turns and backs onto it") {
  Driven d =
      driven(Yard().ladder({0, 0, 0}).block({0, 0, -2.1}, {6, 4, 4}).world(), {0.05, 4, -0.5}, 60, 180.0);
  go(d, 0.1, {});
  d.tap(Action::Climb);
  go(d, 2.0, {});
  CHECK(d.now() == "Climb");
  CHECK(d.state.foot_C.z == Approx(reach_of(d)).margin(1e-5));
  CHECK(std::abs(wrap_angle(d.state.facing)) < 0.1);
  // Not where the ladder ends far below.
  Driven high = driven(Yard().ladder({0, 0, 0}).block({0, 0, -2.1}, {6, 4.6, 4}).world(), {0.05, 4.6, -0.5});
  high.play(":0.1 K :0.5");
  CHECK(high.now() == "Stand");
}

TEST_CASE("Rungs far apart before an ivy wall: the ladder is taken hold of, not the wall between its rungs") {
  const shape::Ladder wide{0.7, 4.0, 0.6};
  for (const double distance : {0.5, 0.6, 0.7}) {
    for (const double floor : {0.0, 0.15, 0.3, 0.45}) {
      INFO(distance << ", floor " << floor);
      Yard yard;
      yard.ladder({0, 0, 0}, Vec3(0.0), wide)
          .block({0, 0, -2.2}, {8, 5, 4}, true)
          .block({0, 0, 1.0}, {4, floor + 1e-3, 1.9});
      Driven d = driven(yard.world(), {0, floor + 1e-3, distance});
      d.tap(Action::Climb);
      go(d, 0.4, {});
      REQUIRE(d.now() == "Climb");
      CHECK(d.state.hold.piece == 1u);
      CHECK(d.state.foot_C.z == Approx(reach_of(d)).margin(1e-5));
    }
  }
}
