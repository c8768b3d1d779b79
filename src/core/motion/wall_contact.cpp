// SPDX-License-Identifier: MIT
#include "motion/wall_contact.h"

#include <algorithm>
#include <array>
#include <limits>
#include <utility>

#include "motion/contact_kind.h"

namespace lagniappe {
namespace {

// rad of an arc that is gone as a chord: what pulls towards the wall, and what the wall takes, is even over it.
constexpr double kStraightArc = 0.02;

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
    if (dot(unit_or(body.flat(normal), Vec3(0.0)), wall_C) <= kSameWall) continue;
    const bool edge = kind == ContactKind::Wall && c.closest.feature != Feature::Face &&
                      dot(normal, c.face_normal_C) < kSamePlane;
    // A face beside the edge is what holds.
    found.on_edge = edge && (found.on_edge || !found.touched);
    found.touched = true;
  }
  return found;
}

void keep_to_wall(const StepContext& context, const Body& body, const Vec3& ground_normal_C, Slid& slid) {
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
  slid.velocity_C = unit_or(across(slid.velocity_C, wall), Vec3(0.0)) * length(slid.velocity_C);
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
  return speed > 0.0 ? kStraightArc * body.radius / speed : kEndless;
}

}  // namespace lagniappe
