// SPDX-License-Identifier: MIT
#include "lagniappe/zone.h"

#include <cmath>
#include <numbers>

#include "geometry/convex_distance.h"
#include "lagniappe/turns.h"

namespace lagniappe {
namespace {

// A shape as what is rounded by `round`: the furthest point of its core that way.
struct Core {
  double round = 0.0;
  Vec3 low = Vec3(0.0), high = Vec3(0.0);  // A box, where it is one,
  double radius = 0.0;                     // or a cylinder from low.y to high.y.

  Vec3 furthest(const Vec3& way) const {
    const double y = way.y >= 0.0 ? high.y : low.y;
    if (radius <= 0.0) return {way.x >= 0.0 ? high.x : low.x, y, way.z >= 0.0 ? high.z : low.z};
    const double flat = std::hypot(way.x, way.z), share = flat > 0.0 ? radius / flat : 0.0;
    return {way.x * share, y, way.z * share};
  }
};

Core core_of(const zone::Box& s) {
  return {0.0, {-0.5 * s.size.x, 0.0, -0.5 * s.size.z}, {0.5 * s.size.x, s.size.y, 0.5 * s.size.z}};
}
Core core_of(const zone::Cylinder& s) { return {0.0, Vec3(0.0), {0.0, s.height, 0.0}, s.radius}; }
Core core_of(const zone::Ball& s) { return {s.radius, {0.0, s.radius, 0.0}, {0.0, s.radius, 0.0}}; }
Core core_of(const zone::Pill& s) { return {s.radius, {0.0, s.radius, 0.0}, {0.0, s.radius + s.length, 0.0}}; }

double depth_of(const zone::Box& s, const Vec3& p) {
  const Vec3 under = 0.5 * s.size - glm::abs(p - Vec3(0.0, 0.5 * s.size.y, 0.0));
  return std::min({under.x, under.y, under.z});
}
double depth_of(const zone::Cylinder& s, const Vec3& p) {
  return std::min({s.radius - std::hypot(p.x, p.z), p.y, s.height - p.y});
}
double depth_of(const zone::Ball& s, const Vec3& p) { return s.radius - length(p - Vec3(0.0, s.radius, 0.0)); }
double depth_of(const zone::Pill& s, const Vec3& p) {
  const Vec3 core(0.0, std::clamp(p.y, s.radius, s.radius + s.length), 0.0);
  return s.radius - length(p - core);
}

// From 0 to 1 without a kink at its ends.
double smooth(double x) {
  const double t = std::clamp(x, 0.0, 1.0);
  return t * t * (3.0 - 2.0 * t);
}

}  // namespace

RigidPose frame_of(const Zone& zone) { return {zone.at_C, rotation_of(zone.turn)}; }

bool touches(const ZoneShape& shape, const CapsuleWay& way) {
  const Core core = std::visit([](const auto& s) { return core_of(s); }, shape);
  const std::array<Vec3, 4> corners = {way.from.a_C, way.from.b_C, way.to.a_C, way.to.b_C};
  // Both about one of the corners, so that what is far from the origin costs no digits.
  const auto support = [&](const Vec3& direction) {
    Vec3 furthest = corners[0];
    for (const Vec3& corner : corners) {
      if (dot(corner - furthest, direction) > 0.0) furthest = corner;
    }
    return furthest - core.furthest(-direction);
  };
  return convex_within(support, way.radius + core.round);
}

double depth_in(const ZoneShape& shape, const Vec3& point) {
  return std::visit([&](const auto& s) { return depth_of(s, point); }, shape);
}

Box bounds(const ZoneShape& shape) {
  const Core core = std::visit([](const auto& s) { return core_of(s); }, shape);
  const Vec3 round(core.radius, 0.0, core.radius);
  return Box{core.low - round, core.high + round}.grown(core.round);
}

Vec3 wind_at(const Zone& zone, const RigidPose& frame, const Vec3& point_C, double time) {
  const auto* wind = std::get_if<effect::Wind>(&zone.effect);
  if (wind == nullptr) return Vec3(0.0);
  const double depth = depth_in(zone.shape, frame.back(point_C));
  if (depth <= 0.0) return Vec3(0.0);
  const double share = wind->fade > 0.0 ? smooth(depth / wind->fade) : 1.0;
  const auto& [period, swing] = wind->gust;
  const double gust =
      period > 0.0 ? 1.0 + swing * std::sin(2.0 * std::numbers::pi * std::fmod(time, period) / period) : 1.0;
  const Vec3 velocity(wind->velocity.x, wind->velocity.y, -wind->velocity.z);
  return (wind->frame == effect::Frame::Zone ? frame.rotation_CP * velocity : velocity) * (share * gust);
}

std::optional<Throw> throw_to(const Vec3& from_C, const Vec3& to_C, const Vec3& up_C, double apex,
                              const ThrowPull& pull) {
  if (!(pull.gravity > 0.0) || !(pull.fall_gravity > 0.0)) return std::nullopt;
  const double up = dot(to_C - from_C, up_C), rise = std::max(up, 0.0) + apex, drop = rise - up;
  Throw thrown{};
  const double speed = std::sqrt(2.0 * pull.gravity * rise);
  thrown.apex = rise;
  thrown.to_apex = speed / pull.gravity;
  thrown.landing = std::sqrt(2.0 * pull.fall_gravity * drop);
  double fall = thrown.landing / pull.fall_gravity;
  if (thrown.landing > pull.terminal_speed) {
    thrown.terminal = true;
    thrown.landing = pull.terminal_speed;
    const double until = pull.terminal_speed / pull.fall_gravity;
    fall = until + (drop - 0.5 * pull.terminal_speed * until) / pull.terminal_speed;
  }
  thrown.seconds = thrown.to_apex + fall;
  thrown.velocity_C = up_C * speed + across(to_C - from_C, up_C) * (1.0 / thrown.seconds);
  return thrown;
}

}  // namespace lagniappe
