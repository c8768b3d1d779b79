// SPDX-License-Identifier: MIT
#include "math/integrators.h"

#include <algorithm>
#include <cmath>

namespace lagniappe {

Moved accelerate(const Vec3& velocity, const Vec3& acceleration, double dt) {
  return {velocity + acceleration * dt, velocity * dt + acceleration * (0.5 * dt * dt)};
}

Moved approach_steady(const Vec3& velocity, const Vec3& target, double acceleration, double dt) {
  const Vec3 change = target - velocity;
  const double gap = length(change);
  if (gap <= acceleration * dt) {
    // The middle of both speeds until the target is reached, and the target from then on.
    const double reach_time = acceleration > 0.0 ? gap / acceleration : 0.0;
    return {target, (velocity + target) * (0.5 * reach_time) + target * (dt - reach_time)};
  }
  return accelerate(velocity, change * (acceleration / gap), dt);
}

Moved approach_exponential(const Vec3& velocity, const Vec3& target, double time, double dt) {
  if (time <= 0.0) return {target, target * dt};
  const double gone = -std::expm1(-dt / time);
  const Vec3 offset = velocity - target;
  return {target + offset * (1.0 - gone), target * dt + offset * (gone * time)};
}

MovedSmooth approach_smooth(const Vec3& velocity, const Vec3& acceleration, const Vec3& target, double time,
                            double dt) {
  if (time <= 0.0) return {target, Vec3(0.0), target * dt};
  const double w = 2.0 / time;
  const double decay = std::exp(-w * dt);
  // x = v - target solves x(t) = (x0 + c t) e^(-w t) with c = a0 + w x0; its integral gives the displacement.
  const Vec3 x0 = velocity - target;
  const Vec3 c = acceleration + x0 * w;
  const Vec3 x1 = (x0 + c * dt) * decay;
  const Vec3 at_start = x0 / w + c / (w * w);
  const Vec3 at_end = (x0 / w + c * (dt / w) + c / (w * w)) * decay;
  return {target + x1, c * decay - x1 * w, target * dt + (at_start - at_end)};
}

MovedScalar fall_with_drag(double velocity, double gravity, double drag, double dt) {
  if (drag * dt < 1e-9) return {velocity - gravity * dt, velocity * dt - 0.5 * gravity * dt * dt};
  const double terminal = -gravity / drag;
  const double gone = -std::expm1(-drag * dt);
  const double offset = velocity - terminal;
  return {terminal + offset * (1.0 - gone), terminal * dt + offset * (gone / drag)};
}

MovedScalar slide_with_friction(double velocity, double pull, double drag, double top_speed, double dt) {
  if (velocity < 0.0) {
    const double braking = pull + drag;
    const double stand = braking > 0.0 ? -velocity / braking : dt;
    if (stand >= dt) return {velocity + braking * dt, velocity * dt + 0.5 * braking * dt * dt};
    const MovedScalar then = slide_with_friction(0.0, pull, drag, top_speed, dt - stand);
    return {then.velocity, 0.5 * velocity * stand + then.displacement};
  }
  const double gain = pull - drag;
  // Constant acceleration up to a goal, and even from then on: down to a stand, or up to the top speed.
  const double goal = gain < 0.0 ? 0.0 : std::max(velocity, top_speed);
  const double reach_time = gain != 0.0 ? (goal - velocity) / gain : dt;
  if (reach_time >= dt) return {velocity + gain * dt, velocity * dt + 0.5 * gain * dt * dt};
  return {goal, 0.5 * (velocity + goal) * reach_time + goal * (dt - reach_time)};
}

double turn_towards(double angle, double target, double rate, double dt) {
  const double gap = wrap_angle(target - angle);
  const double most = rate * dt;
  return wrap_angle(std::abs(gap) <= most ? target : angle + std::copysign(most, gap));
}

double decay_share(double time, double dt) { return time > 0.0 ? std::exp(-dt / time) : 0.0; }

}  // namespace lagniappe
