// SPDX-License-Identifier: MIT
// Rims against those computed from the edges of the mesh itself: the upright plane through the foot cuts the
// edges in points, and these tell the outline that one stands before.
#include <algorithm>
#include <catch2/catch.hpp>

#include "lagniappe/ledge.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// The triangles of the hull of a few points, by trying all.
std::vector<Triangle> hull(const std::vector<Vec3>& p) {
  std::vector<Triangle> faces;
  for (std::size_t i = 0; i < p.size(); ++i) {
    for (std::size_t j = i + 1; j < p.size(); ++j) {
      for (std::size_t k = j + 1; k < p.size(); ++k) {
        const Vec3 n = cross(p[j] - p[i], p[k] - p[i]);
        int above = 0, below = 0;
        for (const Vec3& q : p) {
          const double side = dot(q - p[i], n);
          above += side > 1e-9;
          below += side < -1e-9;
        }
        if (above == 0) faces.push_back({p[i], p[j], p[k]});
        if (below == 0 && above > 0) faces.push_back({p[i], p[k], p[j]});
      }
    }
  }
  return faces;
}

// Where the plane x = 0 cuts a face: two points on its edges, ahead (-z) and up.
struct Cut {
  Vec2 a, b;
  double steepness;  // rad, of the face itself.
};
std::vector<Cut> cuts_of(const std::vector<Triangle>& faces) {
  std::vector<Cut> cuts;
  for (const Triangle& t : faces) {
    std::vector<Vec2> at;
    const Vec3 corner[] = {t.v0_C, t.v1_C, t.v2_C};
    for (int i = 0; i < 3; ++i) {
      const Vec3 &a = corner[i], &b = corner[(i + 1) % 3];
      if ((a.x < 0.0) == (b.x < 0.0)) continue;
      const Vec3 p = a + (b - a) * (a.x / (a.x - b.x));
      at.emplace_back(-p.z, p.y);
    }
    if (at.size() != 2) continue;
    const Vec3 n = cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C);
    cuts.push_back({at[0], at[1], std::acos(std::clamp(n.y / length(n), -1.0, 1.0))});
  }
  return cuts;
}

// The corner between what is wall and what is shelf, if both are long enough to be told apart.
struct Corner {
  Vec2 at;
};
std::optional<Corner> corner_of(const std::vector<Cut>& cuts) {
  constexpr double kSame = 1e-7;
  for (const Cut& wall : cuts) {
    const Vec2 &top = wall.a.y > wall.b.y ? wall.a : wall.b, &foot = wall.a.y > wall.b.y ? wall.b : wall.a;
    if (wall.steepness < radians(65.0) || wall.steepness > radians(110.0) || glm::length(top - foot) < 0.1)
      continue;
    for (const Cut& shelf : cuts) {
      if (shelf.steepness > radians(35.0) || glm::length(shelf.a - shelf.b) < 0.15) continue;
      const bool begins = glm::length(shelf.a - top) < kSame || glm::length(shelf.b - top) < kSame;
      const double far = std::max(shelf.a.x, shelf.b.x);
      if (begins && far > top.x + 0.1) return Corner{top};
    }
  }
  return std::nullopt;
}

}  // namespace

TEST_CASE("Rims of random convex solids are where their own edges say") {
  int found = 0, refused = 0;
  for (std::uint64_t seed = 0; seed < 6000; ++seed) {
    Random random(seed);
    std::vector<Vec3> points;
    for (int i = 0; i < 11; ++i)
      points.emplace_back(random.between(-1.5, 1.5), random.between(-0.8, 2.2), random.between(-3.0, -0.6));
    const std::vector<Triangle> faces = hull(points);
    const std::vector<Cut> cuts = cuts_of(faces);
    const auto corner = corner_of(cuts);
    if (!corner || corner->at.y < 0.45 || corner->at.y > 2.1) continue;
    const Frame& frame = frames()[seed % frames().size()];
    Scene scene;
    for (const Triangle& t : faces) scene.triangle(t);
    const TriangleWorld world = scene.world(frame);
    LedgeQuery query;
    query.radius = 0.3;
    const double stand = corner->at.x - 0.3 - random.between(0.1, 0.4);
    // Not within the solid, where that bulges out below its rim.
    const bool within = std::any_of(
        cuts.begin(), cuts.end(), [&](const Cut& c) { return std::min(c.a.x, c.b.x) < stand + query.radius; });
    if (within) continue;
    query.foot_C = frame.point(Vec3(0, 0, -stand));
    query.up_C = frame.vector(Vec3(0, 1, 0));
    query.towards_C = frame.vector(Vec3(0, 0, -1));
    query.lowest = 0.3;
    query.most_over = radians(30.0);
    const LedgeAnswer answer = find_ledge(world, query);
    INFO("seed " << seed << ", " << frame.name << ": " << name_of(answer.fault));
    // Where the wall bulges out below, or the shelf is cut off to a side, there is something else to tell.
    if (!answer.ledge) {
      ++refused;
      continue;
    }
    ++found;
    const Vec3 rim = frame.back(answer.ledge->rim_C);
    CHECK(length(rim - Vec3(0.0, corner->at.y, -corner->at.x)) < 1e-5);
    CHECK(answer.ledge->height == Approx(corner->at.y).margin(1e-5));
    CHECK(answer.ledge->distance == Approx(corner->at.x - stand - 0.3).margin(1e-5));
  }
  CHECK(found > 60);
  CHECK(refused < found / 4);
}

