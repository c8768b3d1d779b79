// SPDX-License-Identifier: MIT
// Shapes of zones against FCL's distances, throws and air against steps in small time.
#include <fcl/fcl.h>

#include <catch2/catch.hpp>

#include "lagniappe/handling.h"
#include "lagniappe/zone.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

constexpr double kThin = 1e-3;  // m: of the capsule that stands for the axis.

// A zone's shape for FCL, whose cylinders and capsules lie along Z about their middle.
struct Oracle {
  std::shared_ptr<fcl::CollisionGeometryd> body;
  double middle;  // Over the base.

  static Oracle of(const zone::Box& s) {
    return {std::make_shared<fcl::Boxd>(s.size.x, s.size.z, s.size.y), 0.5 * s.size.y};
  }
  static Oracle of(const zone::Cylinder& s) {
    return {std::make_shared<fcl::Cylinderd>(s.radius, s.height), 0.5 * s.height};
  }
  static Oracle of(const zone::Ball& s) { return {std::make_shared<fcl::Sphered>(s.radius), s.radius}; }
  static Oracle of(const zone::Pill& s) {
    return {std::make_shared<fcl::Capsuled>(s.radius, s.length), s.radius + 0.5 * s.length};
  }
};

fcl::Transform3d placed(const Vec3& at, const Quat& turn) {
  fcl::Transform3d transform = fcl::Transform3d::Identity();
  transform.linear() = fcl::Quaterniond(turn.w, turn.x, turn.y, turn.z).toRotationMatrix();
  transform.translation() = fcl::Vector3d(at.x, at.y, at.z);
  return transform;
}

double distance(const Oracle& oracle, const Segment& axis) {
  const Quat upright = glm::angleAxis(-kPi / 2, Vec3(1, 0, 0));  // Z to Y.
  const Vec3 along = axis.b_C - axis.a_C;
  const fcl::Capsuled capsule(kThin, length(along));
  const Vec3 z(0, 0, 1), way = along / length(along);
  const Vec3 about = cross(z, way);
  const Quat turn = length(about) > 1e-9
                        ? glm::angleAxis(std::atan2(length(about), dot(z, way)), about / length(about))
                        : (way.z > 0 ? Quat(1, 0, 0, 0) : glm::angleAxis(kPi, Vec3(1, 0, 0)));
  fcl::DistanceRequestd request;
  request.distance_tolerance = 1e-9;
  fcl::DistanceResultd result;
  const double d = fcl::distance(oracle.body.get(), placed({0, oracle.middle, 0}, upright), &capsule,
                                 placed(0.5 * (axis.a_C + axis.b_C), turn), request, result);
  return std::max(d, 0.0) + kThin;
}

// The least on a straight way, along which it is convex.
double least_distance(const Oracle& oracle, const CapsuleWay& way) {
  const auto at = [&](double t) {
    return distance(oracle, {glm::mix(way.from.a_C, way.to.a_C, t), glm::mix(way.from.b_C, way.to.b_C, t)});
  };
  double low = 0.0, high = 1.0;
  for (int i = 0; i < 60; ++i) {
    const double a = low + (high - low) / 3.0, b = high - (high - low) / 3.0;
    (at(a) <= at(b) ? high : low) = at(a) <= at(b) ? b : a;
  }
  return std::min({at(0.5 * (low + high)), at(0.0), at(1.0)});
}

ZoneShape random_shape(Random& random) {
  const auto size = [&] { return random.between(0.02, 3.0); };
  switch (random.below(4)) {
    case 0:
      return zone::Box{Vec3(size(), size(), size())};
    case 1:
      return zone::Cylinder{size(), size()};
    case 2:
      return zone::Ball{size()};
    default:
      return zone::Pill{size(), size()};
  }
}

}  // namespace

TEST_CASE("Zones are touched on the way exactly where the least distance says so") {
  Random random(41);
  int touched = 0, apart = 0;
  for (int i = 0; i < 3000; ++i) {
    const ZoneShape shape = random_shape(random);
    const Oracle oracle = std::visit([](const auto& s) { return Oracle::of(s); }, shape);
    const Vec3 at = random.point(3.0), tall = random.direction() * random.between(0.1, 2.0);
    const Vec3 way = random.below(4) == 0 ? Vec3(0.0) : random.direction() * random.between(0.0, 12.0);
    const CapsuleWay moved{{at, at + tall}, {at + way, at + tall + way}, random.between(0.1, 1.0)};
    const double least = least_distance(oracle, moved);
    if (std::abs(least - moved.radius) < 1e-4) continue;  // As good as the oracle is.
    INFO(i << " shape " << shape.index() << " least " << least << " radius " << moved.radius);
    CHECK(touches(shape, moved) == (least < moved.radius));
    (least < moved.radius ? touched : apart) += 1;
  }
  CHECK(touched > 300);
  CHECK(apart > 500);
}

TEST_CASE("Nothing is too thin or too fast, or too far away, to be touched") {
  const ZoneShape sheet = zone::Box{Vec3(4.0, 3.0, 1e-4)};
  const CapsuleWay fast{{{0, 0.3, 90.0}, {0, 1.5, 90.0}}, {{0, 0.3, -110.0}, {0, 1.5, -110.0}}, 0.3};
  CHECK(touches(sheet, fast));
  CHECK_FALSE(touches(sheet, {fast.from, {{0, 0.3, 0.31}, {0, 1.5, 0.31}}, 0.3}));
  CHECK(touches(sheet, {fast.from, {{0, 0.3, 0.3}, {0, 1.5, 0.3}}, 0.3}));
  // Above it by a hair, and touching by one.
  const ZoneShape pad = zone::Box{Vec3(2.0, 0.05, 2.0)};
  const auto over = [&](double foot) {
    const Segment axis{{0.2, foot + 0.3, 0.1}, {0.2, foot + 1.5, 0.1}};
    return touches(pad, {axis, axis, 0.3});
  };
  CHECK(over(0.05 - 1e-9));
  CHECK_FALSE(over(0.05 + 1e-7));
}

