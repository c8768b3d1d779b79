// SPDX-License-Identifier: MIT
#include "motion/contact_kind.h"

#include <algorithm>

namespace lagniappe {
namespace {

// Whether `upright` is at least the cosine of an angle. Most faces are level or upright, and known to be from
// two terms of its series: 1 - x^2 / 2 <= cos x <= 1 - x^2 / 2 + x^4 / 24.
bool at_least_cosine(double upright, double angle) {
  constexpr double kRounding = 1e-12;
  const double square = angle * angle, low = 1.0 - 0.5 * square;
  if (upright < low - kRounding) return false;
  if (upright > low + square * square / 24.0 + kRounding) return true;
  return upright >= std::cos(angle);
}

double steepest_walked(const Values& profile, const Surface& surface) {
  if (surface.friction == 1.0) return profile.ground.steepest_walkable;
  return std::atan(std::tan(profile.ground.steepest_walkable) * surface.friction);
}

// The steepest face that is no wall.
double steepest_of_no_wall(const Values& profile) {
  return std::max(profile.walls.steepest_skid, profile.ground.steepest_walkable);
}

}  // namespace

bool walkable(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C) {
  const double upright = dot(normal_C, up_C) + kTouch;
  switch (surface.walk) {
    case Surface::Walk::Always:
      return at_least_cosine(upright, steepest_of_no_wall(profile));
    case Surface::Walk::Never:
      return false;
    case Surface::Walk::ByAngle:
      break;
  }
  return at_least_cosine(upright, steepest_walked(profile, surface));
}

ContactKind contact_kind(const Values& profile, const Surface& surface, const Vec3& normal_C,
                         const Vec3& up_C) {
  const double upright = dot(normal_C, up_C);
  // Nothing that faces up at all is a ceiling.
  if (upright <= kTouch && upright <= std::cos(profile.walls.ceiling_from) + kTouch)
    return ContactKind::Ceiling;
  if (!under_foot(profile, normal_C, up_C)) return ContactKind::Wall;
  const bool walks = surface.ground && walkable(profile, surface, normal_C, up_C);
  return walks ? ContactKind::Ground : ContactKind::Steep;
}

bool leads_on(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C) {
  return contact_kind(profile, surface, normal_C, up_C) == ContactKind::Ground || dot(normal_C, up_C) > kLevel;
}

bool under_foot(const Values& profile, const Vec3& contact_normal_C, const Vec3& up_C) {
  return at_least_cosine(dot(contact_normal_C, up_C) + kTouch, steepest_of_no_wall(profile));
}

Vec3 wall_on_ground(const Vec3& normal_C, const Vec3& ground_C, const Vec3& up_C, const Vec3& against_C) {
  const Vec3 line = normal_C - ground_C * (dot(normal_C, up_C) / dot(ground_C, up_C));
  const Vec3 flat = across(line, up_C);
  return length(flat) > 1e-9 ? unit_or(flat, against_C) : against_C;
}

}  // namespace lagniappe
