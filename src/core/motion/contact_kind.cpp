// SPDX-License-Identifier: MIT
#include "motion/contact_kind.h"

#include <algorithm>

namespace lagniappe {
namespace {

double least_upright(const Values& profile, const Surface& surface) {
  if (surface.friction == 1.0) return std::cos(profile.ground.steepest_walkable);
  return std::cos(std::atan(std::tan(profile.ground.steepest_walkable) * surface.friction));
}

// The cosine of the steepest face that is no wall.
double least_of_no_wall(const Values& profile) {
  return std::cos(std::max(profile.walls.steepest_skid, profile.ground.steepest_walkable));
}

}  // namespace

bool walkable(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C) {
  const double upright = dot(normal_C, up_C) + kTouch;
  switch (surface.walk) {
    case Surface::Walk::Always:
      return upright >= least_of_no_wall(profile);
    case Surface::Walk::Never:
      return false;
    case Surface::Walk::ByAngle:
      break;
  }
  return upright >= least_upright(profile, surface);
}

ContactKind contact_kind(const Values& profile, const Surface& surface, const Vec3& normal_C,
                         const Vec3& up_C) {
  const double upright = dot(normal_C, up_C);
  if (upright <= std::cos(profile.walls.ceiling_from) + kTouch) return ContactKind::Ceiling;
  if (!under_foot(profile, normal_C, up_C)) return ContactKind::Wall;
  const bool walks = surface.ground && walkable(profile, surface, normal_C, up_C);
  return walks ? ContactKind::Ground : ContactKind::Steep;
}

bool leads_on(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C) {
  return contact_kind(profile, surface, normal_C, up_C) == ContactKind::Ground || dot(normal_C, up_C) > kLevel;
}

bool under_foot(const Values& profile, const Vec3& contact_normal_C, const Vec3& up_C) {
  return dot(contact_normal_C, up_C) + kTouch >= least_of_no_wall(profile);
}

Vec3 wall_on_ground(const Vec3& normal_C, const Vec3& ground_C, const Vec3& up_C, const Vec3& against_C) {
  const Vec3 line = normal_C - ground_C * (dot(normal_C, up_C) / dot(ground_C, up_C));
  const Vec3 flat = across(line, up_C);
  return length(flat) > 1e-9 ? unit_or(flat, against_C) : against_C;
}

}  // namespace lagniappe
