// SPDX-License-Identifier: MIT
// Over walls: the gap is measured by distances that are not the solver's, the way against closed forms.
#include "ledges/follow_wall.h"

#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr double kTall = 8.0;  // m, of the walls.

ClimbShape shape_in(const Frame& frame) {
  ClimbShape shape;
  shape.up_C = frame.vector(Vec3(0, 1, 0));
  return shape;
}

using Outline = std::vector<Vec3>;  // Seen from above, in the easy frame.

// Upright walls on outlines, and what else is added.
class Walls {
 public:
  explicit Walls(const Frame& frame = frames().front()) : frame_(frame) {}
  Walls& prism(const Outline& outline, bool climbable = true, double bottom = 0.0, double top = kTall) {
    builder_.begin_piece(climbable ? "ivy" : "stone");
    for (std::size_t i = 0; i < outline.size(); ++i) {
      const Vec3 a = outline[i], b = outline[(i + 1) % outline.size()], low(0, bottom, 0), high(0, top, 0);
      add({a + low, b + low, b + high}, climbable);
      add({a + low, b + high, a + high}, climbable);
      if (i > 0) add({outline[0] + high, a + high, b + high}, climbable);
    }
    return *this;
  }
  // Blocks in a frame that is pitched about X by so many rad.
  Walls& block(const Vec3& base_centre, const Vec3& size, double pitch, bool climbable = true) {
    builder_.begin_piece(climbable ? "ivy" : "stone");
    const Quat turn = glm::angleAxis(pitch, Vec3(1, 0, 0));
    for (const Triangle& t : triangles_of({"", base_centre, Vec3(0.0), "", shape::Block{size}}))
      add({turn * t.v0_C, turn * t.v1_C, turn * t.v2_C}, climbable);
    return *this;
  }
  TriangleWorld world() { return builder_.commit({Box{Vec3(-1e6), Vec3(1e6)}}); }

 private:
  void add(const Triangle& t, bool climbable) {
    Surface surface;
    surface.climbable = climbable;
    builder_.add(frame_.triangle(t), surface);
  }
  const Frame& frame_;
  TriangleWorld::Builder builder_;
};

// m between the capsule's axis and the nearest wall, by the overlap of a capsule that is thick enough to have
// one.
double axis_to_wall(const TriangleWorld& world, const ClimbShape& shape, const Vec3& foot_C,
                    const Frame& frame) {
  constexpr double kThicker = 0.03;
  Profile profile;
  const double thick = shape.reach() + kThicker;
  profile.capsule.radius = thick;
  CharacterState state = standing_at(profile, Vec3(0.0), 0.0, frame);
  state.foot_C = foot_C + shape.up_C * (shape.radius - thick);
  state.capsule_height = shape.height + 2.0 * (thick - shape.radius);
  return thick - deepest_overlap(state, profile, world);
}

struct Climbed {
  WallGrip grip;
  double gone = 0.0, worst_gap = 0.0;
  WallFault stop = WallFault::None;
  PieceId piece = kNoPiece;
};

// Takes hold from before the wall and goes on in steps, `way` m in all.
Climbed climb(const TriangleWorld& world, const Frame& frame, const Vec3& foot_E, const Vec3& towards_E,
              Vec2 way, double step) {
  const ClimbShape shape = shape_in(frame);
  Climbed result;
  const WallAnswer answer = wall_ahead(world, shape, frame.point(foot_E), frame.vector(towards_E), 0.9);
  REQUIRE(answer.grip);
  result.grip = *answer.grip;
  const double size = length(way);
  for (double left = size; left > 1e-9 && result.stop == WallFault::None; left -= step) {
    const WallWay part = follow_wall(world, shape, result.grip, way * (std::min(step, left) / size));
    result.grip = part.grip;
    result.gone += part.gone;
    result.stop = part.stop;
    result.piece = part.piece;
    const double off = axis_to_wall(world, shape, result.grip.foot_C, frame) - shape.reach();
    result.worst_gap = std::max(result.worst_gap, std::abs(off));
  }
  return result;
}

const std::vector<double> kSteps = {0.004, 0.06};

}  // namespace

