// SPDX-License-Identifier: MIT
// Exact integrators: each returns the new velocity and the displacement over dt in closed form, so that a
// motion follows the same curve at any tick rate: f(a + b) = f(b) after f(a), up to rounding.
//
// Units: m, m/s, m/s2, s. REQUIRES throughout: dt >= 0, every input finite.
#pragma once

#include "lagniappe/vector.h"

namespace lagniappe {

struct Moved {
  Vec3 velocity;
  Vec3 displacement;
};

struct MovedScalar {
  double velocity;
  double displacement;
};

// Constant acceleration.
Moved accelerate(const Vec3& velocity, const Vec3& acceleration, double dt);

// Towards `target` at a constant acceleration >= 0; stays there when it is reached inside the tick.
Moved approach_steady(const Vec3& velocity, const Vec3& target, double acceleration, double dt);

// dv/dt = (target - v) / time. This is also thrust against linear drag, with thrust = target / time.
// time == 0 is instant.
Moved approach_exponential(const Vec3& velocity, const Vec3& target, double time, double dt);

struct MovedSmooth {
  Vec3 velocity;
  Vec3 acceleration;
  Vec3 displacement;
};

// Critically damped: dv2/dt2 = w2 (target - v) - 2 w dv/dt with w = 2 / time. time == 0 is instant.
MovedSmooth approach_smooth(const Vec3& velocity, const Vec3& acceleration, const Vec3& target, double time,
                            double dt);

// Gravity with linear drag: dv/dt = -gravity - drag v, v positive upwards, drag >= 0 in 1/s.
MovedScalar fall_with_drag(double velocity, double gravity, double drag, double dt);

// Along a slope: `pull` >= 0 downhill, `drag` >= 0 against the velocity (positive downhill), piecewise: what
// goes uphill comes to a stand first, and stays there if the drag holds it. Downhill up to `top_speed` by pull
// alone; what is faster already keeps its speed.
MovedScalar slide_with_friction(double velocity, double pull, double drag, double top_speed, double dt);

// Turns `angle` towards `target` the shorter way, by no more than `rate` dt; the result is wrapped.
double turn_towards(double angle, double target, double rate, double dt);

// Share of a quantity that is left after dt of exponential decay; time == 0 leaves nothing.
double decay_share(double time, double dt);

}  // namespace lagniappe
