// SPDX-License-Identifier: MIT
// The cores of fields: what they pull towards, and how far their surface is around it.
#pragma once

#include <algorithm>
#include <cmath>

#include "lagniappe/field.h"

namespace lagniappe::core_of_field {

// m from the centre to the farthest point of the surface.
inline double extent(const field::Ball& s) { return s.radius; }
inline double extent(const field::Pill& s) { return 0.5 * s.length + s.radius; }
inline double extent(const field::Ring& s) { return s.radius + s.thickness; }
inline double extent(const field::Slab& s) { return length(s.size); }  // Rounded at its edges.
inline double extent(const field::Path& s) { return s.line.extent() + s.radius; }
inline double extent(const field::Uniform& s) { return 0.5 * length(s.size); }

// From a point, in the field's frame (_F).
struct Seen {
  Vec3 towards_F;  // Unit where there is one nearest point; shorter where several pull against each other.
  double surface;  // m from the surface; negative within.
  double radius;   // m from the core to the surface.
};

inline Seen seen_along(const Vec3& way_F, double radius) {
  const double distance = length(way_F);
  return {distance > 0.0 ? way_F / distance : Vec3(0.0), distance - radius, radius};
}

inline Seen seen(const field::Ball& s, const Vec3& p_F) { return seen_along(-p_F, s.radius); }

inline Seen seen(const field::Pill& s, const Vec3& p_F) {
  const double half = 0.5 * s.length;
  return seen_along(Vec3(0.0, std::clamp(p_F.y, -half, half), 0.0) - p_F, s.radius);
}

// On the axis the whole circle is equally near: what is left of its pull is along the axis.
inline Seen seen(const field::Ring& s, const Vec3& p_F) {
  const double out = std::hypot(p_F.x, p_F.z);
  if (out > 0.0) return seen_along(Vec3(p_F.x, 0.0, p_F.z) * (s.radius / out) - p_F, s.thickness);
  const double distance = std::hypot(s.radius, p_F.y);
  return {Vec3(0.0, -p_F.y / distance, 0.0), distance - s.thickness, s.thickness};
}

inline Seen seen(const field::Slab& s, const Vec3& p_F) {
  const Vec3 half = 0.5 * s.size;
  const Vec3 on(std::clamp(p_F.x, -half.x, half.x), 0.0, std::clamp(p_F.z, -half.z, half.z));
  return seen_along(on - p_F, half.y);
}

inline Seen seen(const field::Path& s, const Vec3& p_F) {
  return seen_along(s.line.at(s.line.nearest(p_F)) - p_F, s.radius);
}

inline Seen seen(const field::Uniform& s, const Vec3& p_F) {
  const Vec3 half = 0.5 * s.size, beyond = glm::abs(p_F) - half;
  const double inside = std::min(std::max({beyond.x, beyond.y, beyond.z}), 0.0);
  return {s.direction, inside + length(glm::max(beyond, Vec3(0.0))), std::min({half.x, half.y, half.z})};
}

}  // namespace lagniappe::core_of_field
