// SPDX-License-Identifier: MIT
// Fields against nearest points by brute force, finite differences of potentials, and straight walks through
// them that must meet no jump.
#include "lagniappe/field.h"

#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const double kInfinite = std::numeric_limits<double>::infinity();

Field made(FieldShape shape, Field::Falloff falloff = Field::Falloff::Constant) {
  Field field;
  field.id = "f";
  field.shape = std::move(shape);
  field.falloff = falloff;
  return field;
}

std::vector<Field> of_all_shapes(Field::Falloff falloff = Field::Falloff::Constant) {
  std::vector<Field> fields = {
      made(field::Ball{3.0}, falloff),
      made(field::Pill{1.5, 4.0}, falloff),
      made(field::Ring{5.0, 1.2}, falloff),
      made(field::Slab{{6.0, 0.8, 4.0}}, falloff),
      made(field::Path{SmoothPath({{-3, 0, 1}, {0, 2, -1}, {3, 0, 2}, {2, -2, 0}}, true), 0.7}, falloff),
      made(field::Uniform{{6.0, 3.0, 4.0}}, falloff)};
  for (Field& field : fields) {
    field.at_C = {3.0, -2.0, 7.0};
    field.turn = {0.7, -0.4, 1.1};
  }
  return fields;
}

// Points that fill a core, but for a box's.
std::vector<Vec3> core_points(const FieldShape& shape) {
  constexpr int kMany = 600;
  std::vector<Vec3> points;
  for (int i = 0; i <= kMany; ++i) {
    const double share = double(i) / kMany - 0.5;
    if (std::holds_alternative<field::Ball>(shape)) points.emplace_back(0.0);
    if (const auto* pill = std::get_if<field::Pill>(&shape))
      points.emplace_back(0.0, share * pill->length, 0.0);
    if (const auto* ring = std::get_if<field::Ring>(&shape))
      points.push_back(Vec3(std::cos(2.0 * kPi * share), 0.0, std::sin(2.0 * kPi * share)) * ring->radius);
    if (const auto* path = std::get_if<field::Path>(&shape))
      points.push_back(path->line.at((share + 0.5) * double(path->line.spans())));
    if (const auto* slab = std::get_if<field::Slab>(&shape)) {
      for (int k = 0; k <= 100; ++k)
        points.emplace_back(share * slab->size.x, 0.0, (k / 100.0 - 0.5) * slab->size.z);
    }
  }
  return points;
}

}  // namespace

TEST_CASE("A field pulls to the nearest point of its core, found by brute force, from wherever one is") {
  Random random(3);
  for (const Field& field : of_all_shapes()) {
    if (std::holds_alternative<field::Uniform>(field.shape)) continue;
    const RigidPose frame = frame_of(field);
    const auto core = core_points(field.shape);
    for (int i = 0; i < 40; ++i) {
      const Vec3 p = field.at_C + random.point(9.0);
      double nearest = kInfinite;
      Vec3 to;
      for (const Vec3& c : core) {
        const double distance = length(frame.point(c) - p);
        if (distance >= nearest) continue;
        nearest = distance;
        to = frame.point(c) - p;
      }
      if (nearest < 0.5) continue;  // Of such coarse points none is near enough to tell the direction.
      const FieldAt at = field_at(field, frame, p);
      CHECK(length(at.pull_C) == Approx(1.0).epsilon(1e-12));
      CHECK(length(at.pull_C - to / nearest) < 0.05);
      const double of_core = length(field_at(field, frame, p + at.pull_C * 1e-9).pull_C);
      CHECK(of_core == Approx(1.0));
      CHECK(at.distance - field_at(field, frame, p + at.pull_C * 0.1).distance == Approx(0.1).epsilon(1e-9));
    }
  }
}

