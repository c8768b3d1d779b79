// SPDX-License-Identifier: MIT
// Vectors and rotations of the core: glm in double precision.
//
// Frames. The suffix of a name says in which frame its numbers are:
//   _C  course frame: right-handed, metres, the frame of course files (their Y is up, but no code here relies
//   on it). _B  body frame: +Y is the body's up, -Z is yaw 0, +X is its right.
// A rotation `frame_CB` turns body-frame vectors into course-frame vectors.
// Angles are radians. Positive yaw turns left seen from above; positive pitch looks up.
#pragma once

#include <cmath>
#include <glm/geometric.hpp>
#include <glm/gtc/quaternion.hpp>
#include <glm/vec2.hpp>
#include <glm/vec3.hpp>
#include <numbers>

namespace lagniappe {

using Vec2 = glm::dvec2;
using Vec3 = glm::dvec3;
using Quat = glm::dquat;

using glm::cross;
using glm::dot;
using glm::length;

inline constexpr double kPi = std::numbers::pi;

constexpr double radians(double degrees) { return degrees * (kPi / 180.0); }
constexpr double degrees(double radians) { return radians * (180.0 / kPi); }

inline double length_squared(const Vec3& v) { return dot(v, v); }
inline bool is_finite(const Vec3& v) { return std::isfinite(v.x) && std::isfinite(v.y) && std::isfinite(v.z); }

// Returns v / |v|, or `fallback` where |v| is zero or too small to have a direction.
inline Vec3 unit_or(const Vec3& v, const Vec3& fallback) {
  const double square = length_squared(v);
  return square > 1e-300 ? v / std::sqrt(square) : fallback;
}

// Returns the part of `v` across the unit vector `axis`.
inline Vec3 across(const Vec3& v, const Vec3& axis) { return v - axis * dot(v, axis); }

// Returns `angle` wrapped into (-pi, pi].
inline double wrap_angle(double angle) {
  const double wrapped = std::remainder(angle, 2.0 * kPi);
  return wrapped <= -kPi ? kPi : wrapped;
}

}  // namespace lagniappe
