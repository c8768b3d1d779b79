// SPDX-License-Identifier: MIT
// Balls, pills and rings: as far from their faces as they say, and walked as if they were round.
#include <array>
#include <catch2/catch.hpp>
#include <map>

#include "lagniappe/piece_kinds.h"
#include "lagniappe/smooth_path.h"
#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

std::vector<Triangle> made(const Shape& shape) { return triangles_of({"p", Vec3(0.0), Vec3(0.0), "", shape}); }

double volume_of(const std::vector<Triangle>& triangles) {
  double sum = 0.0;
  for (const Triangle& t : triangles) sum += dot(t.v0_C, cross(t.v1_C, t.v2_C)) / 6.0;
  return sum;
}

// How far faces are from a surface that is told by a distance: at corners, and anywhere between them.
struct Apart {
  double corners = 0.0, inside = 0.0, outside = 0.0, shortest_edge = 1e9;
};
template <typename Distance>
Apart apart(const std::vector<Triangle>& triangles, Distance distance) {
  Apart most;
  Random random(7);
  for (const Triangle& t : triangles) {
    const Vec3 v[] = {t.v0_C, t.v1_C, t.v2_C};
    for (int i = 0; i < 3; ++i) {
      most.corners = std::max(most.corners, std::abs(distance(v[i])));
      most.shortest_edge = std::min(most.shortest_edge, length(v[i] - v[(i + 1) % 3]));
    }
    for (int i = 0; i < 12; ++i) {
      double a = i == 0 ? 1.0 / 3.0 : random.between(0, 1), b = i == 0 ? 1.0 / 3.0 : random.between(0, 1);
      if (a + b > 1.0) a = 1.0 - a, b = 1.0 - b;
      const double d = distance(v[0] + (v[1] - v[0]) * a + (v[2] - v[0]) * b);
      most.inside = std::max(most.inside, -d);
      most.outside = std::max(most.outside, d);
    }
  }
  return most;
}

double from_pill(const Vec3& p, double radius, double middle) {
  const Vec3 on(0.0, std::clamp(p.y, radius, radius + middle), 0.0);
  return length(p - on) - radius;
}

}  // namespace

TEST_CASE("Round pieces are as near to what they stand for as they say, closed, and stand on their base") {
  for (const double radius : {0.05, 0.3, 3.0, 12.0, 60.0}) {
    for (const double sag : {0.001, 0.004, 0.05}) {
      if (radius / sag > 2e4) continue;
      for (const double middle : {0.0, 1.7}) {
        INFO("pill of " << radius << " m, " << middle << " m long, sag " << sag);
        const Shape shape = middle > 0.0 ? Shape(shape::Pill{radius, middle, sag}) : shape::Ball{radius, sag};
        const auto triangles = made(shape);
        const Apart is = apart(triangles, [&](const Vec3& p) { return from_pill(p, radius, middle); });
        CHECK(is.corners < 1e-12 * (1.0 + radius) * 10.0);
        CHECK(is.inside <= sag);
        CHECK(is.outside < 1e-9);
        CHECK(is.shortest_edge > 0.0);
        CHECK(triangles.size() <= most_triangles(shape));
        const double whole = kPi * radius * radius * (4.0 / 3.0 * radius + middle);
        const double area = 4.0 * kPi * radius * radius + 2.0 * kPi * radius * middle;
        CHECK(volume_of(triangles) < whole);
        CHECK(volume_of(triangles) > whole - area * sag);
      }
      const double thickness = 0.4 * radius;
      INFO("ring of " << radius << " m, sag " << sag);
      const Shape shape = shape::Ring{radius, thickness, sag};
      const auto triangles = made(shape);
      const Apart is = apart(triangles, [&](const Vec3& p) {
        return std::hypot(std::hypot(p.x, p.z) - radius, p.y - thickness) - thickness;
      });
      CHECK(is.corners < 1e-9);
      CHECK(std::max(is.inside, is.outside) <= sag);
      CHECK(triangles.size() <= most_triangles(shape));
      const double whole = 2.0 * kPi * kPi * radius * thickness * thickness;
      CHECK(volume_of(triangles) == Approx(whole).margin(4.0 * kPi * kPi * radius * thickness * sag));
    }
  }
}