TEST_CASE(
    "What falls off is the slope of a potential: inverse-square outside, even in a solid, and the others") {
  // Of a ball of radius R, by the distance x from its centre; each is 1 at the surface.
  constexpr double kR = 3.0;
  using Falloff = Field::Falloff;
  const auto potential = [&](Falloff falloff, double x) {
    const bool within = x < kR;
    switch (falloff) {
      case Falloff::Constant:
        return x;
      case Falloff::Linear:  // Reach 5 m.
        return within ? x : x - 0.5 * (x - kR) * (x - kR) / 5.0;
      case Falloff::Inverse:
        return within ? 0.5 * x * x / kR : 0.5 * kR + kR * std::log(x / kR);
      case Falloff::InverseSquare:
        return within ? 0.5 * x * x / kR : 1.5 * kR - kR * kR / x;
      default:
        return 0.0;
    }
  };
  for (const Falloff falloff : {Falloff::Constant, Falloff::Linear, Falloff::Inverse, Falloff::InverseSquare}) {
    Field field = made(field::Ball{kR}, falloff);
    field.at_C = {1, 2, 3};
    field.strength = 1.7;
    if (falloff == Falloff::Linear) field.reach = 5.0;
    Random random(11);
    for (int i = 0; i < 60; ++i) {
      const Vec3 p = field.at_C + random.direction() * random.between(0.2, 7.8);
      const auto at = [&](const Vec3& q) { return 1.7 * potential(falloff, length(q - field.at_C)); };
      constexpr double kStep = 1e-5;
      Vec3 slope;
      for (int axis = 0; axis < 3; ++axis) {
        Vec3 step(0.0);
        step[axis] = kStep;
        slope[axis] = (at(p + step) - at(p - step)) / (2.0 * kStep);
      }
      CHECK(length(field_at(field, frame_of(field), p).pull_C + slope) < 1e-4);
    }
  }
}

TEST_CASE("On a core, on the axis of a ring and in its middle a field is a number, and pulls nobody sideways") {
  for (const auto falloff :
       {Field::Falloff::Constant, Field::Falloff::Inverse, Field::Falloff::InverseSquare}) {
    for (const Field& field : of_all_shapes(falloff)) {
      const RigidPose frame = frame_of(field);
      const FieldAt centre = field_at(field, frame, field.at_C);
      CHECK(is_finite(centre.pull_C));
      // Those have nothing there that is even on all sides.
      const bool even = !std::holds_alternative<field::Uniform>(field.shape) &&
                        !std::holds_alternative<field::Path>(field.shape);
      if (even) CHECK(length(centre.pull_C) < 1e-12);
      for (const Vec3& on : core_points(field.shape)) {
        const Vec3 pull = field_at(field, frame, frame.point(on)).pull_C;
        CHECK(is_finite(pull));
        CHECK(length(pull) <= 1.0 + 1e-9);
      }
    }
  }
  const Field ring = made(field::Ring{5.0, 1.2});
  const FieldAt above = field_at(ring, frame_of(ring), {0.0, 3.0, 0.0});
  CHECK(length(above.pull_C - Vec3(0.0, -3.0 / std::hypot(5.0, 3.0), 0.0)) < 1e-12);
  CHECK(above.distance == Approx(std::hypot(5.0, 3.0) - 1.2));
}

// Where a point is along the line of a path; 0 for other shapes. Halfway between two stretches of a path it
// jumps from one to the other, and so does the pull.
double place_along(const Field& field, const Vec3& point_C) {
  const auto* path = std::get_if<field::Path>(&field.shape);
  return path ? path->line.nearest(frame_of(field).back(point_C)) : 0.0;
}

TEST_CASE(
    "Where a field ends nothing jumps, neither pull nor how it changes, and beyond its reach there is none") {
  Random random(5);
  for (const auto falloff : {Field::Falloff::Constant, Field::Falloff::Linear, Field::Falloff::InverseSquare}) {
    for (Field field : of_all_shapes(falloff)) {
      const bool box = std::holds_alternative<field::Uniform>(field.shape);
      field.reach = box ? 0.0 : 2.5;
      field.fade = 1.0;
      const FieldSum sum({field}, Vec3(0, -1, 0));
      for (int i = 0; i < 12; ++i) {
        // A box has edges, at which what changes does so at once, but nothing else.
        // In a straight line from outside to what would be its middle, but not through the core.
        const Vec3 from = field.at_C + random.direction() * 14.0, to = field.at_C + random.point(1.0);
        Vec3 before = sum.at(from).share_C, change_before(0.0);
        double place = place_along(field, from);
        int steady = 0;  // Steps since it was last at another stretch of a path.
        constexpr int kSteps = 4000;
        for (int k = 1; k <= kSteps; ++k) {
          const Vec3 p = from + (to - from) * (double(k) / kSteps);
          const FieldAt here = field_at(field, frame_of(field), p);
          if (here.distance < (box ? -1.05 : 1.2)) break;
          const Vec3 now = sum.at(p).share_C, change = now - before;
          const double place_now = place_along(field, p);
          steady = std::abs(place_now - place) < 0.02 ? steady + 1 : 0;
          place = place_now;
          if (steady > 0) CHECK(length(change) < 0.02);
          if (!box && steady > 1 && here.distance > *field.reach - field.fade - 0.01)
            CHECK(length(change - change_before) < 4e-4);
          if (here.distance >= *field.reach) CHECK(now == Vec3(0, -1, 0));
          before = now;
          change_before = change;
        }
      }
    }
  }
}

