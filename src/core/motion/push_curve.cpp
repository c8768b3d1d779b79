// SPDX-License-Identifier: MIT
// Pushes along the ground and in the air, and skids, in closed form.
#include <algorithm>
#include <limits>

#include "lagniappe/handling.h"
#include "motion/respond.h"

namespace lagniappe {
namespace {

constexpr double kInfinite = std::numeric_limits<double>::infinity();
constexpr double kSettledShare = 0.02;

// Solutions x of (1 + x) e^-x = share, the critically damped approach, for the shares that figures speak of.
constexpr double kSmooth10 = 3.889720169867429;  // share 0.1
constexpr double kSmooth2 = 5.833920422171379;   // share 0.02
constexpr double kSmooth50 = 1.678346990016661;  // share 0.5

}  // namespace

PushCurve::PushCurve(const Response& r, double target, double push)
    : response_(r), target_(target), push_(push) {
  const auto by_model = [&](double steady, double exponential, double smooth) {
    return r.model == Response::Model::Instant       ? 0.0
           : r.model == Response::Model::Steady      ? steady
           : r.model == Response::Model::Exponential ? exponential
                                                     : smooth;
  };
  const auto over = [](double speed, double acceleration) {
    return speed <= 0.0 ? 0.0 : acceleration > 0.0 ? speed / acceleration : kInfinite;
  };
  time_to_90_ = by_model(over(0.9 * target, r.acceleration), r.time * std::log(10.0), 0.5 * kSmooth10 * r.time);
  stop_time_ = by_model(over((1.0 - kSettledShare) * target, r.deceleration),
                        r.stop_time * std::log(1.0 / kSettledShare), 0.5 * kSmooth2 * r.stop_time);
  stopping_distance_ =
      by_model(0.5 * target * over(target, r.deceleration), target * r.stop_time, target * r.stop_time);
  turn_time_ =
      by_model(over(target, r.turn_acceleration), r.turn_time * std::log(2.0), 0.5 * kSmooth50 * r.turn_time);
}

struct PushCurve::Pushed {
  double speed, way;
};

PushCurve::Pushed PushCurve::pushed_for(double time) const {
  MovedSmooth moved = {Vec3(0.0), Vec3(0.0), Vec3(0.0)};
  const auto go_on = [&](double speed, double growth, bool pushed, double seconds) {
    if (seconds <= 0.0) return;
    const Target target = {Vec3(speed, 0.0, 0.0), Vec3(growth, 0.0, 0.0)};
    const MovedSmooth on = respond(response_, moved.velocity, moved.acceleration, target, pushed, 1.0, seconds);
    moved = {on.velocity, on.acceleration, moved.displacement + on.displacement};
  };
  const double held = std::min(time, push_);
  const double growing = growth_ > 0.0 ? std::min((highest_ - target_) / growth_, held) : 0.0;
  go_on(target_, growth_, true, growing);
  go_on(growth_ > 0.0 ? highest_ : target_, 0.0, true, held - growing);
  go_on(0.0, 0.0, false, time - push_);
  return {moved.velocity.x, moved.displacement.x};
}

double PushCurve::speed_at(double time) const { return pushed_for(time).speed; }
double PushCurve::way_at(double time) const { return pushed_for(time).way; }

PushCurve walking_push(const Values& profile, double push) {
  const Profile::Ground::Gather& gather = profile.ground.gather;
  if (gather.growth <= 0.0) return PushCurve(profile.ground.response, profile.ground.speed, push);
  PushCurve curve(profile.ground.response, gather.lowest, push);
  curve.growth_ = gather.growth;
  curve.highest_ = gather.highest;
  return curve;
}

double stride_length(const Values::Gait& gait, double speed) {
  const double range = gait.running_speed - gait.walking_speed;
  const double share = range > 0.0 ? std::clamp((speed - gait.walking_speed) / range, 0.0, 1.0)
                                   : (speed > gait.walking_speed ? 1.0 : 0.0);
  return gait.walking_stride + (gait.running_stride - gait.walking_stride) * share;
}

double walking_speed(const Values& profile) {
  return profile.ground.gather.growth > 0.0 ? profile.ground.gather.highest : profile.ground.speed;
}

Response with_time_to_90(Response response, double speed, double time) {
  if (response.model == Response::Model::Steady) response.acceleration = 0.9 * speed / time;
  if (response.model == Response::Model::Exponential) response.time = time / std::log(10.0);
  if (response.model == Response::Model::Smooth) response.time = 2.0 * time / kSmooth10;
  return response;
}

Response with_stopping_distance(Response response, double speed, double distance) {
  if (response.model == Response::Model::Steady) {
    response.deceleration = 0.5 * speed * speed / distance;
  } else if (response.model != Response::Model::Instant) {
    response.stop_time = distance / speed;
  }
  return response;
}

double gathered_speed(const Profile::Ground::Gather& gather, double time) {
  return std::min(gather.lowest + gather.growth * time, gather.highest);
}

double skid_acceleration(const Values& profile, double angle) {
  return profile.gravity * (std::sin(angle) - profile.skid.friction * std::cos(angle));
}

double run_out_distance(const Values& profile, double speed) {
  const double lowest = profile.skid.lowest_speed > 0.0 ? profile.skid.lowest_speed : walking_speed(profile);
  return profile.skid.run_out_time * std::max(speed - lowest, 0.0);
}

}  // namespace lagniappe
