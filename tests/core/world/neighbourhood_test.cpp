// SPDX-License-Identifier: MIT
// What is gathered once answers as the whole does, bit for bit.
#include "world/neighbourhood.h"

#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

PieceMotion spinning(Random& random) {
  PieceMotion m;
  m.keys = {{0.0}, {1.0, Vec3(0.0), Vec3(2 * kPi, 0, 0)}};
  m.period = random.between(2, 9);
  m.at_C = random.point(4.0);
  m.turn = random.point(1.0);
  return m;
}

}  // namespace

TEST_CASE("A gathered neighbourhood gives bit-equal answers to the world it is from, moving pieces included") {
  for (int scene = 0; scene < 10; ++scene) {
    Random random(500 + scene);
    TriangleWorld::Builder builder;
    for (int piece = 0; piece < 6; ++piece) {
      if (piece % 2 == 0) {
        builder.begin_piece("still");
      } else {
        builder.begin_moving_piece("mover", spinning(random));
      }
      for (const Triangle& t : soup(random, 60, piece % 2 == 0 ? 6.0 : 1.5, 1.2)) builder.add(t);
    }
    const TriangleWorld world = builder.commit();
    int hits = 0;
    for (int i = 0; i < 400; ++i) {
      const double time = random.between(0, 30);
      const Vec3 foot = random.point(5.0), up = random.direction();
      const Segment axis = capsule_axis(foot, up, 0.3, 1.4);
      const Vec3 motion = random.point(0.7);
      const Neighbourhood near(world, bounds(axis).grown(1.6), time);
      const Moment moment{time, random.below(3) == 0 ? PieceId(random.below(6)) : kNoPiece};
      const auto a = world.sweep(axis, 0.3, motion, moment), b = near.sweep(axis, 0.3, motion, moment);
      REQUIRE(a.has_value() == b.has_value());
      if (a) {
        ++hits;
        CHECK(a->hit.fraction == b->hit.fraction);
        CHECK(a->hit.normal_C == b->hit.normal_C);
        CHECK(a->triangle == b->triangle);
      }
      std::array<WorldContact, 8> ca, cb;
      const std::size_t na = world.contacts(axis, 0.45, ca, moment), nb = near.contacts(axis, 0.45, cb, moment);
      REQUIRE(na == nb);
      for (std::size_t k = 0; k < na; ++k) {
        CHECK(ca[k].triangle == cb[k].triangle);
        CHECK(ca[k].closest.distance == cb[k].closest.distance);
      }
      const auto ra = world.cast_ray(foot, motion * 2.0, moment),
                 rb = near.cast_ray(foot, motion * 2.0, moment);
      REQUIRE(ra.has_value() == rb.has_value());
      if (ra) CHECK(ra->hit.fraction == rb->hit.fraction);
      // Beyond what was gathered, and at another time, the world is asked.
      const Vec3 far = motion * 30.0;
      const auto fa = world.sweep(axis, 0.3, far, {time + 1.0}), fb = near.sweep(axis, 0.3, far, {time + 1.0});
      REQUIRE(fa.has_value() == fb.has_value());
      if (fa) CHECK(fa->hit.fraction == fb->hit.fraction);
    }
    CHECK(hits > 20);
  }
}
