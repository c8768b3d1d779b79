// SPDX-License-Identifier: MIT
// Turned, mirrored and far away: a world moved as a whole gives the moved motion.
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// Everything that the ground solver meets within ten seconds: a ramp, a wall to slide along, stairs, a lift, a
// kerb.
struct Yard {
  std::vector<Triangle> still;
  std::vector<Triangle> plate;  // In its own frame.
};

void add(std::vector<Triangle>& out, const Shape& shape, const Vec3& at, double yaw_deg = 0.0) {
  Piece piece;
  piece.at_C = at;
  piece.turn = Vec3(radians(yaw_deg), 0.0, 0.0);
  piece.shape = shape;
  for (const Triangle& t : triangles_of(piece)) out.push_back(t);
}

Yard yard() {
  Yard y;
  add(y.still, shape::Block{{60, 1, 60}}, {0, -1, 0});
  add(y.still, shape::Ramp{{6, 1.2, 4}}, {0, 0, -4});
  add(y.still, shape::Block{{6, 1.2, 6}}, {0, 0, -9});
  add(y.still, shape::Block{{0.4, 4, 20}}, {2.6, 0, -8}, 8.0);
  add(y.still, shape::Stairs{4, 0.17, 0.3, 7}, {-5, 0, -4}, 90.0);
  add(y.still, shape::Block{{4, 0.2, 3}}, {3.5, 0, 4});
  add(y.plate, shape::Block{{3, 0.3, 3}}, {0, 0, 0});
  return y;
}

// The yard as it is seen in `frame`; mirrored in x first if asked. Only a lift that moves along up is in it:
// motions are given in the course's own axes.
TriangleWorld world_in(const Frame& frame, bool mirrored) {
  const auto flip = [&](const Vec3& p) { return mirrored ? Vec3(-p.x, p.y, p.z) : p; };
  const auto moved = [&](const Triangle& t) {
    return frame.triangle({flip(t.v0_C), flip(t.v1_C), flip(t.v2_C)});
  };
  const Yard y = yard();
  TriangleWorld::Builder builder;
  builder.begin_piece("still");
  for (const Triangle& t : y.still) builder.add(moved(t));
  PieceMotion lift;
  lift.keys = {{0.0, Vec3(0.0), Vec3(0.0), PieceMotion::Ease::Smooth}, {1.0, frame.vector(Vec3(0, 1.5, 0))}};
  lift.period = 5.0;
  lift.repeat = PieceMotion::Repeat::BackAndForth;
  lift.at_C = frame.point(flip(Vec3(-2, 0, 5)));
  builder.begin_moving_piece("lift", lift);
  for (const Triangle& t : y.plate) {
    const auto turned = [&](const Vec3& p) { return frame.vector(flip(p)); };
    builder.add({turned(t.v0_C), turned(t.v1_C), turned(t.v2_C)});
  }
  return builder.commit({Box{Vec3(-1e6), Vec3(1e6)}});
}

// A drive of ten seconds through the yard: in the easy frame, foot positions.
std::vector<Vec3> drive_through(const Frame& frame, bool mirrored, int hz, const Profile& profile) {
  const TriangleWorld world = world_in(frame, mirrored);
  const double side = mirrored ? -1.0 : 1.0;
  CharacterState state = start_state(profile, {frame.point(Vec3(0, 0, 2)), frame.rotation_CE, 0.0}, world);
  std::vector<Vec3> feet;
  run(
      state, profile, world, hz, 10.0,
      [&](double t) {
        // Up the ramp, along the slanted wall, back, a jump, onto the lift, off it over the kerb.
        InputFrame input = push(side * (t < 1.2   ? 0.0
                                        : t < 2.6 ? 0.7
                                        : t < 4.5 ? -0.5
                                        : t < 6.5 ? -0.3
                                                  : 0.8),
                                t < 2.6 ? 1.0 : -1.0);
        input.pressed.set(Action::Jump, std::abs(t - 5.0) < 0.5 / hz);
        return input;
      },
      [&](const CharacterState& s) {
        const Vec3 e = frame.back(s.foot_C);
        feet.push_back(Vec3(side * e.x, e.y, e.z));
      });
  return feet;
}

}  // namespace

TEST_CASE("A drive of ten seconds is the same in turned and mirrored worlds, and ten kilometres away") {
  const Profile profile;
  std::vector<Frame> places = frames();
  places.push_back({"ten kilometres away", Quat(1, 0, 0, 0), Vec3(7000, 400, -7100)});
  places.push_back({"ten kilometres away and turned", glm::angleAxis(2.1, glm::normalize(Vec3(1, 0.4, -0.8))),
                    Vec3(-7000, -400, 7100)});
  for (const int hz : {30, 60, 144, 240}) {
    const auto plain = drive_through(places[0], false, hz, profile);
    // It is no empty drive.
    double highest = 0.0, way = 0.0;
    for (std::size_t i = 1; i < plain.size(); ++i) {
      highest = std::max(highest, plain[i].y);
      way += length(plain[i] - plain[i - 1]);
    }
    CHECK(highest > 1.1);
    CHECK(way > 20.0);
    for (const Frame& frame : places) {
      for (const bool mirrored : {false, true}) {
        const auto other = drive_through(frame, mirrored, hz, profile);
        double apart = 0.0;
        for (std::size_t i = 0; i < plain.size(); ++i) apart = std::max(apart, length(plain[i] - other[i]));
        INFO(frame.name << ", mirrored " << mirrored << ", " << hz << " ticks/s");
        CHECK(apart < 1e-6);
      }
    }
  }
}