TEST_CASE("A tube is as near to its line as it says, closed and wound outwards, whatever way the line takes") {
  const std::vector<Vec3> knot = {{6, 0, 0}, {2, 3, -5}, {-4, 1, -4}, {-6, -2, 1}, {-1, 2, 5}, {4, -1, 4}};
  const std::vector<Vec3> straight = {{0, 0, 0}, {0, 4, 0}},
                          hook = {{0, 0, 0}, {3, 0, 0}, {5, 2, 1}, {4, 5, 2}};
  for (const double radius : {0.1, 0.8}) {
    for (const double sag : {0.001, 0.004, 0.02}) {
      for (const auto& [points, closed] :
           {std::pair(knot, true), std::pair(knot, false), std::pair(straight, false), std::pair(hook, false),
            std::pair(straight, false)}) {
        INFO(points.size() << " points, " << (closed ? "closed, " : "open, ") << radius << " m, sag " << sag);
        const Shape shape = shape::Tube{points, radius, closed, sag};
        const auto triangles = made(shape);
        const SmoothPath line(points, closed);
        const Apart is =
            apart(triangles, [&](const Vec3& p) { return length(line.at(line.nearest(p)) - p) - radius; });
        CHECK(is.corners < 1e-9);
        CHECK(std::max(is.inside, is.outside) <= sag);
        CHECK(triangles.size() <= most_triangles(shape));
        double way = 0.0;
        for (int i = 0; i < 20000; ++i) {
          const double all = double(line.spans());
          way += length(line.at(all * (i + 1) / 20000) - line.at(all * i / 20000));
        }
        const double whole = kPi * radius * radius * (way + (closed ? 0.0 : 4.0 / 3.0 * radius));
        CHECK(volume_of(triangles) == Approx(whole).margin(2.0 * kPi * radius * (way + 2.0 * radius) * sag));
        std::map<std::array<long, 6>, int> edges;
        for (const Triangle& t : triangles) {
          const Vec3 v[] = {t.v0_C, t.v1_C, t.v2_C};
          for (int i = 0; i < 3; ++i) {
            const auto key = [](const Vec3& a, const Vec3& b) {
              const auto n = [](double x) { return std::lround(x * 1e7); };
              return std::array<long, 6>{n(a.x), n(a.y), n(a.z), n(b.x), n(b.y), n(b.z)};
            };
            ++edges[key(v[i], v[(i + 1) % 3])];
            --edges[key(v[(i + 1) % 3], v[i])];
          }
        }
        CHECK(std::all_of(edges.begin(), edges.end(), [](const auto& e) { return e.second == 0; }));
      }
    }
  }
}

TEST_CASE("What is no field is refused, by its place") {
  const auto refusal = [](const std::string& fields) {
    const auto read = parse_course(R"({"lagniappe": "course", "version": 1, "name": "n",
      "pieces": [{"id": "p", "kind": "block", "at": [0, 0, 0], "size": [1, 1, 1]}],
      "marks": [{"id": "start", "at": [0, 9, 0]}], "fields": [)" +
                                       fields + "]}",
                                   "x.course.json", "");
    return read ? std::string("read") : read.error().sentence();
  };
  const std::string ball = R"({"id": "b", "kind": "ball", "at": [0, 0, 0], "radius": 1)";
  CHECK(refusal(ball + "}") == "read");
  CHECK(refusal(ball + R"(, "falloff": "linear"})").find("reach") != std::string::npos);
  CHECK(refusal(ball + R"(, "falloff": [[2, 1], [1, 0]]})").find("must rise") != std::string::npos);
  CHECK(refusal(ball + R"(, "on": "q"})").find("no piece \"q\"") != std::string::npos);
  CHECK(refusal(ball + "}, " + ball + "}").find("used before") != std::string::npos);
  CHECK(refusal(R"({"id": "u", "kind": "uniform", "at": [0, 0, 0], "size": [1, 1, 1], "direction": [0, 0, 0]})")
            .find("no direction") != std::string::npos);
  CHECK(refusal(R"({"id": "w", "kind": "path", "at": [0, 0, 0], "radius": 1, "points": [[0, 0, 0]]})")
            .find("at least 2") != std::string::npos);
}

