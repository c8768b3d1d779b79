// SPDX-License-Identifier: MIT
#include <rapidcheck.h>
#include <catch2/catch.hpp>

#include "geometry/tolerances.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const Triangle kFlat = {{0, 0, 0}, {3, 0, 0}, {0, 0, 2}};

struct NamedCase {
  const char* name;
  Segment axis;
  double radius;
  Vec3 motion;
  double fraction;  // Negative: free.
  Feature feature;
  Vec3 normal;
};

const double kHalf = std::sqrt(0.5);
const std::vector<NamedCase> kCases = {
    {"upright falls onto the face",
     {{0.5, 1.3, 0.5}, {0.5, 2.5, 0.5}},
     0.3,
     {0, -2, 0},
     0.5,
     Feature::Face,
     {0, 1, 0}},
    {"level falls onto the face",
     {{0.4, 1.3, 0.5}, {1.0, 1.3, 0.5}},
     0.3,
     {0, -2, 0},
     0.5,
     Feature::Face,
     {0, 1, 0}},
    {"from below", {{0.5, -2.5, 0.5}, {0.5, -1.3, 0.5}}, 0.3, {0, 2, 0}, 0.5, Feature::Face, {0, -1, 0}},
    {"upright walks into an edge",
     {{1.0, -0.5, -1.3}, {1.0, 0.7, -1.3}},
     0.3,
     {0, 0, 4},
     0.25,
     Feature::Edge,
     {0, 0, -1}},
    {"ball onto a corner", {{-1.3, 0, 0}, {-1.3, 0, 0}}, 0.3, {2, 0, 0}, 0.5, Feature::Vertex, {-1, 0, 0}},
    {"ball onto an edge at 45 degrees",
     {{1.0, 1.0, -1.0}, {1.0, 1.0, -1.0}},
     kHalf,
     {0, -1, 1},
     0.5,
     Feature::Edge,
     {0, kHalf, -kHalf}},
    {"level beam onto a corner with its side",
     {{-1.0, 0.9, 1.0}, {1.0, 0.9, -1.0}},
     0.4,
     {0, -1, 0},
     0.5,
     Feature::Vertex,
     {0, 1, 0}},
    {"stops at the touch", {{0.5, 1.3, 0.5}, {0.5, 2.5, 0.5}}, 0.3, {0, -1, 0}, -1, Feature::Face, {}},
    {"stops just inside",
     {{0.5, 1.3, 0.5}, {0.5, 2.5, 0.5}},
     0.3,
     {0, -1.000001, 0},
     0.999999,
     Feature::Face,
     {0, 1, 0}},
    {"stops just short", {{0.5, 1.3, 0.5}, {0.5, 2.5, 0.5}}, 0.3, {0, -0.999999, 0}, -1, Feature::Face, {}},
    {"passes beside", {{1.0, -0.5, -0.31}, {1.0, 0.7, -0.31}}, 0.3, {9, 0, 0}, -1, Feature::Face, {}},
    {"touching, going in", {{0.5, 0.3, 0.5}, {0.5, 1.5, 0.5}}, 0.3, {1, -1, 0}, 0.0, Feature::Face, {0, 1, 0}},
    {"touching, going along", {{0.5, 0.3, 0.5}, {0.5, 1.5, 0.5}}, 0.3, {1, 0, 0}, -1, Feature::Face, {}},
    {"touching, going away", {{0.5, 0.3, 0.5}, {0.5, 1.5, 0.5}}, 0.3, {1, 1, 0}, -1, Feature::Face, {}},
    {"overlapping, going out", {{0.5, 0.2, 0.5}, {0.5, 1.4, 0.5}}, 0.3, {0, 1, 0}, -1, Feature::Face, {}},
    {"overlapping, going further in",
     {{0.5, 0.2, 0.5}, {0.5, 1.4, 0.5}},
     0.3,
     {0, -1, 0},
     0.0,
     Feature::Face,
     {0, 1, 0}},
    {"no motion", {{0.5, 1.3, 0.5}, {0.5, 2.5, 0.5}}, 0.3, {0, 0, 0}, -1, Feature::Face, {}},
};

double distance_at(const Segment& axis, const Vec3& motion, double t, const Triangle& triangle) {
  return closest(moved(axis, motion * t), triangle).distance;
}

// First touch by a march that cannot be wrong: the distance changes by no more than the way gone, so a step as
// long as the free distance is always safe.
std::optional<double> marched(const Segment& axis, double radius, const Vec3& motion,
                              const Triangle& triangle) {
  const double far = length(motion);
  double gone = 0.0;
  for (int i = 0; i < 100000 && gone <= far; ++i) {
    const double free = distance_at(axis, motion, gone / far, triangle) - radius;
    if (free < 1e-7) return gone / far;
    gone += free;
  }
  return std::nullopt;
}

