// SPDX-License-Identifier: MIT
#include "math/integrators.h"

#include <catch2/catch.hpp>
#include <functional>

using namespace lagniappe;

namespace {

const std::vector<double> kSteps = {1.0 / 480, 1.0 / 240, 1.0 / 144, 1.0 / 60, 1.0 / 30, 1.0 / 20, 0.1};

void near(const Vec3& a, const Vec3& b, double tolerance = 1e-9) { CHECK(length(a - b) < tolerance); }

// A march so fine that it needs no theory: Heun's rule on dv/dt = f(v), 20,000 steps.
MovedScalar marched(double v, double seconds, const std::function<double(double)>& f) {
  const int n = 20000;
  const double h = seconds / n;
  double x = 0.0;
  for (int i = 0; i < n; ++i) {
    const double a = f(v), next = v + h * a;
    const double b = f(next), after = v + 0.5 * h * (a + b);
    x += 0.5 * h * (v + after);
    v = after;
  }
  return {v, x};
}

}  // namespace

TEST_CASE("Constant acceleration follows the school formula") {
  for (const double dt : kSteps) {
    const Moved m = accelerate(Vec3(1, 2, 3), Vec3(0, -20, 5), dt);
    near(m.velocity, Vec3(1, 2 - 20 * dt, 3 + 5 * dt));
    near(m.displacement, Vec3(dt, 2 * dt - 10 * dt * dt, 3 * dt + 2.5 * dt * dt));
  }
}

TEST_CASE("A steady approach reaches its target inside a tick and stays there") {
  const Moved m = approach_steady(Vec3(0.0), Vec3(3, 0, 4), 100.0, 0.1);
  near(m.velocity, Vec3(3, 0, 4));
  // 5 m/s at 100 m/s2 take 0.05 s; half the speed until then, all of it after.
  near(m.displacement, Vec3(3, 0, 4) * (0.025 + 0.05));
  near(approach_steady(Vec3(1, 0, 0), Vec3(5, 0, 0), 0.0, 0.5).velocity, Vec3(1, 0, 0));
}

TEST_CASE("An exponential approach is the exponential") {
  for (const double dt : kSteps) {
    const Moved m = approach_exponential(Vec3(0.0), Vec3(4, 0, 0), 0.1, dt);
    CHECK(m.velocity.x == Approx(4 * (1 - std::exp(-dt / 0.1))).epsilon(1e-12));
    CHECK(m.displacement.x == Approx(4 * dt - 0.4 * (1 - std::exp(-dt / 0.1))).epsilon(1e-10));
  }
  near(approach_exponential(Vec3(7.0), Vec3(4, 0, 0), 0.0, 0.1).velocity, Vec3(4, 0, 0));
}

TEST_CASE("A smooth approach solves the critically damped oscillator") {
  const double w = 2.0 / 0.25, dt = 0.1;
  double x = -4.0, a = 3.0, moved = 0.0;
  const int n = 200000;
  for (int i = 0; i < n; ++i) {  // Midpoint rule on (x, a).
    const double h = dt / n, da = -w * w * x - 2 * w * a;
    const double xm = x + 0.5 * h * a, am = a + 0.5 * h * da;
    moved += h * (xm + 4.0);
    x += h * am;
    a += h * (-w * w * xm - 2 * w * am);
  }
  const MovedSmooth m = approach_smooth(Vec3(0.0), Vec3(3, 0, 0), Vec3(4, 0, 0), 0.25, dt);
  CHECK(m.velocity.x == Approx(x + 4.0).epsilon(1e-7));
  CHECK(m.acceleration.x == Approx(a).epsilon(1e-6));
  CHECK(m.displacement.x == Approx(moved).epsilon(1e-6));
}

TEST_CASE("Falling with drag and falling to a terminal speed agree with a fine march") {
  for (const double dt : kSteps) {
    const MovedScalar drag = fall_with_drag(5.0, 20.0, 0.8, dt);
    const MovedScalar drag_march = marched(5.0, dt, [](double v) { return -20.0 - 0.8 * v; });
    CHECK(drag.velocity == Approx(drag_march.velocity).margin(1e-8));
    CHECK(drag.displacement == Approx(drag_march.displacement).margin(1e-8));
  }
  CHECK(fall_with_drag(5.0, 20.0, 1e-12, 0.1).velocity == Approx(3.0));
}

TEST_CASE("Every integrator gives the same in one step as in many") {
  for (const int parts : {2, 3, 7, 24}) {
    const double whole = 0.1, part = whole / parts;
    const Vec3 v0(1.0, -3.0, 2.0), target(-2.0, 4.0, 0.5);
    const auto compare = [&](auto once) {
      const Moved big = once(v0, whole);
      Moved sum{v0, Vec3(0.0)};
      for (int i = 0; i < parts; ++i) {
        const Moved m = once(sum.velocity, part);
        sum = {m.velocity, sum.displacement + m.displacement};
      }
      near(big.velocity, sum.velocity, 1e-12);
      near(big.displacement, sum.displacement, 1e-12);
    };
    compare([&](const Vec3& v, double dt) { return accelerate(v, target, dt); });
    compare([&](const Vec3& v, double dt) { return approach_steady(v, target, 90.0, dt); });
    compare([&](const Vec3& v, double dt) { return approach_exponential(v, target, 0.07, dt); });
  }
}

TEST_CASE("Turning goes the shorter way and does not overshoot") {
  CHECK(turn_towards(radians(170), radians(-170), radians(90), 0.1) == Approx(radians(179)));
  CHECK(turn_towards(radians(179), radians(-179), radians(90), 0.1) == Approx(radians(-179)));
  CHECK(decay_share(0.0, 0.1) == 0.0);
  CHECK(decay_share(0.1, 0.1) == Approx(std::exp(-1.0)));
}