TEST_CASE("The depth in a zone is positive within alone, and its smallest way out") {
  Random random(42);
  for (int i = 0; i < 2000; ++i) {
    const ZoneShape shape = random_shape(random);
    const Vec3 p = random.point(3.0);
    const double depth = depth_in(shape, p);
    const Segment here{p, p + Vec3(0, 1e-9, 0)};
    INFO(i << " shape " << shape.index() << " depth " << depth);
    if (depth > 1e-9) {
      CHECK(touches(shape, {here, here, 1e-9}));
      // A ball of that size is within, a larger one is not: along some way it comes out.
      bool out = false;
      for (int k = 0; k < 400; ++k) {
        const Vec3 way = random.direction();
        CHECK(depth_in(shape, p + way * (0.999 * depth)) > 0.0);
        out = out || depth_in(shape, p + way * (1.5 * depth)) <= 0.0;
      }
      CHECK(out);
    } else if (depth < -1e-9) {
      CHECK_FALSE(touches(shape, {here, here, 1e-10}));
    }
  }
}

TEST_CASE("A throw comes down at its mark, by whatever falls back faster or no faster than it may") {
  Random random(43);
  for (int i = 0; i < 300; ++i) {
    const Vec3 up = random.direction(), from = random.point(20.0), to = random.point(20.0);
    const double apex = random.between(0.1, 15.0), g = random.between(1.0, 30.0);
    const ThrowPull pull{g, g * random.between(0.5, 3.0), random.between(4.0, 60.0)};
    const auto thrown = throw_to(from, to, up, apex, pull);
    REQUIRE(thrown);
    // Step by step in small time, with the same rules.
    const double dt = 1e-4;
    Vec3 at = from, level = across(thrown->velocity_C, up);
    double rise = dot(thrown->velocity_C, up), highest = 0.0;
    for (double t = 0.0; t < thrown->seconds; t += dt) {
      const double step = std::min(dt, thrown->seconds - t);
      const double slower =
          std::max(rise - (rise > 0.0 ? pull.gravity : pull.fall_gravity) * step, -pull.terminal_speed);
      at += level * step + up * (0.5 * (rise + slower) * step);
      rise = slower;
      highest = std::max(highest, dot(at - from, up));
    }
    INFO(i);
    CHECK(length(at - to) < 0.02);
    CHECK(highest == Approx(std::max(dot(to - from, up), 0.0) + apex).margin(0.01));
    CHECK(thrown->landing == Approx(-rise).margin(0.01));
  }
  CHECK_FALSE(throw_to(Vec3(0.0), Vec3(1, 0, 0), Vec3(0, 1, 0), 1.0, {0.0, 0.0, 50.0}));
}

TEST_CASE("Air blows whole inside, fades to nothing at the surface, and gusts by the clock alone") {
  Zone zone;
  zone.shape = zone::Cylinder{3.0, 8.0};
  zone.turn = {0.0, 0.0, radians(90.0)};  // Its up points to -X.
  zone.at_C = {10, 4, 0};
  effect::Wind wind;
  wind.velocity = {0.0, 5.0, 2.0};
  wind.fade = 1.0;
  zone.effect = wind;
  const RigidPose frame = frame_of(zone);
  CHECK(length(wind_at(zone, frame, {6, 4, 0}, 0.0) - Vec3(-5, 0, -2)) < 1e-12);
  CHECK(wind_at(zone, frame, {6, 7.0001, 0}, 0.0) == Vec3(0.0));
  double last = 5.4;
  for (double y = 6.0; y < 7.01; y += 0.01) {
    const double now = length(wind_at(zone, frame, {6, y, 0}, 0.0));
    CHECK(now <= last);
    CHECK(last - now < 0.1);
    last = now;
  }
  wind.gust = {4.0, 0.5};
  wind.frame = effect::Frame::Course;
  zone.effect = wind;
  for (const double t : {0.0, 1.0, 3.0, 400001.0}) {
    const double times = 1.0 + 0.5 * std::sin(2.0 * kPi * t / 4.0);
    CHECK(length(wind_at(zone, frame, {6, 4, 0}, t) - Vec3(0, 5, -2) * times) < 1e-9);
  }
}

TEST_CASE("Rises and falls in moving air are as in small steps of time") {
  Random random(44);
  for (int i = 0; i < 400; ++i) {
    Values values{};
    values.gravity = random.between(2.0, 30.0);
    values.terminal_speed = random.between(5.0, 60.0);
    values.jump.fall_factor = random.between(0.5, 2.0);
    const Pull pull = pull_on(values, -1, false);
    const Draught draught{random.between(-20.0, 20.0), random.between(0.1, 2.0)};
    const double from = random.between(-30.0, 30.0), seconds = random.between(0.01, 3.0);
    const Risen risen = rise_in(draught, pull, from, seconds);
    double speed = from, height = 0.0;
    const double dt = 2e-5;
    for (double t = 0.0; t < seconds; t += dt) {
      double growth = -gravity_at(pull, speed);
      const double along = draught.speed > 0.0 ? speed : -speed, whole = std::abs(draught.speed);
      growth += draught.speed / draught.time * (1.0 - std::clamp(along / whole, 0.0, 1.0));
      speed += growth * dt;
      height += speed * dt;
    }
    INFO(i << " air " << draught.speed << " over " << draught.time << " from " << from);
    CHECK(risen.speed == Approx(speed).margin(0.02));
    CHECK(risen.height == Approx(height).margin(0.03));
  }
}
