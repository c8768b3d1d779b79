// SPDX-License-Identifier: MIT
#include "motion/wall_contact.h"

#include <algorithm>
#include <array>
#include <limits>
#include <utility>

#include "motion/contact_kind.h"
#include "motion/piece_velocity.h"

namespace lagniappe {
namespace {

// rad of an arc that is gone as a chord: what pulls towards the wall, and what the wall takes, is even over it.
constexpr double kStraightArc = 0.02;
// s that it takes at least, so that the quickest does not cost without end.
constexpr double kShortestArc = 1e-3;

// m that a chord may be off its way beside a wall.
constexpr double kStraight = 5e-4;

bool is_wall(const StepContext& context, const Body& body, const Surface& surface, const Vec3& normal_C) {
  return contact_kind(context.profile, surface, normal_C, body.up_C) == ContactKind::Wall;
}

}  // namespace

WallContact wall_contact(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& wall_C) {
  WallContact found;
  for (const WorldContact& c : Touching(body, foot_C)) {
    const Vec3& normal = c.closest.normal_C;
    const ContactKind kind = contact_kind(context.profile, c.surface, normal, body.up_C);
    if (kind != ContactKind::Wall && kind != ContactKind::Steep) continue;
    const Vec3 across_up = unit_or(body.flat(normal), Vec3(0.0));
    if (dot(across_up, wall_C) <= kSameWall) continue;
    // Seen from above it turns away from its face: along an edge that lies, as a kerb's, it does not.
    const bool edge = kind == ContactKind::Wall && c.closest.feature != Feature::Face &&
                      is_wall(context, body, c.surface, c.face_normal_C) &&
                      dot(across_up, unit_or(body.flat(c.face_normal_C), across_up)) < kSamePlane;
    // A face beside the edge is what holds.
    found.on_edge = edge && (found.on_edge || !found.touched);
    found.touched = true;
  }
  return found;
}

void keep_to_wall(const StepContext& context, const Body& body, const CharacterState& state, Slid& slid) {
  const Vec3& ground_normal_C = state.ground.normal_C;
  if (slid.wall_normal_C == Vec3(0.0)) return;
  const WallContact contact = wall_contact(context, body, slid.foot_C, slid.wall_normal_C);
  if (contact.touched && !contact.on_edge) return;
  const Vec3 known = slid.wall_normal_C;
  if (!contact.touched) slid.wall_normal_C = Vec3(0.0);
  if (slid.pressed_C == Vec3(0.0)) return;
  const Vec3 back = laid_on(slid.pressed_C, ground_normal_C, body.up_C, context.profile.ground.speed_on_slopes);
  const auto hit = body.sweep(slid.foot_C, back);
  if (!hit || !is_wall(context, body, hit->surface, hit->hit.normal_C)) return;
  const Vec3 wall = wall_on_ground(hit->hit.normal_C, ground_normal_C, body.up_C, -unit_or(back, body.up_C));
  if (dot(wall, known) <= kSameWall) return;
  slid.foot_C += back * hit->hit.fraction;
  slid.wall_normal_C = wall;
  // Turned along it, but for what the wall itself goes away or comes by.
  const Vec3 of_piece = piece_velocity(context, hit->piece, hit->hit.point_C) - state.ground_velocity_C;
  const Vec3 along_normal = wall * dot(of_piece, wall), own = slid.velocity_C - along_normal;
  slid.velocity_C = along_normal + unit_or(across(own, wall), Vec3(0.0)) * length(own);
}

bool bends_by_wall(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& change_C) {
  // A chord of an even bend is off it by this at most.
  const double off = length(change_C) * context.dt / 8.0;
  if (off < kStraight) return false;
  std::array<WorldContact, 16> found;
  const std::size_t count = body.world.contacts(body.axis(foot_C), body.radius + 2.0 * off, found, body.now);
  return std::any_of(
      found.begin(), found.begin() + static_cast<std::ptrdiff_t>(count),
      [&](const WorldContact& c) { return is_wall(context, body, c.surface, c.closest.normal_C); });
}

double until_wall_turns(const StepContext& context, bool rolled, const CharacterState& state) {
  constexpr double kEndless = std::numeric_limits<double>::infinity();
  const bool known = state.wall_normal_C != Vec3(0.0);
  if (!state.grounded() || (!known && !rolled)) return kEndless;
  const Body body(context, state);
  if (known) {
    const WallContact contact = wall_contact(context, body, state.foot_C, state.wall_normal_C);
    if (!contact.on_edge && (contact.touched || !rolled)) return kEndless;
  }
  const double speed = length(body.flat(state.velocity_C));
  return speed > 0.0 ? std::max(kStraightArc * body.radius / speed, kShortestArc) : kEndless;
}

}  // namespace lagniappe