TEST_CASE(
    "Round outer corners of 30 to 150 degrees the gap stays, in any frame, and the way is that of an arc") {
  for (const Frame& frame : frames()) {
    for (const double angle : {30.0, 60.0, 90.0, 120.0, 150.0}) {
      const double half = radians(0.5 * angle);
      const Vec3 right(std::sin(half), 0, -std::cos(half)), left(-std::sin(half), 0, -std::cos(half));
      const Vec3 out_left(-std::cos(half), 0, std::sin(half)), out_right(std::cos(half), 0, std::sin(half));
      const TriangleWorld world = Walls(frame).prism({Vec3(0.0), right * 5.0, left * 5.0}).world();
      for (const double step : kSteps) {
        INFO(frame.name << ", " << angle << " degrees, steps of " << step);
        const ClimbShape shape = shape_in(frame);
        const double arc = (kPi - 2.0 * half) * shape.reach();
        const Climbed c = climb(world, frame, left * 1.5 + out_left * 0.6 + Vec3(0, 2, 0), -out_left,
                                {1.5 + arc + 1.0, 0.0}, step);
        CHECK(c.stop == WallFault::None);
        CHECK(c.worst_gap < 1e-5);
        CHECK(length(c.grip.normal_C - frame.vector(out_right)) < 1e-4);
        const Vec3 foot = frame.back(c.grip.foot_C);
        CHECK(dot(foot, right) == Approx(1.0).margin(0.01));
        CHECK(foot.y == Approx(2.0).margin(0.001));
      }
    }
  }
}

TEST_CASE("Inner corners of 30 to 150 degrees are gone through, and back, at the gap to both walls") {
  for (const double angle : {30.0, 60.0, 90.0, 120.0, 150.0}) {
    const Frame& frame = frames()[2];
    const double half = radians(0.5 * angle);
    const Vec3 right(std::sin(half), 0, std::cos(half)), left(-std::sin(half), 0, std::cos(half));
    const Vec3 in_right(-std::cos(half), 0, std::sin(half)), in_left(std::cos(half), 0, std::sin(half));
    const TriangleWorld world =
        Walls(frame)
            .prism({Vec3(0.0), left * 7.0, left * 7.0 - in_left * 0.3, -in_left * 0.3})
            .prism({Vec3(0.0), -in_right * 0.3, right * 7.0 - in_right * 0.3, right * 7.0})
            .world();
    for (const double step : kSteps) {
      INFO(angle << " degrees, steps of " << step);
      const double from_corner = shape_in(frame).reach() / std::tan(half);
      const Climbed c = climb(world, frame, left * (from_corner + 1.0) + in_left * 0.4 + Vec3(0, 2, 0),
                              -in_left, {2.0, 0.0}, step);
      CHECK(c.stop == WallFault::None);
      CHECK(c.worst_gap < 1e-5);
      CHECK(length(c.grip.normal_C - frame.vector(in_right)) < 1e-4);
      CHECK(dot(frame.back(c.grip.foot_C), right) == Approx(from_corner + 1.0).margin(0.02));
    }
  }
}

TEST_CASE("Round columns from 0.3 m radius, of few faces and of many, one comes back to where one was") {
  const Frame& frame = frames()[3];
  for (const double radius : {0.3, 1.0}) {
    for (const int sides : {8, 48}) {
      Outline outline;
      for (int i = 0; i < sides; ++i) {
        const double a = 2.0 * kPi * i / sides;
        outline.emplace_back(radius * std::sin(a), 0, radius * std::cos(a));
      }
      const TriangleWorld world = Walls(frame).prism(outline).world();
      const double round = 2.0 * sides * std::sin(kPi / sides) * radius + 2.0 * kPi * shape_in(frame).reach();
      for (const double step : kSteps) {
        INFO(radius << " m, " << sides << " sides, steps of " << step);
        const Climbed c = climb(world, frame, {0.01, 2, radius + 0.6}, {0, 0, -1}, {round, 0.0}, step);
        CHECK(c.gone == Approx(round).epsilon(0.002));
        CHECK(c.worst_gap < 1e-5);
        CHECK(frame.back(c.grip.foot_C).x == Approx(0.01).margin(0.02));
      }
    }
  }
}