Triangle random_triangle(Random& random) {
  switch (random.below(3)) {
    case 0:
      return soup(random, 1, 1.0, 1.5).front();
    case 1: {  // A sliver.
      const Vec3 a = random.point(1.0), along = random.direction();
      return {a, a + along * 2.0, a + along + random.direction() * 1e-3};
    }
    default:
      return {random.point(2.0), random.point(2.0), random.point(2.0)};
  }
}

}  // namespace

TEST_CASE("Named sweeps hold in every frame") {
  for (const Frame& frame : frames()) {
    for (const NamedCase& c : kCases) {
      INFO(c.name << ", " << frame.name);
      const bool exact =
          std::string(c.name).rfind("touching", 0) == 0 || std::string(c.name) == "stops at the touch";
      if (exact && &frame != &frames().front()) continue;  // Decided by the last bit.
      const Segment axis{frame.point(c.axis.a_C), frame.point(c.axis.b_C)};
      const auto hit = sweep(axis, c.radius, frame.vector(c.motion), frame.triangle(kFlat));
      REQUIRE(hit.has_value() == (c.fraction >= 0.0));
      if (!hit) continue;
      CHECK(hit->fraction == Approx(c.fraction).margin(1e-8));
      CHECK(length(hit->normal_C - frame.vector(c.normal)) < 1e-5);
      if (&frame == &frames().front()) CHECK(hit->feature == c.feature);
    }
  }
}

TEST_CASE("Random sweeps agree with a fine march and never enter the triangle") {
  Random random(7);
  int hits = 0, free = 0;
  for (int i = 0; i < 20000; ++i) {
    const Triangle t = random_triangle(random);
    const Vec3 a = random.point(3.0);
    const bool ball = random.below(5) == 0;
    const Segment axis{a, ball ? a : a + random.direction() * random.between(0.1, 1.5)};
    const double radius = random.between(0.02, 0.6);
    // Mostly towards the triangle, else most sweeps would miss.
    const Vec3 towards = random.below(3) == 0 ? random.direction()
                                              : (t.v0_C + t.v1_C + t.v2_C) / 3.0 - a + random.direction() * 0.5;
    const Vec3 motion = towards * std::exp(random.between(-2.0, 2.0));
    if (closest(axis, t).distance < radius + 1e-3) continue;
    const auto hit = sweep(axis, radius, motion, t);
    const auto expected = marched(axis, radius, motion, t);
    INFO("case " << i);
    if (!hit) {
      // A graze that the march takes for a touch may be free.
      if (expected) CHECK(distance_at(axis, motion, *expected, t) > radius - 1e-7);
      ++free;
      continue;
    }
    ++hits;
    CHECK(distance_at(axis, motion, hit->fraction, t) == Approx(radius).margin(1e-6));
    REQUIRE(expected.has_value());
    CHECK(*expected <= hit->fraction + 1e-9);
    for (int k = 1; k < 8; ++k) CHECK(distance_at(axis, motion, hit->fraction * k / 8.0, t) > radius - 1e-9);
  }
  CHECK(hits > 1000);
  CHECK(free > 2000);
}

TEST_CASE("A sweep is the same whichever corner a triangle begins with") {
  CHECK(rc::check("rotating and flipping the corners", [](std::uint32_t seed) {
    Random random(seed);
    const Triangle t = random_triangle(random);
    const Vec3 a = random.point(3.0);
    const Segment axis{a, a + random.direction()};
    const Vec3 motion = random.direction() * 4.0;
    if (closest(axis, t).distance < 0.31) return;
    const auto one = sweep(axis, 0.3, motion, t);
    for (const Triangle& other : {Triangle{t.v1_C, t.v2_C, t.v0_C}, Triangle{t.v0_C, t.v2_C, t.v1_C}}) {
      const auto two = sweep(axis, 0.3, motion, other);
      if (one.has_value() != two.has_value()) {
        // Only a graze may be decided by rounding.
        const auto& hit = one ? one : two;
        RC_ASSERT(std::abs(dot(hit->normal_C, motion)) < 1e-4 * length(motion));
      } else if (one) {
        RC_ASSERT(std::abs(one->fraction - two->fraction) < 1e-7);
      }
    }
  }));
}

TEST_CASE("Odd numbers do not hang or crash a sweep") {
  const Segment axis{{0, 1, 0}, {0, 2, 0}};
  CHECK_FALSE(sweep(axis, 0.3, Vec3(1e-300, 0, 0), kFlat));
  CHECK_FALSE(sweep(axis, 0.3, Vec3(0, 1e6, 0), kFlat));
  const auto hit = sweep({{0.5, 1e6, 0.5}, {0.5, 1e6 + 1, 0.5}}, 0.3, Vec3(0, -2e6, 0), kFlat);
  REQUIRE(hit);
  CHECK(hit->fraction == Approx((1e6 - 0.3) / 2e6));
  const Triangle line = {{0, 0, 0}, {1, 0, 0}, {2, 0, 0}};
  CHECK(sweep({{1, 1, 0}, {1, 2, 0}}, 0.25, Vec3(0, -1, 0), line)->fraction == Approx(0.75));
}