TEST_CASE("On random stepped ground the rim is that of the first column that is high enough and reached") {
  int found = 0;
  for (std::uint64_t seed = 0; seed < 600; ++seed) {
    Random random(seed);
    constexpr int kAcross = 5, kAhead = 5;
    constexpr double kWide = 0.8;
    std::array<std::array<double, kAhead>, kAcross> height{};
    Scene scene;
    scene.floor(20.0);
    for (int i = 0; i < kAcross; ++i) {
      for (int k = 0; k < kAhead; ++k) {
        height[i][k] = random.between(0.0, 2.4);
        scene.block({(i - 2) * kWide, 0.0, -0.8 - (k + 0.5) * kWide}, {kWide, height[i][k], kWide});
      }
    }
    const Frame& frame = frames()[seed % frames().size()];
    const TriangleWorld world = scene.world(frame);
    LedgeQuery query;
    query.radius = 0.3;
    query.foot_C = frame.point(Vec3(0.05, 0, -0.3));
    query.up_C = frame.vector(Vec3(0, 1, 0));
    query.towards_C = frame.vector(Vec3(0, 0, -1));
    query.reach = 0.45;
    query.lowest = 0.4;
    const LedgeAnswer answer = find_ledge(world, query);
    INFO("seed " << seed << ", " << frame.name);
    const double first = height[2][0];
    if (first > 0.45 && first < 2.25 && height[2][1] < first - 0.04) {
      REQUIRE(answer.ledge);
      ++found;
      CHECK(length(frame.back(answer.ledge->rim_C) - Vec3(0.05, first, -0.8)) < 1e-5);
      // The columns beside it may be in the way of a body: its room is what is free above the shelf.
      CHECK(answer.ledge->depth == Approx(kWide).margin(0.002));
    } else if (first > 2.31) {
      CHECK_FALSE(answer.ledge);
      CHECK(answer.fault == LedgeFault::TooHigh);
    }
  }
  CHECK(found > 150);
}

TEST_CASE("On a round rim the point straight ahead is found, from wherever one stands") {
  for (const double radius : {0.4, 1.0, 3.0}) {
    Scene scene;
    constexpr int kSides = 48;
    const Vec3 middle(0, 0, -radius - 1.0);
    const auto at = [&](int i, double y) {
      const double a = 2.0 * kPi * i / kSides;
      return middle + Vec3(radius * std::sin(a), y, radius * std::cos(a));
    };
    for (int i = 0; i < kSides; ++i) {
      scene.triangle({at(i, 0), at(i + 1, 0), at(i + 1, 1.3)});
      scene.triangle({at(i, 0), at(i + 1, 1.3), at(i, 1.3)});
      scene.triangle({at(i, 1.3), at(i + 1, 1.3), middle + Vec3(0, 1.3, 0)});
    }
    for (const Frame& frame : frames()) {
      const TriangleWorld world = scene.world(frame);
      for (int i = 0; i < 40; ++i) {
        const double a = 2.0 * kPi * i / 40.0 + 0.01;
        const Vec3 out(std::sin(a), 0, std::cos(a));
        LedgeQuery query;
        query.foot_C = frame.point(middle + out * (radius + 0.5));
        query.up_C = frame.vector(Vec3(0, 1, 0));
        query.towards_C = frame.vector(-out);
        const LedgeAnswer answer = find_ledge(world, query);
        INFO(radius << " m, " << i << ", " << frame.name);
        REQUIRE(answer.ledge);
        const Vec3 rim = frame.back(answer.ledge->rim_C) - middle;
        CHECK(rim.y == Approx(1.3).margin(1e-6));
        CHECK(length(across(rim, Vec3(0, 1, 0)) - out * length(across(rim, Vec3(0, 1, 0)))) < 1e-6);
        // Between the circle and the middle of a side.
        CHECK(length(across(rim, Vec3(0, 1, 0))) <= radius + 1e-6);
        CHECK(length(across(rim, Vec3(0, 1, 0))) >= radius * std::cos(kPi / kSides) - 1e-6);
      }
    }
  }
}
