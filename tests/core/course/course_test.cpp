// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>
#include <map>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// Six times the enclosed volume; positive when every face is wound counter-clockwise seen from outside.
double volume(const std::vector<Triangle>& triangles) {
  double six = 0.0;
  for (const Triangle& t : triangles) six += dot(t.v0_C, cross(t.v1_C, t.v2_C));
  return six / 6.0;
}

// Whether each directed edge has its opposite: a closed surface without cracks.
bool closed(const std::vector<Triangle>& triangles) {
  std::map<std::array<long, 6>, int> edges;
  const auto key = [](const Vec3& a, const Vec3& b) {
    const auto r = [](double x) { return std::lround(x * 1e6); };
    return std::array<long, 6>{r(a.x), r(a.y), r(a.z), r(b.x), r(b.y), r(b.z)};
  };
  for (const Triangle& t : triangles) {
    const Vec3 v[] = {t.v0_C, t.v1_C, t.v2_C};
    for (int i = 0; i < 3; ++i) {
      ++edges[key(v[i], v[(i + 1) % 3])];
      --edges[key(v[(i + 1) % 3], v[i])];
    }
  }
  for (const auto& [edge, count] : edges) {
    if (count != 0) return false;
  }
  return true;
}

}  // namespace

TEST_CASE("Blocks and ramps are closed, wound outwards, and as large as they say") {
  const auto block = triangles_of({"b", {5, 1, -2}, {0.3, 0.2, 0.1}, "", shape::Block{{2, 3, 4}}});
  CHECK(closed(block));
  CHECK(volume(block) == Approx(24.0));
  const auto ramp = triangles_of({"r", {0, 0, 0}, Vec3(0.0), "", shape::Ramp{{2, 3, 4}}});
  CHECK(closed(ramp));
  CHECK(volume(ramp) == Approx(12.0));
}

TEST_CASE("A flight of stairs fills its steps and a spiral its sectors") {
  const auto stairs = triangles_of({"s", {0, 0, 0}, Vec3(0.0), "", shape::Stairs{2.0, 0.2, 0.3, 5}});
  CHECK(volume(stairs) == Approx(2.0 * 0.2 * 0.3 * 15));
  for (const double angle : {20.0, -20.0}) {
    const auto spiral =
        triangles_of({"s", {0, 0, 0}, Vec3(0.0), "", shape::SpiralStairs{0.5, 2.0, 0.2, radians(angle), 10}});
    const double sectors = 0.5 * (4.0 - 0.25) * radians(200.0) * 0.2;
    CHECK(volume(spiral) == Approx(sectors).epsilon(0.01));
    CHECK(closed(spiral));
  }
}

TEST_CASE("Flights and ramps rise towards -Z, and a positive spiral turns left from -Z") {
  const auto top_at = [](const Shape& shape, double x, double z) {
    Scene scene;
    TriangleWorld::Builder builder;
    builder.begin_piece("p");
    for (const Triangle& t : triangles_of({"p", Vec3(0.0), Vec3(0.0), "", shape})) builder.add(t);
    const TriangleWorld world = builder.commit();
    const auto hit = world.cast_ray(Vec3(x, 50, z), Vec3(0, -60, 0));
    return hit ? hit->hit.point_C.y : -1.0;
  };
  CHECK(top_at(shape::Ramp{{2, 3, 4}}, 0.1, 1.0) == Approx(0.75));
  CHECK(top_at(shape::Ramp{{2, 3, 4}}, 0.1, -1.0) == Approx(2.25));
  CHECK(top_at(shape::Stairs{2, 0.2, 0.5, 4}, 0.1, 0.9) == Approx(0.2));
  CHECK(top_at(shape::Stairs{2, 0.2, 0.5, 4}, 0.1, -0.9) == Approx(0.8));
  const shape::SpiralStairs left{0.5, 2.0, 0.2, radians(30.0), 4};
  CHECK(top_at(left, -0.2, -1.2) == Approx(0.2));  // Just left of -Z: the first tread.
  CHECK(top_at(left, 0.2, -1.2) == -1.0);
  CHECK(top_at(left, -1.2, 0.4) == Approx(0.8));
}

TEST_CASE("Without limits a character may begin high above a course, and a fall beside it ends 50 m below") {
  Course course;
  course.pieces.push_back({"floor", {0, -1, 0}, Vec3(0.0), "", shape::Block{{4, 1, 4}}});
  course.marks.push_back({"start", {0, 300, 0}, 0.0});
  const TriangleWorld world = build_world(course);
  const Profile profile;
  CharacterState state = start_state(profile, start_home(course), world);
  state = run(state, profile, world, 60, 10.0, [](double) { return InputFrame{}; });
  CHECK(state.times_put_home == 0);
  CHECK(state.state == StateId::Stand);
  CHECK(world.limits().low_C.y == Approx(-51.0));
  CHECK(world.limits().contains({0, 499, 0}));
}

TEST_CASE("Turns are yaw, pitch, roll: roll first, yaw turns left, pitch lifts the front") {
  const Vec3 front(0, 0, -1);
  CHECK(length(rotation_of({radians(90.0), 0, 0}) * front - Vec3(-1, 0, 0)) < 1e-12);
  CHECK(length(rotation_of({0, radians(90.0), 0}) * front - Vec3(0, 1, 0)) < 1e-12);
  CHECK(length(rotation_of({radians(90.0), radians(90.0), 0}) * front - Vec3(0, 1, 0)) < 1e-12);
}
