// SPDX-License-Identifier: MIT
// Lying: along finely meshed walls, over breaks of slopes and low stairs, past seams.
#include <catch2/catch.hpp>

#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// An upright wall at x, along z from 3 on for 12 m and 1.2 m high, of cells of about this size.
void add_wall(Scene& scene, double x, double cell) {
  const int n = std::max(1, static_cast<int>(12.0 / cell)), m = std::max(1, static_cast<int>(1.2 / cell));
  const auto at = [&](int i, int j) { return Vec3(x, 1.2 * j / m, 3.0 - 12.0 * i / n); };
  for (int i = 0; i < n; ++i) {
    for (int j = 0; j < m; ++j) {
      scene.triangle({at(i, j), at(i, j + 1), at(i + 1, j + 1)});
      scene.triangle({at(i, j), at(i + 1, j + 1), at(i + 1, j)});
    }
  }
}

// Lies down, and crawls ahead from 1.2 s on, turning if asked.
CharacterState crawl(const TriangleWorld& world, const Profile& profile, CharacterState state, int hz,
                     double seconds, const std::function<void(double, InputFrame&)>& steer = {},
                     const std::function<void(const CharacterState&)>& see = {}) {
  return run(
      state, profile, world, hz, seconds,
      [&](double t) {
        InputFrame in = t < 1.2 ? InputFrame{} : push(0, 1);
        in.pressed.set(Action::Lie, t == 0.0);
        if (steer) steer(t, in);
        return in;
      },
      see);
}

}  // namespace

TEST_CASE("Beside a wall of many small faces a lying body keeps the floor, and goes as beside one of one face",
          "[long]") {
  const Profile profile;
  for (const int hz : {20, 60, 144}) {
    std::vector<Vec3> ends;
    for (const double cell : {12.0, 0.5, 0.05, 0.02}) {
      INFO("cells of " << cell << " m, " << hz << " ticks/s");
      Scene scene;
      scene.floor();
      add_wall(scene, profile.capsule.radius, cell);
      const TriangleWorld world = scene.world();
      int other = 0;
      const CharacterState start = start_state(profile, Home{}, world);
      ends.push_back(crawl(
                         world, profile, start, hz, 5.0,
                         [](double t, InputFrame& in) {
                           if (t >= 1.2) in.move.x = 0.2;
                           if (t > 2.0) in.look = Vec2(radians(t < 3.0 ? -5.0 : 5.0), 0.0);
                         },
                         [&](const CharacterState& s) { other += s.time > 0.1 && s.state != StateId::Lie; })
                         .foot_C);
      CHECK(other == 0);
    }
    CHECK(ends.front().z < -1.5);
    for (const Vec3& end : ends) CHECK(length(end - ends.front()) < 1e-6);
  }
}

TEST_CASE("What is walked with less than the crawl's own limits is crawled: breaks of slopes, and low stairs") {
  const Profile profile;
  for (const int hz : {30, 60, 144}) {
    for (const double angle : {10.0, 20.0, 30.0, 40.0}) {
      INFO(angle << " degrees, " << hz << " ticks/s");
      const double t = std::tan(radians(angle));
      Scene down, up, over;
      down.floor().ramp({0, 0, -4}, {18, 8 * t, 8}, {180, 0, 0}).block({0, 0, 3}, {18, 8 * t, 6});
      up.floor().ramp({0, 0, -6}, {18, 10 * t, 10});
      over.floor().ramp({0, 0, -2.5}, {18, 5 * t, 5}).block({0, 0, -15}, {18, 5 * t, 20});
      const auto ended = [&](const Scene& scene, const Vec3& foot) {
        const TriangleWorld world = scene.world();
        const CharacterState start = start_state(profile, {foot, Quat(1, 0, 0, 0), 0.0}, world);
        return crawl(world, profile, start, hz, 12.0).foot_C.z;
      };
      CHECK(ended(down, {0, 8 * t, 1.5}) < -2.0);
      CHECK(ended(up, {0, 0, 0}) < -3.0);
      CHECK(ended(over, {0, 2.5 * t, -2.5}) < -6.0);
    }
    for (const double rise : {0.05, 0.1, 0.15}) {
      INFO("stairs of " << rise << " m, " << hz << " ticks/s");
      const TriangleWorld world =
          Scene().floor().stairs({0, 0, -4}, 6, rise, 0.3, 8).block({0, 0, -9.2}, {6, 8 * rise, 8}).world();
      const CharacterState foot = start_state(profile, {Vec3(0, 0, -1), Quat(1, 0, 0, 0), 0.0}, world);
      CHECK(crawl(world, profile, foot, hz, 14.0).foot_C.y == Approx(8 * rise).margin(1e-3));
      const CharacterState head = start_state(profile, {Vec3(0, 8 * rise, -7.7), Quat(1, 0, 0, 0), kPi}, world);
      CHECK(crawl(world, profile, head, hz, 14.0).foot_C.y == Approx(0.0).margin(1e-3));
    }
  }
}

TEST_CASE("Over a drop that is no slope a lying body is still held") {
  const Profile profile;
  for (const double depth : {0.5, 1.0, 4.0}) {
    const TriangleWorld world =
        Scene().block({0, -1, 4}, {20, 1, 10}).block({0, -1.5 - depth, -20}, {60, 1.5, 80}).world();
    const CharacterState end =
        crawl(world, profile, start_state(profile, {Vec3(0, 0, 2), Quat(1, 0, 0, 0), 0.0}, world), 60, 8.0);
    CHECK(end.lying());
    CHECK(end.foot_C.y == Approx(0.0).margin(1e-6));
    CHECK(end.foot_C.z > -1.0);
  }
}
