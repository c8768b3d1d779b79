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
    const Box box = drawn_box(figure_parts(pose, {}));
    CHECK(box.low_C.y == Approx(5.0).margin(0.03 * height));
    CHECK(box.high_C.y == Approx(5.0 + height).margin(0.03 * height));
    CHECK(std::abs(box.centre().x - 3.0) < 0.1);
  }
}

TEST_CASE("The stride comes from the length travelled, not from time") {
  CHECK(carriage_of(1.5, 4.0, false).stride == Approx(2.0 * kPi));
  CHECK(carriage_of(0.75, 1.0, false).stride == Approx(kPi));
  CHECK(carriage_of(3.0, 0.0, false).swing == 0.0);
  const Pose pose{{0, 0, 0}, Quat(1, 0, 0, 0), 0.0, 0.0, 1.8};
  const Box standing = drawn_box(figure_parts(pose, {})),
            striding = drawn_box(figure_parts(pose, {kPi / 2, 1.0, false}));
  CHECK(striding.size().z > standing.size().z + 0.4);
}

TEST_CASE("Another up lays the figure along it") {
  const Pose pose{{0, 0, 0}, glm::angleAxis(kPi / 2, Vec3(0, 0, 1)), 0.0, 0.0, 1.8};  // Up is -X.
  const Box box = drawn_box(figure_parts(pose, {}));
  CHECK(box.low_C.x == Approx(-1.8).margin(0.06));
  CHECK(box.high_C.x == Approx(0.0).margin(0.06));
}
