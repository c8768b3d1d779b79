// SPDX-License-Identifier: MIT
#include "motion/ground.h"

#include <algorithm>
#include <array>

namespace lagniappe {
namespace {

// How far the centre stands beyond the contact, across up.
double overhang(const Body& body, const Vec3& foot_C, const Vec3& contact_C) {
  return length(body.flat(contact_C - foot_C));
}

// Whether walkable ground lies within a step's height under the centre of the capsule.
bool step_below(const StepContext& context, const Body& body, const Vec3& foot_C) {
  const double reach = std::max(context.profile.ground.highest_step, context.profile.ground.snap_distance);
  const auto hit =
      body.world.cast_ray(foot_C + body.up_C * body.radius, -body.up_C * (body.radius + reach + kGroundTouch));
  return hit && walkable(context.profile, hit->hit.normal_C, body.up_C);
}

Verdict judge(const StepContext& context, const Body& body, const Vec3& foot_C, const WorldContact& bearing) {
  if (!walkable(context.profile, bearing.face_normal_C, body.up_C)) return Verdict::Steep;
  if (bearing.closest.feature == Feature::Face) return Verdict::Walkable;
  const double beyond = overhang(body, foot_C, bearing.closest.on_triangle_C);
  if (beyond <= context.profile.ground.longest_overhang) return Verdict::Walkable;
  return step_below(context, body, foot_C) ? Verdict::Walkable : Verdict::Perched;
}

}  // namespace

bool walkable(const Profile& profile, const Vec3& normal_C, const Vec3& up_C) {
  return dot(normal_C, up_C) >= std::cos(profile.ground.steepest_walkable) - kTouch;
}

std::optional<WorldContact> bearing_face(const Body& body, const Vec3& foot_C) {
  std::array<WorldContact, kMostContacts> contacts;
  const std::size_t count = body.world.contacts(body.axis(foot_C), body.radius + kGroundTouch, contacts);
  const WorldContact* best = nullptr;
  for (std::size_t i = 0; i < count; ++i) {
    const WorldContact& c = contacts[i];
    if (dot(c.closest.normal_C, body.up_C) < kUpright) continue;
    if (best == nullptr || dot(c.face_normal_C, body.up_C) > dot(best->face_normal_C, body.up_C) + kTouch)
      best = &c;
  }
  return best != nullptr ? std::optional(*best) : std::nullopt;
}

GroundFound probe_ground(const StepContext& context, const Body& body, const Vec3& foot_C, double reach) {
  // From a touch above: a capsule that rests keeps its contact whatever the last rounding was.
  const Vec3 from = foot_C + body.up_C * kTouch;
  const auto hit = body.sweep(from, -body.up_C * (reach + kTouch));
  const double gap = hit ? std::max(hit->hit.fraction * (reach + kTouch) - kTouch, 0.0) : reach;
  context.note(entry::Probe{reach, gap, hit.has_value(), foot_C, hit ? hit->piece : kNoPiece});
  if (!hit) return {};

  const Vec3 landed = foot_C - body.up_C * gap;
  WorldContact bearing{{0.0, hit->hit.point_C, hit->hit.point_C, hit->hit.normal_C, hit->hit.feature},
                       hit->face_normal_C,
                       hit->piece,
                       hit->triangle};
  if (const auto better = bearing_face(body, landed)) bearing = *better;
  const Verdict verdict = judge(context, body, landed, bearing);
  const double angle = std::acos(std::clamp(dot(bearing.face_normal_C, body.up_C), -1.0, 1.0));
  context.note(
      entry::Judged{verdict, angle, overhang(body, landed, bearing.closest.on_triangle_C), bearing.piece});
  return {{verdict, bearing.piece, bearing.face_normal_C, bearing.closest.on_triangle_C}, gap};
}

}  // namespace lagniappe
