// SPDX-License-Identifier: MIT
#include "motion/contact_kind.h"

#include <algorithm>

#include "motion/planes.h"

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

UprightWay upright_way(const StepContext& context, const Body& body, const Vec3& foot_C,
                       const Vec3& direction_C, double most) {
  UprightWay way{foot_C, 0.0, std::nullopt};
  Planes walls;
  Vec3 along = direction_C;
  for (int round = 0; round < kMostPlanes; ++round) {
    const double left = most - way.gone, share = dot(along, direction_C);
    if (left <= 0.0) return way;
    // Along the walls, as far as what is left takes along the direction.
    const Vec3 motion = along * (left / share);
    const auto hit = body.sweep(way.foot_C, motion);
    const double fraction = hit ? hit->hit.fraction : 1.0;
    way.foot_C += motion * fraction;
    way.gone = hit ? way.gone + left * fraction : most;
    if (!hit) return way;
    way.stop = hit;
    const Vec3& normal = hit->hit.normal_C;
    if (contact_kind(context.profile, hit->surface, normal, body.up_C) != ContactKind::Wall) return way;
    if (!walls.add(normal)) return way;
    along = unit_or(walls.clip(direction_C).vector_C, Vec3(0.0));
    // Walls that close in upon each other end it, as a groove does.
    const bool closed = walls.count() > 1 && dot(along, direction_C) <= std::sin(context.profile.ground.steepest_walkable);
    if (closed) return way;
    way.stop.reset();
  }
  return way;
}

}  // namespace lagniappe
