// SPDX-License-Identifier: MIT
#include <embree3/rtcore.h>

#include <catch2/catch.hpp>

#include "geometry/tolerances.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

TriangleWorld world_of(const std::vector<Triangle>& triangles) {
  TriangleWorld::Builder builder;
  builder.begin_piece("soup");
  for (const Triangle& t : triangles) builder.add(t);
  return builder.commit();
}

// The independent ray caster over the same triangles.
class Rays {
 public:
  explicit Rays(const std::vector<Triangle>& triangles)
      : device_(rtcNewDevice(nullptr)), scene_(rtcNewScene(device_)) {
    const RTCGeometry geometry = rtcNewGeometry(device_, RTC_GEOMETRY_TYPE_TRIANGLE);
    const std::size_t n = triangles.size();
    auto* v = static_cast<float*>(
        rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, 12, 3 * n));
    auto* index = static_cast<unsigned*>(
        rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 12, n));
    for (std::size_t i = 0; i < n; ++i) {
      const Vec3 corner[] = {triangles[i].v0_C, triangles[i].v1_C, triangles[i].v2_C};
      for (int k = 0; k < 3; ++k) {
        for (int c = 0; c < 3; ++c) v[9 * i + 3 * k + c] = static_cast<float>(corner[k][c]);
        index[3 * i + k] = static_cast<unsigned>(3 * i + k);
      }
    }
    rtcSetSceneFlags(scene_, RTC_SCENE_FLAG_ROBUST);
    rtcCommitGeometry(geometry);
    rtcAttachGeometry(scene_, geometry);
    rtcReleaseGeometry(geometry);
    rtcCommitScene(scene_);
  }
  ~Rays() {
    rtcReleaseScene(scene_);
    rtcReleaseDevice(device_);
  }
  std::optional<double> cast(const Vec3& from, const Vec3& motion) const {
    RTCRayHit ray{};
    ray.ray = {float(from.x),
               float(from.y),
               float(from.z),
               0.0f,
               float(motion.x),
               float(motion.y),
               float(motion.z),
               0.0f,
               1.0f,
               ~0u,
               0,
               0};
    ray.hit.geomID = RTC_INVALID_GEOMETRY_ID;
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    rtcIntersect1(scene_, &context, &ray);
    return ray.hit.geomID == RTC_INVALID_GEOMETRY_ID ? std::nullopt : std::optional<double>(ray.ray.tfar);
  }

 private:
  RTCDevice device_;
  RTCScene scene_;
};

}  // namespace

TEST_CASE("The tree finds the sweep that brute force over all triangles finds") {
  Random random(42);
  for (const int count : {1, 5, 60, 2000}) {
    const std::vector<Triangle> triangles = soup(random, count, 10.0, 2.0);
    const TriangleWorld world = world_of(triangles);
    REQUIRE(world.triangle_count() == triangles.size());
    for (int i = 0; i < 400; ++i) {
      const Vec3 a = random.point(10.0);
      const Segment axis{a, a + random.direction() * 1.2};
      const Vec3 motion = random.direction() * std::exp(random.between(-4.0, 2.5));
      double best = 2.0;
      for (const Triangle& t : triangles) {
        if (const auto hit = sweep(axis, 0.3, motion, t)) best = std::min(best, hit->fraction);
      }
      const auto found = world.sweep(axis, 0.3, motion);
      REQUIRE(found.has_value() == (best <= 1.0));
      if (found) CHECK(found->hit.fraction == best);
    }
  }
}

TEST_CASE("The tree finds the contacts that brute force finds, nearest first") {
  Random random(43);
  const std::vector<Triangle> triangles = soup(random, 1500, 6.0, 1.0);
  const TriangleWorld world = world_of(triangles);
  for (int i = 0; i < 400; ++i) {
    const Vec3 a = random.point(6.0);
    const Segment axis{a, a + random.direction()};
    std::vector<double> expected;
    for (const Triangle& t : triangles) {
      const double d = closest(axis, t).distance;
      if (d <= 0.4) expected.push_back(d);
    }
    std::sort(expected.begin(), expected.end());
    std::array<WorldContact, 8> out;
    const std::size_t n = world.contacts(axis, 0.4, out);
    REQUIRE(n == std::min<std::size_t>(8, expected.size()));
    for (std::size_t k = 0; k < n; ++k) CHECK(out[k].closest.distance == expected[k]);
  }
}

