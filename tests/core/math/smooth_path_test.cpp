// SPDX-License-Identifier: MIT
// Smooth lines: through their points, without corners, and their nearest points against looking everywhere.
#include "lagniappe/smooth_path.h"

#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

TEST_CASE("A smooth line goes through its points, without corners, and its slope is how it changes") {
  Random random(1);
  for (const bool closed : {false, true}) {
    std::vector<Vec3> points;
    for (int i = 0; i < 9; ++i) points.push_back(random.point(10.0));
    const SmoothPath line(points, closed);
    REQUIRE(line.spans() == (closed ? 9u : 8u));
    for (std::size_t i = 0; i < points.size(); ++i) CHECK(length(line.at(double(i)) - points[i]) < 1e-12);
    if (closed) CHECK(length(line.at(9.0) - points[0]) < 1e-12);
    for (double place = 0.01; place < double(line.spans()) - 0.01; place += 0.0173) {
      constexpr double kStep = 1e-6;
      const Vec3 change = (line.at(place + kStep) - line.at(place - kStep)) / (2.0 * kStep);
      CHECK(length(change - line.slope(place)) < 1e-4);
    }
    for (const Vec3& p : points) CHECK(length(p) <= line.extent());
  }
}

TEST_CASE("The nearest place of a smooth line is the one that looking everywhere finds") {
  Random random(2);
  for (int lines = 0; lines < 40; ++lines) {
    const bool closed = lines % 2 == 0;
    std::vector<Vec3> points;
    for (int i = 0; i < 3 + lines % 6; ++i) points.push_back(random.point(6.0));
    const SmoothPath line(points, closed);
    const double all = double(line.spans());
    for (int i = 0; i < 25; ++i) {
      const Vec3 p = random.point(9.0);
      double least = 1e9;
      for (int k = 0; k <= 4000; ++k) least = std::min(least, length(line.at(all * k / 4000) - p));
      const double place = line.nearest(p);
      CHECK(place >= 0.0);
      CHECK(place <= all);
      CHECK(length(line.at(place) - p) <= least + 1e-9);
      CHECK(length(line.at(place) - p) <= line.extent() + length(p));
      // Inside a stretch the way there is across the line.
      const double u = place - std::floor(place);
      if (u > 1e-6 && u < 1.0 - 1e-6)
        CHECK(std::abs(dot(unit_or(line.slope(place), Vec3(0.0)), line.at(place) - p)) < 1e-6);
    }
  }
}
