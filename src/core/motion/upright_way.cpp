// SPDX-License-Identifier: MIT
#include "motion/upright_way.h"

#include "motion/contact_kind.h"
#include "motion/ground.h"
#include "motion/planes.h"

namespace lagniappe {

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
    // A rim that is touched high up on the round of the foot is met like a wall, and bears.
    const bool down = dot(direction_C, body.up_C) < 0.0;
    if (down && bearing_contact(context, body, Touching(body, way.foot_C)) != nullptr) return way;
    if (!walls.add(normal)) return way;
    along = unit_or(walls.clip(direction_C).vector_C, Vec3(0.0));
    // Walls that close in upon each other end it, as a groove does.
    const bool closed =
        walls.count() > 1 && dot(along, direction_C) <= std::sin(context.profile.ground.steepest_walkable);
    if (closed) return way;
    way.stop.reset();
  }
  return way;
}

}  // namespace lagniappe
