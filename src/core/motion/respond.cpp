// SPDX-License-Identifier: MIT
#include "motion/respond.h"

#include <algorithm>

namespace lagniappe {
namespace {

// What an instant response becomes where there is little grip, in s at half of it.
constexpr double kInstantSlip = 0.1;

// Rate of a critically damped approach, times its smooth time.
constexpr double kSmoothRate = 2.0;

struct Rates {
  double acceleration, time;
};

// What a critically damped approach may begin with and not swing past its target: an acceleration that comes
// from a quicker one, or from before the target changed, would throw a slow one far beyond it. Within one
// approach it never has more.
// `beside`: what it may have besides.
Vec3 gentle(const Vec3& acceleration, const Vec3& gap, double time, double beside = 0.0) {
  const double most = (time > 0.0 ? kSmoothRate / time * length(gap) : 0.0) + beside,
               has = length(acceleration);
  return has > most ? acceleration * (most / has) : acceleration;
}

// Towards a target that turns, at a constant acceleration: straight to where it will be, and with it from there
// on. What cannot be met by then, or turns too fast to stay with, is headed for where it is in the middle of
// the time, or at its end if that is nearer than one gets.
Moved approach_a_little(const Vec3& velocity, const Target& target, double acceleration, double dt) {
  const double rate = length(target.turning_C);
  const auto gap = [&](double t) { return length(target.turned(t) - velocity) - acceleration * t; };
  if (rate * length(target.velocity) > acceleration || gap(dt) > 0.0) {
    const Vec3 middle = target.turned(0.5 * dt);
    const bool is_far = length(middle - velocity) > acceleration * dt;
    return approach_steady(velocity, is_far ? middle : target.turned(dt), acceleration, dt);
  }
  constexpr double kWithIt = 1e-9;  // m/s.
  double low = 0.0, high = gap(0.0) > kWithIt ? dt : 0.0;
  for (int halving = 0; halving < 30 && high > 0.0; ++halving)
    (gap(0.5 * (low + high)) > 0.0 ? low : high) = 0.5 * (low + high);
  const Vec3 met = target.turned(high), after = target.turned(dt);
  // The way of what turns at a rate is its change, a quarter turn back, over the rate.
  const Vec3 with_it = cross(after - met, target.turning_C) / (rate * rate);
  return {after, (velocity + met) * (0.5 * high) + with_it};
}

// A pursuit has no closed form: it is followed in pieces, over each of which the target turns little.
Moved approach_turning(const Vec3& velocity, Target target, double acceleration, double dt) {
  constexpr double kLittle = 0.02, kMostPieces = 100.0;  // rad. What whirls round more is not pursued closely.
  const double pieces = std::min(std::ceil(length(target.turning_C) * dt / kLittle), kMostPieces);
  Moved moved{velocity, Vec3(0.0)};
  for (double i = 0.0; i < pieces; i += 1.0) {
    const Moved on = approach_a_little(moved.velocity, target, acceleration, dt / pieces);
    moved = {on.velocity, moved.displacement + on.displacement};
    target.velocity = target.turned(dt / pieces);
  }
  return moved;
}

// Below this angle, rad, a target that turns in a part is where it is in the middle of it.
constexpr double kHardlyTurns = 1e-6;

MovedSmooth follow_still(Response::Model model, const Rates& rates, const Vec3& velocity,
                         const Vec3& acceleration, const Vec3& target, double dt) {
  const auto plain = [](const Moved& m) { return MovedSmooth{m.velocity, Vec3(0.0), m.displacement}; };
  switch (model) {
    case Response::Model::Steady:
      return plain(approach_steady(velocity, target, rates.acceleration, dt));
    case Response::Model::Smooth:
      return approach_smooth(velocity, gentle(acceleration, target - velocity, rates.time), target, rates.time,
                             dt);
    case Response::Model::Instant:
    case Response::Model::Exponential:
      break;
  }
  return plain(approach_exponential(velocity, target, rates.time, dt));
}

// Towards a target that turns. One that has followed it for long turns with it, behind it by an angle and
// slower; what the velocity has beside that fades as towards a target that stands still.
MovedSmooth follow_turning(Response::Model model, const Rates& rates, const Vec3& velocity,
                           const Vec3& acceleration, const Target& target, double dt) {
  const double rate = length(target.turning_C);
  const bool smooth = model == Response::Model::Smooth;
  const double lag = rate * (smooth ? rates.time / kSmoothRate : rates.time);
  const Vec3 axis = target.turning_C / rate;
  // The answer of dv/dt = (target - v) / time to what turns; a smooth one is two of them in a row.
  const auto behind = [&](const Vec3& v) { return (v - cross(axis, v) * lag) / (1.0 + lag * lag); };
  const Vec3 with_it = smooth ? behind(behind(target.velocity)) : behind(target.velocity);
  const Vec3 after = glm::angleAxis(rate * dt, axis) * with_it, turns = cross(target.turning_C, with_it);
  // Who begins without an acceleration has one against what turns; within one approach it is never twice that.
  const Vec3 beside = velocity - with_it,
             rises = gentle(acceleration - turns, beside, rates.time, 2.0 * length(turns));
  const MovedSmooth rest = smooth ? approach_smooth(beside, rises, Vec3(0.0), rates.time, dt)
                                  : follow_still(model, rates, beside, Vec3(0.0), Vec3(0.0), dt);
  return {rest.velocity + after, smooth ? rest.acceleration + cross(target.turning_C, after) : Vec3(0.0),
          rest.displacement + cross(after - with_it, axis) / rate};
}

// Towards a target that grows along itself. Exponential and smooth approaches lag behind such a ramp by growth
// times their time, so they follow the still target set back by that, plus the ramp. A steady one closes up
// with what its acceleration has over the growth, as long as it goes along it; steering across a ramp heads for
// its end.
MovedSmooth follow(Response::Model model, const Rates& rates, const Vec3& velocity, const Vec3& acceleration,
                   const Target& target, double dt) {
  const Vec3& growth = target.growth;
  if (target.turning_C != Vec3(0.0)) {
    if (length(target.turning_C) * dt < kHardlyTurns)
      return follow_still(model, rates, velocity, acceleration, target.turned(0.5 * dt), dt);
    if (model != Response::Model::Steady)
      return follow_turning(model, rates, velocity, acceleration, target, dt);
    const Moved moved = approach_turning(velocity, target, rates.acceleration, dt);
    return {moved.velocity, Vec3(0.0), moved.displacement};
  }
  if (growth == Vec3(0.0)) return follow_still(model, rates, velocity, acceleration, target.velocity, dt);
  const Vec3 ramp_way = growth * (0.5 * dt * dt);
  if (model != Response::Model::Steady) {
    const MovedSmooth still =
        follow_still(model, rates, velocity, acceleration - growth, target.velocity - growth * rates.time, dt);
    return {still.velocity + growth * dt, still.acceleration + growth, still.displacement + ramp_way};
  }
  const Vec3 gap = velocity - target.velocity, ahead = unit_or(growth, Vec3(0.0));
  const double over = dot(gap, ahead);
  const double closing = rates.acceleration + (over > 0.0 ? 1.0 : -1.0) * length(growth);
  const bool along = length(across(gap, ahead)) <= 1e-9 * (1.0 + std::abs(over));
  if (!along || closing <= 0.0)
    return follow_still(model, rates, velocity, acceleration, target.velocity + growth * dt, dt);
  const Moved moved = approach_steady(gap, Vec3(0.0), closing, dt);
  return {moved.velocity + target.velocity + growth * dt, Vec3(0.0),
          moved.displacement + target.velocity * dt + ramp_way};
}

// When, on its way to `target`, the velocity stops going against it. At most dt.
double time_to_stand(Response::Model model, const Rates& rates, const Vec3& velocity, const Vec3& acceleration,
                     const Target& target, double dt) {
  const double speed = length(target.velocity);
  const Vec3 ahead = target.velocity / speed;
  const double against = -dot(velocity, ahead);
  const bool still = target.growth == Vec3(0.0) && target.turning_C == Vec3(0.0);
  if (model == Response::Model::Steady && still) {
    const double closing = dot(unit_or(target.velocity - velocity, ahead), ahead) * rates.acceleration;
    return closing > 0.0 ? std::min(against / closing, dt) : dt;
  }
  if (model != Response::Model::Smooth && still) {
    return rates.time > 0.0 ? std::min(rates.time * std::log((speed + against) / speed), dt) : 0.0;
  }
  const auto still_against = [&](double t) {
    return dot(follow(model, rates, velocity, acceleration, target, t).velocity, target.turned(t)) < 0.0;
  };
  if (still_against(dt)) return dt;
  double low = 0.0, high = dt;
  for (int halving = 0; halving < 50; ++halving)
    (still_against(0.5 * (low + high)) ? low : high) = 0.5 * (low + high);
  return high;
}

}  // namespace

Vec3 Target::turned(double seconds) const {
  const double rate = length(turning_C);
  return rate > 0.0 ? glm::angleAxis(rate * seconds, turning_C / rate) * velocity : velocity;
}

MovedSmooth respond(const Response& response, const Vec3& velocity, const Vec3& acceleration,
                    const Target& target, bool wished, double grip, double dt) {
  const auto rates = [&](double a, double time) {
    if (response.model == Response::Model::Instant) return Rates{0.0, kInstantSlip * (1.0 / grip - 1.0)};
    return Rates{a * grip, time / grip};
  };
  const Rates going = rates(response.acceleration, response.time);
  const Rates slowing = rates(response.deceleration, response.stop_time);
  const double speed_square = length_squared(target.velocity), along = dot(velocity, target.velocity);
  // A smooth response may swing a little past its target; that is no overspeed.
  const bool over = response.model != Response::Model::Smooth && along > speed_square * (1.0 + 1e-12);
  if (!wished || speed_square <= 0.0 || over)
    return follow(response.model, slowing, velocity, acceleration, target, dt);
  if (along >= 0.0) return follow(response.model, going, velocity, acceleration, target, dt);

  const Rates turning = rates(response.turn_acceleration, response.turn_time);
  const double stand = time_to_stand(response.model, turning, velocity, acceleration, target, dt);
  const MovedSmooth first = follow(response.model, turning, velocity, acceleration, target, stand);
  if (stand >= dt) return first;
  const Target rest = {target.turned(stand) + target.growth * stand, target.growth, target.turning_C};
  const MovedSmooth then = follow(response.model, going, first.velocity, first.acceleration, rest, dt - stand);
  return {then.velocity, then.acceleration, first.displacement + then.displacement};
}

}  // namespace lagniappe