TEST_CASE(
    "Replacing fields mix by their influence and their priority, adding ones are added, and shares say so") {
  Field low = made(field::Ball{2.0}), high = made(field::Ball{2.0}),
        wind = made(field::Uniform{Vec3(100.0), {1, 0, 0}});
  high.at_C = {6.0, 0.0, 0.0};
  high.priority = 1;
  high.reach = 3.0;
  high.fade = 2.0;
  wind.adds = true;
  wind.strength = 0.25;
  wind.absolute = true;
  const Vec3 down(0, -1, 0);
  // Written in an order that must not matter.
  const FieldSum sum({wind, high, low}, down);
  Random random(9);
  for (int i = 0; i < 200; ++i) {
    const Vec3 p = random.point(8.0);
    const FieldAt of_low = field_at(low, frame_of(low), p), of_high = field_at(high, frame_of(high), p);
    const double w = of_high.influence;
    const Gravity pull = sum.at(p);
    CHECK(length(pull.share_C - (of_low.pull_C * (1.0 - w) + of_high.pull_C * w)) < 1e-12);
    CHECK(length(pull.acceleration_C - Vec3(0.25 * (1.0 - w), 0, 0)) < 1e-12);
    CHECK(length(pull.of(10.0) - pull.share_C * 10.0 - pull.acceleration_C) < 1e-12);
    std::array<double, 3> shares{};
    CHECK(sum.shares(p, shares) == Approx(0.0).margin(1e-12));
    CHECK(shares[0] == Approx(1.0 - w));
    CHECK(shares[1] == Approx(w));
    CHECK(shares[2] == Approx(1.0 - w));
  }
  // With the same priority the later one comes on top.
  Field first = low, second = low;
  first.strength = 3.0;
  CHECK(length(FieldSum({first, second}, down).at({5, 0, 0}).share_C) == Approx(1.0));
  CHECK(length(FieldSum({second, first}, down).at({5, 0, 0}).share_C) == Approx(3.0));
  CHECK(FieldSum({}, down).at({5, 0, 0}).share_C == down);
}

TEST_CASE(
    "A field goes with its frame, and a hollow ball that pushes away holds one to its shell from within") {
  Random random(13);
  for (const Field& field : of_all_shapes(Field::Falloff::InverseSquare)) {
    const FieldSum sum({field}, Vec3(0.0));
    for (int i = 0; i < 20; ++i) {
      const RigidPose moved{random.point(20.0), random.rotation()};
      const Vec3 p_F = random.point(6.0);
      const Vec3 there = sum.at(moved.point(p_F), std::span(&moved, 1)).share_C,
                 here = sum.at(frame_of(field).point(p_F)).share_C;
      CHECK(length(glm::conjugate(moved.rotation_CP) * there -
                   glm::conjugate(frame_of(field).rotation_CP) * here) < 1e-12);
    }
  }
  Field hollow = made(field::Ball{6.0});
  hollow.strength = -1.0;
  hollow.reach = 0.5;
  const FieldSum sum({hollow}, Vec3(0.0));
  for (int i = 0; i < 50; ++i) {
    const Vec3 out = random.direction();
    CHECK(length(sum.at(out * 5.1).share_C - out) < 1e-12);
    CHECK(sum.at(out * 6.6).share_C == Vec3(0.0));
  }
}