TEST_CASE("Over ribs of 3 cm, up, down and aslant, on walls that lean back and over") {
  const Frame& frame = frames()[1];
  for (const double back : {0.0, 1e-5, -1e-5, 25.0, -25.0}) {
    Walls walls(frame);
    const double pitch = radians(-back);
    walls.block({0, -4, -0.5}, {12, 16, 1}, pitch);
    for (int i = 0; i < 8; ++i) walls.block({0, 0.4 + 0.9 * i, 0.015}, {12, 0.05, 0.03}, pitch);
    for (int i = 0; i < 6; ++i) walls.block({-3.0 + 1.3 * i, -4, 0.015}, {0.05, 16, 0.03}, pitch);
    const TriangleWorld world = walls.world();
    for (const Vec2 way : {Vec2(0, 2.5), Vec2(0, -2.0), Vec2(2.5, 0), Vec2(1.8, 1.8), Vec2(-2, 1)}) {
      INFO(back << " degrees, " << way.x << " " << way.y);
      const double before = std::abs(back) < 1.0 ? 0.6 : back > 0.0 ? 0.2 : 2.0;
      const Climbed c = climb(world, frame, {0.3, 1.5, before}, {0, 0, -1}, way, 0.02);
      CHECK(c.stop == WallFault::None);
      CHECK(c.gone == Approx(length(way)).epsilon(0.05));
      CHECK(c.worst_gap < 1e-4);
    }
  }
}

TEST_CASE(
    "What ends the way: what is not climbed, the top, what leans too far, a thing in the way, the floor") {
  const Frame& frame = frames().front();
  const auto beside =
      Walls().block({-2, 0, -0.5}, {4, 6, 1}, 0.0).block({2, 0, -0.5}, {4, 6, 1}, 0.0, false).world();
  for (const double step : kSteps) {
    const Climbed c = climb(beside, frame, {-1, 2, 0.6}, {0, 0, -1}, {3, 0}, step);
    CHECK(c.stop == WallFault::NotClimbable);
    CHECK(c.piece == 1u);
    CHECK(frame.back(c.grip.foot_C).x == Approx(0.0).margin(0.05));
    const Climbed top = climb(beside, frame, {-1, 2, 0.6}, {0, 0, -1}, {0, 5}, step);
    CHECK(top.stop == WallFault::NothingThere);
    const double rim = 6.0 - top.grip.foot_C.y, hands = shape_in(frame).hands;
    CHECK(rim > hands - 0.25);
    CHECK(rim < hands);
  }
  const auto post =
      Walls().block({0, 0, -0.5}, {8, 6, 1}, 0.0).block({2, 0, 0.3}, {0.2, 6, 0.6}, 0.0, false).world();
  const Climbed blocked = climb(post, frame, {0, 2, 0.6}, {0, 0, -1}, {3, 0}, 0.02);
  CHECK(blocked.stop == WallFault::NoRoom);
  CHECK(blocked.grip.foot_C.x == Approx(1.9 - 0.3).margin(0.01));
  const auto floor =
      Walls().block({0, 0, -0.5}, {8, 6, 1}, 0.0).block({0, -1, 2}, {8, 1, 4}, 0.0, false).world();
  const Climbed landed = climb(floor, frame, {0, 2, 0.6}, {0, 0, -1}, {0, -3}, 0.02);
  CHECK(landed.stop == WallFault::Floor);
  CHECK(landed.grip.foot_C.y == Approx(0.0).margin(0.005));
  // A bulge that leans over by 60 degrees.
  const auto bulge =
      Walls().block({0, -2, -0.5}, {8, 6, 1}, 0.0).block({0, 2.0, -3.45}, {8, 6, 0.5}, radians(60.0)).world();
  const Climbed under = climb(bulge, frame, {0, 0, 0.6}, {0, 0, -1}, {0, 4}, 0.02);
  CHECK(under.stop == WallFault::LeansOver);
}

TEST_CASE("Taking hold tells what is there: nothing, what is not climbed, what leans too far") {
  const Frame& frame = frames().front();
  const ClimbShape shape = shape_in(frame);
  const auto fault = [&](const TriangleWorld& world, const Vec3& foot) {
    return wall_ahead(world, shape, foot, Vec3(0, 0, -1), 0.5).fault;
  };
  CHECK(fault(Walls().block({0, 0, -0.5}, {8, 6, 1}, 0.0).world(), {0, 2, 1.5}) == WallFault::NothingThere);
  CHECK(fault(Walls().block({0, 0, -0.5}, {8, 6, 1}, 0.0, false).world(), {0, 2, 0.6}) ==
        WallFault::NotClimbable);
  const WallAnswer back = wall_ahead(Walls().block({0, -4, -0.5}, {8, 12, 1}, radians(-43.0)).world(), shape,
                                     Vec3(0, 0, 0.6), Vec3(0, 0, -1), 2.5);
  CHECK(back.fault == WallFault::LeansBack);
  CHECK(back.found == Approx(radians(43.0)).margin(radians(1.0)));
  CHECK(back.allowed == shape.most_back);
}
