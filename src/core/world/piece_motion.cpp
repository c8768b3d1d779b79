// SPDX-License-Identifier: MIT
#include "lagniappe/piece_motion.h"

#include <cmath>
#include <glm/gtc/quaternion.hpp>

#include "math/catmull_rom.h"

namespace lagniappe {
namespace {

using Ease = PieceMotion::Ease;

// A value and its change with what it was computed from.
template <typename T>
struct Flowing {
  T value;
  T rate;
};

Flowing<double> eased(Ease ease, double u) {
  switch (ease) {
    case Ease::Even:
      return {u, 1.0};
    case Ease::Smooth:
      return {u * u * (3.0 - 2.0 * u), 6.0 * u * (1.0 - u)};
    case Ease::Speeding:
      return {u * u, 2.0 * u};
    case Ease::Slowing:
      return {u * (2.0 - u), 2.0 * (1.0 - u)};
  }
  return {u, 1.0};
}

// Where on the way, in [0, 1], the motion is; rate in 1/s.
Flowing<double> way_at(const PieceMotion& m, double time) {
  const double turns = time / m.period + m.phase;
  const double share = turns - std::floor(turns);
  if (m.repeat == PieceMotion::Repeat::Loop) return {share, 1.0 / m.period};
  const double rate = 2.0 / m.period;
  return share < 0.5 ? Flowing<double>{2.0 * share, rate} : Flowing<double>{2.0 - 2.0 * share, -rate};
}

struct Offset {
  Vec3 move, turn;
};

// The stretch between two keys that holds a place on the way.
struct Stretch {
  std::size_t begin, end;  // Keys; in a loop the last stretch ends at the first key.
  double u, length;        // Share of the stretch, and its share of the way.
};

Stretch stretch_at(const PieceMotion& m, double way) {
  std::size_t begin = 0;
  while (begin + 1 < m.keys.size() && m.keys[begin + 1].at <= way) ++begin;
  const bool last = begin + 1 == m.keys.size();
  const bool closes = m.repeat == PieceMotion::Repeat::Loop;
  const std::size_t end = last ? (closes ? 0 : begin) : begin + 1;
  const double length = (last ? 1.0 : m.keys[begin + 1].at) - m.keys[begin].at;
  return {begin, end, length > 0.0 ? std::fmin((way - m.keys[begin].at) / length, 1.0) : 0.0, length};
}

Flowing<Vec3> on_curve(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& d, double u) {
  const auto [p, q, r] = catmull_rom(a, b, c, d);
  return {b + u * (p + u * (q + u * r)), p + u * (2.0 * q + u * (3.0 * r))};
}

// A loop whose last key lies at 1 is where its first key is: that one is no stop of its own.
std::size_t stops(const PieceMotion& m) {
  const bool repeats = m.repeat == PieceMotion::Repeat::Loop && m.keys.size() > 1 && m.keys.back().at >= 1.0;
  return m.keys.size() - (repeats ? 1 : 0);
}

Vec3 stop_near(const PieceMotion& m, std::ptrdiff_t index) {
  const auto count = static_cast<std::ptrdiff_t>(stops(m));
  if (m.repeat == PieceMotion::Repeat::Loop) index = ((index % count) + count) % count;
  index = std::max<std::ptrdiff_t>(0, std::min(index, count - 1));
  return m.keys[static_cast<std::size_t>(index)].move_C;
}

// Offset from rest and its rate, per share of the way.
Flowing<Offset> offset_at(const PieceMotion& m, double way) {
  const Stretch s = stretch_at(m, way);
  const PieceMotion::Key &a = m.keys[s.begin], &b = m.keys[s.end];
  const Flowing<double> e = eased(a.ease, s.u);
  const double pace = s.length > 0.0 ? e.rate / s.length : 0.0;
  Flowing<Vec3> move{a.move_C + (b.move_C - a.move_C) * e.value, b.move_C - a.move_C};
  if (m.path == PieceMotion::Path::Curved && s.begin != s.end) {
    const auto i = static_cast<std::ptrdiff_t>(s.begin);
    move = on_curve(stop_near(m, i - 1), stop_near(m, i), stop_near(m, i + 1), stop_near(m, i + 2), e.value);
  }
  const Vec3 turned = b.turn - a.turn;
  return {{move.value, a.turn + turned * e.value}, {move.rate * pace, turned * pace}};
}

}  // namespace

RigidPose PieceMotion::pose_at(double time) const {
  const Offset offset = offset_at(*this, way_at(*this, time).value).value;
  const Quat rotation = rotation_of(turn + offset.turn);
  return {at_C + offset.move + rotation_of(turn) * pivot_P - rotation * pivot_P, rotation};
}

RigidVelocity PieceMotion::velocity_at(double time) const {
  const Flowing<double> way = way_at(*this, time);
  const auto [offset, rate] = offset_at(*this, way.value);
  const Vec3 angles = turn + offset.turn, angle_rates = rate.turn * way.rate;
  const Quat yawed = glm::angleAxis(angles.x, Vec3(0, 1, 0));
  const Quat pitched = yawed * glm::angleAxis(angles.y, Vec3(1, 0, 0));
  const Vec3 angular = Vec3(0, 1, 0) * angle_rates.x + yawed * Vec3(1, 0, 0) * angle_rates.y +
                       pitched * Vec3(0, 0, 1) * angle_rates.z;
  return {rate.move * way.rate, angular, at_C + offset.move + rotation_of(turn) * pivot_P};
}

}  // namespace lagniappe