TEST_CASE("Rays agree with an independent ray caster") {
  Random random(44);
  const std::vector<Triangle> triangles = soup(random, 3000, 10.0, 1.5);
  const TriangleWorld world = world_of(triangles);
  const Rays rays(triangles);
  int hits = 0, differ = 0;
  for (int i = 0; i < 5000; ++i) {
    const Vec3 from = random.point(10.0), motion = random.point(10.0);
    const auto mine = world.cast_ray(from, motion);
    const auto theirs = rays.cast(from, motion);
    hits += mine.has_value();
    const bool same =
        mine.has_value() == theirs.has_value() && (!mine || std::abs(mine->hit.fraction - *theirs) < 1e-4);
    differ += !same;  // Single precision decides a few at the edges otherwise.
  }
  CHECK(hits > 1000);
  CHECK(differ <= 10);
}

TEST_CASE("On the seam of two faces the face is preferred to the edge, and the lower triangle wins ties") {
  const TriangleWorld world =
      world_of({{{-2, 0, -2}, {-2, 0, 2}, {2, 0, 2}}, {{-2, 0, -2}, {2, 0, 2}, {2, 0, -2}}});
  const Segment over_the_seam{{0.5, 1.0, 0.5}, {0.5, 2.0, 0.5}};
  const auto hit = world.sweep(over_the_seam, 0.3, Vec3(0, -2, 0));
  REQUIRE(hit);
  CHECK(hit->triangle == 0);
  CHECK(hit->hit.normal_C == Vec3(0, 1, 0));
  const auto beside = world.sweep({{0.7, 1.0, 0.5}, {0.7, 2.0, 0.5}}, 0.3, Vec3(0, -2, 0));
  REQUIRE(beside);
  CHECK(beside->hit.feature == Feature::Face);
}

TEST_CASE("Bad triangles are dropped, and an empty world is free") {
  TriangleWorld::Builder builder;
  builder.begin_piece("odd");
  const double nan = std::numeric_limits<double>::quiet_NaN();
  CHECK_FALSE(builder.add({{0, 0, 0}, {1, 0, 0}, {2, 0, 0}}));
  CHECK_FALSE(builder.add({{0, nan, 0}, {1, 0, 0}, {0, 0, 1}}));
  CHECK_FALSE(builder.add({{0, 0, 0}, {1e308, 0, 0}, {0, 0, 1e308}}));
  const TriangleWorld world = builder.commit();
  CHECK(world.triangle_count() == 0);
  CHECK_FALSE(world.sweep({{0, 0, 0}, {0, 1, 0}}, 0.3, Vec3(0, -100, 0)));
  CHECK_FALSE(world.cast_ray(Vec3(0.0), Vec3(0, -1, 0)));
  CHECK(world.piece_name(0) == "odd");
  CHECK(world.piece_name(kNoPiece).empty());
}

TEST_CASE("Ten thousand triangles in one place still build a tree of bounded depth") {
  std::vector<Triangle> triangles(10000, {{0, 0, 0}, {1, 0, 0}, {0, 0, 1}});
  for (int i = 0; i < 40; ++i)
    triangles.push_back({{std::pow(2.0, i), 0, 0}, {std::pow(2.0, i) + 1, 0, 0}, {std::pow(2.0, i), 0, 1}});
  const TriangleWorld world = world_of(triangles);
  const auto hit = world.sweep({{0.2, 5, 0.2}, {0.2, 6, 0.2}}, 0.3, Vec3(0, -10, 0));
  REQUIRE(hit);
  CHECK(hit->triangle == 0);
}
