// SPDX-License-Identifier: MIT
// Places that benchmarks are run on.
#pragma once

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <random>
#include <vector>

#include "lagniappe/lagniappe.h"

namespace lagniappe::bench {

// A rolling terrain of cells x cells squares of a metre, two triangles each, around the origin.
inline std::vector<Triangle> terrain(int cells) {
  const double half = 0.5 * cells;
  const auto at = [&](int i, int j) {
    const double x = i - half, z = j - half;
    return Vec3(x, 1.5 * std::sin(0.11 * x) * std::cos(0.07 * z) + 0.3 * std::sin(0.9 * x + 0.7 * z), z);
  };
  std::vector<Triangle> triangles;
  triangles.reserve(2 * std::size_t(cells) * std::size_t(cells));
  for (int j = 0; j < cells; ++j) {
    for (int i = 0; i < cells; ++i) {
      triangles.push_back({at(i, j), at(i, j + 1), at(i + 1, j + 1)});
      triangles.push_back({at(i, j), at(i + 1, j + 1), at(i + 1, j)});
    }
  }
  return triangles;
}

inline TriangleWorld commit(const std::vector<Triangle>& triangles) {
  TriangleWorld::Builder builder;
  builder.begin_piece("terrain");
  for (const Triangle& t : triangles) builder.add(t);
  return builder.commit();
}

inline Course demo_course(const std::string& name = "tidewheel") {
  auto course = read_course(LAGNIAPPE_SOURCE_DIR "/courses/" + name + ".course.json");
  if (!course) {
    std::fprintf(stderr, "%s\n", course.error().sentence().c_str());
    std::exit(2);
  }
  return std::move(*course);
}

// Places a little above ground, anywhere within `reach` of the origin.
inline std::vector<Vec3> feet(const TriangleWorld& world, double reach, int count) {
  std::mt19937_64 engine(7);
  std::uniform_real_distribution<double> any(-reach, reach), above(0.02, 0.3);
  std::vector<Vec3> out;
  while (int(out.size()) < count) {
    const Vec3 from(any(engine), 60.0, any(engine));
    const auto hit = world.cast_ray(from, Vec3(0, -100, 0));
    if (hit) out.push_back(hit->hit.point_C + Vec3(0, above(engine), 0));
  }
  return out;
}

}  // namespace lagniappe::bench
