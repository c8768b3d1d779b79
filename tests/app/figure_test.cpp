// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/figure.h"

#include <catch2/catch.hpp>

using namespace lagniappe;
using namespace lagniappe::app;

namespace {

// The box of all corners of the drawn figure.
Box drawn_box(const std::vector<FigurePart>& parts) {
  Box box;
  for (const FigurePart& part : parts) {
    for (const DrawVertex& v : solid_triangles(part.solid)) {
      box.join(Vec3(part.to_course * glm::dvec4(v.position[0], v.position[1], v.position[2], 1.0)));
    }
  }
  return box;
}

}  // namespace

TEST_CASE("The figure stands on its foot and is as tall as the capsule") {
  for (const double height : {1.2, 1.8, 2.4}) {
    const Pose pose{{3, 5, -2}, Quat(1, 0, 0, 0), 0.4, 0.0, height};
    Carriage carriage;
    carriage.standing_height = height;
    const Box box = drawn_box(figure_parts(pose, carriage));
    CHECK(box.low_C.y == Approx(5.0).margin(0.03 * height));
    CHECK(box.high_C.y == Approx(5.0 + height).margin(0.03 * height));
    CHECK(std::abs(box.centre().x - 3.0) < 0.1);
  }
}

TEST_CASE("A foot that bears stays where it is while the body goes on over it") {
  for (const double step_length : {1.3, 2.6}) {
    Carriage carriage;
    carriage.step_length = step_length;
    carriage.swing = 1.0;
    Vec3 touched(0.0);
    for (const double share : {0.05, 0.35, 0.65, 0.95}) {
      const double phase = share * 0.6 / (2.0 * step_length);  // Of the 0.6 m that a foot bears.
      // The body looks along -Z, and a whole stride is two steps.
      const Pose pose{{0, 0, -phase * 2.0 * step_length}, Quat(1, 0, 0, 0), 0.0, 0.0, 1.8};
      carriage.stride = phase;
      const FigurePart boot = figure_parts(pose, carriage)[2];  // After the left thigh and shin.
      const Vec3 at(boot.to_course[3]);
      if (share == 0.05) touched = at;
      CHECK(std::abs(at.z - touched.z) < 0.02);
      CHECK(at.y < 0.13);
    }
  }
}

TEST_CASE("Crouched it is as low as its capsule, and lying as flat") {
  Pose pose{{0, 0, 0}, Quat(1, 0, 0, 0), 0.0, 0.0, 1.1};
  CHECK(drawn_box(figure_parts(pose, {})).high_C.y < 1.45);
  CHECK(drawn_box(figure_parts(pose, {})).low_C.y == Approx(0.0).margin(0.06));
  pose.capsule_height = 0.6;
  pose.lie_length = 1.16;
  const Box lying = drawn_box(figure_parts(pose, {}));
  CHECK(lying.high_C.y < 0.75);
  CHECK(lying.size().z > 1.5);
}

TEST_CASE("Another up lays the figure along it") {
  const Pose pose{{0, 0, 0}, glm::angleAxis(kPi / 2, Vec3(0, 0, 1)), 0.0, 0.0, 1.8};  // Up is -X.
  const Box box = drawn_box(figure_parts(pose, {}));
  CHECK(box.low_C.x == Approx(-1.8).margin(0.06));
  CHECK(box.high_C.x == Approx(0.0).margin(0.06));
}