TEST_CASE("What is no tube is refused, and without a word one is open") {
  const auto read = [](const std::string& keys) {
    return parse_course(R"({"lagniappe": "course", "version": 1, "name": "n",
      "marks": [{"id": "start", "at": [0, 9, 0]}], "pieces": [{"id": "p", "at": [0, 0, 0], "kind": "tube", )" +
                            keys + "}]}",
                        "x.course.json", "");
  };
  const auto refused = [&](const std::string& keys, const std::string& why) {
    const auto course = read(keys);
    REQUIRE_FALSE(course);
    INFO(course.error().sentence());
    CHECK(course.error().sentence().find(why) != std::string::npos);
  };
  refused(R"("points": [[0, 0, 0]], "radius": 1)", "at least 2");
  refused(R"("points": [[0, 0, 0], [9, 0, 0]], "radius": 1, "closed": true)", "at least 3");
  refused(R"("points": [[0, 0, 0], [9, 0, 0], [9, 0, 0]], "radius": 1)", "are the same");
  refused(R"("points": [[0, 0, 0], [9, 0, 0], [0, 0, 9], [0, 0, 0]], "radius": 1, "closed": true)",
          "are the same");
  refused(R"("points": [[0, 0, 0], [3, 0, 0], [3, 0, 3]], "radius": 2)", "more tightly");
  refused(R"("points": [[0, 0, 0], [3, 0, 0], [0, 0, 0.1]], "radius": 0.5)", "more tightly");
  refused(R"("points": [[0, 0, 0], [30, 0, 0], [0, 0, 0]], "radius": 0.01)", "more tightly");
  refused(R"("points": [[0, 0, 0], [9, 0, 0]], "radius": 1, "closed": 1)", "closed");
  refused(R"("points": [0, 9], "radius": 1)", "points");
  const auto course = read(R"("points": [[0, 0, 0], [9, 0.1, 0], [14, 3, 5]], "radius": 1, "sag": 0.01)");
  REQUIRE(course);
  CHECK_FALSE(std::get<shape::Tube>(course->pieces[0].shape).closed);
}

TEST_CASE("A ring without a hole is refused, and a sag that is not said is 4 mm") {
  const auto read = [](const std::string& keys) {
    return parse_course(R"({"lagniappe": "course", "version": 1, "name": "n",
      "marks": [{"id": "start", "at": [0, 9, 0]}], "pieces": [{"id": "p", "at": [0, 0, 0], )" +
                            keys + "}]}",
                        "x.course.json", "");
  };
  const auto ball = read(R"("kind": "ball", "radius": 2)");
  REQUIRE(ball);
  CHECK(std::get<shape::Ball>(ball->pieces[0].shape).sag == 0.004);
  const auto full = read(R"("kind": "ring", "radius": 2, "thickness": 2)");
  REQUIRE_FALSE(full);
  CHECK(full.error().sentence().find("less than the ring's radius") != std::string::npos);
}

TEST_CASE(
    "Over a ball and through a hollow one no facet is felt: not in speed, nor height, nor under the foot") {
  constexpr double kSag = 0.004;
  for (const bool inside : {false, true}) {
    for (const double radius : {6.0, 12.0}) {
      for (const int hz : tick_rates()) {
        INFO((inside ? "inside a ball of " : "over a ball of ") << radius << " m, " << hz << " ticks/s");
        TriangleWorld::Builder builder;
        builder.begin_piece("ball");
        for (const Triangle& t : made(shape::Ball{radius, kSag})) builder.add(t);
        const Vec3 centre(0.0, radius, 0.0);
        const double side = inside ? -1.0 : 1.0;
        // Towards no corner of its rows, a metre beside its pole.
        Driven d(builder.commit(), Profile{},
                 Home{Vec3(0.3, radius + side * std::sqrt(radius * radius - 1.1), 1.0), Quat(1, 0, 0, 0), 0.3});
        d.hz = hz;
        d.go(0.3, push(0.0, 0.0));
        REQUIRE(d.state.grounded());
        d.go(0.6, push(0.0, 1.0));
        const double r = d.profile.capsule.radius;
        // Over an edge the body goes round it within a tick: told from 0.2 s, and from the velocity of each.
        const int ticks = hz / 5;
        double way = 0.0;
        for (int i = 0; i < ticks; ++i) {
          const Vec3 before = d.state.foot_C;
          d.go(1.0 / hz, push(0.0, 1.0));
          REQUIRE(d.state.grounded());
          way += length(d.state.foot_C - before);
          CHECK(length(d.state.velocity_C) == Approx(d.profile.ground.speed).epsilon(0.005));
          // Faces lie within the ball, on whichever side one walks.
          const double centre_to_middle = length(d.state.foot_C + Vec3(0, r, 0) - centre);
          const double within = radius + side * r - centre_to_middle;
          CHECK(within > -0.001);
          CHECK(within < kSag + 0.001);
        }
        CHECK(way * hz / ticks == Approx(d.profile.ground.speed).epsilon(0.005));
      }
    }
  }
}
