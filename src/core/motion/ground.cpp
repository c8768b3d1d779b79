// SPDX-License-Identifier: MIT
#include "motion/ground.h"

#include <algorithm>

#include "motion/planes.h"

namespace lagniappe {
namespace {

// How far the axis stands beyond the contact, across up.
double overhang(const Body& body, const Vec3& foot_C, const Vec3& contact_C) {
  const Vec3 from_low = body.flat(contact_C - foot_C - body.low_C), along = body.flat(body.high_C - body.low_C);
  const double square = length_squared(along);
  if (square < kTouch * kTouch) return length(from_low);
  return length(from_low - along * std::clamp(dot(from_low, along) / square, 0.0, 1.0));
}

double least_upright(const Values& profile, const Surface& surface) {
  if (surface.friction == 1.0) return std::cos(profile.ground.steepest_walkable);
  return std::cos(std::atan(std::tan(profile.ground.steepest_walkable) * surface.friction));
}

// Whether walkable ground lies within a step's height under the centre of the capsule.
bool step_below(const StepContext& context, const Body& body, const Vec3& foot_C) {
  const double reach = std::max(context.profile.ground.highest_step, context.profile.ground.snap_distance);
  const auto hit =
      body.cast_ray(foot_C + body.up_C * body.radius, -body.up_C * (body.radius + reach + kGroundTouch));
  return hit && hit->surface.ground && walkable(context.profile, hit->surface, hit->hit.normal_C, body.up_C);
}

// Where a fall would go on, if at all, the steepness of that way decides instead of the faces': two steep faces
// that meet in a level furrow are as good as a floor. Returns the normal of what bears, or nothing if it would
// slide off.
std::optional<Vec3> furrow_normal(const StepContext& context, const Body& body, const Touching& touching) {
  Planes planes;
  int bearing = 0;
  for (const WorldContact& c : touching) {
    const double upright = dot(c.closest.normal_C, body.up_C);
    if (upright < -kUpright) continue;
    bearing += upright > kUpright && c.surface.walk != Surface::Walk::Never && c.surface.ground;
    if (!planes.add(c.closest.normal_C)) break;
  }
  if (bearing == 0 || planes.count() < 2) return std::nullopt;
  const Vec3 way = planes.clip(-body.up_C).vector_C;
  const Vec3 along = unit_or(way, Vec3(0.0));
  if (dot(along, -body.up_C) > std::sin(context.profile.ground.steepest_walkable)) return std::nullopt;
  return unit_or(across(body.up_C, along), body.up_C);
}

struct Judgement {
  Verdict verdict;
  Vec3 normal_C;
};

Judgement judge(const StepContext& context, const Body& body, const Vec3& foot_C, const Touching& touching,
                const WorldContact& bearing) {
  if (!walkable(context.profile, bearing.surface, bearing.face_normal_C, body.up_C)) {
    if (const auto normal = furrow_normal(context, body, touching)) return {Verdict::Walkable, *normal};
    return {Verdict::Steep, bearing.face_normal_C};
  }
  const auto as = [&](Verdict verdict) { return Judgement{verdict, bearing.face_normal_C}; };
  if (bearing.closest.feature == Feature::Face) return as(Verdict::Walkable);
  const double beyond = overhang(body, foot_C, bearing.closest.on_triangle_C);
  if (beyond <= context.profile.ground.longest_overhang || step_below(context, body, foot_C))
    return as(Verdict::Walkable);
  // Across a slot, on two edges, nobody slips off.
  if (const auto normal = furrow_normal(context, body, touching)) return {Verdict::Walkable, *normal};
  return as(Verdict::Perched);
}

}  // namespace

bool walkable(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C) {
  const double upright = dot(normal_C, up_C);
  switch (surface.walk) {
    case Surface::Walk::Always:
      return upright > kUpright;
    case Surface::Walk::Never:
      return false;
    case Surface::Walk::ByAngle:
      break;
  }
  return upright >= least_upright(profile, surface) - kTouch;
}

bool leads_on(const Values& profile, const Surface& surface, const Vec3& normal_C, const Vec3& up_C) {
  const bool bears = surface.ground && walkable(profile, surface, normal_C, up_C);
  return bears || dot(normal_C, up_C) > kLevel;
}

const WorldContact* bearing_face(const StepContext& context, const Body& body, const Touching& touching) {
  const WorldContact* best = nullptr;
  bool best_walks = false;
  for (const WorldContact& c : touching) {
    // What the core is deep in squeezes it; it does not bear.
    const bool rests = c.closest.distance >= body.radius - body.margin - kGroundTouch;
    if (!rests || !c.surface.ground || dot(c.closest.normal_C, body.up_C) < kUpright) continue;
    const bool walks = walkable(context.profile, c.surface, c.face_normal_C, body.up_C);
    const bool better =
        best == nullptr ||
        (walks != best_walks ? walks
                             : dot(c.face_normal_C, body.up_C) > dot(best->face_normal_C, body.up_C) + kTouch);
    if (!better) continue;
    best = &c;
    best_walks = walks;
  }
  return best;
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
                       hit->triangle,
                       hit->surface};
  const Touching touching(body, landed);
  const WorldContact* better = bearing_face(context, body, touching);
  if (better != nullptr) bearing = *better;
  const double angle = std::acos(std::clamp(dot(bearing.face_normal_C, body.up_C), -1.0, 1.0));
  const double beyond = overhang(body, landed, bearing.closest.on_triangle_C);
  if (!bearing.surface.ground) {
    context.note(entry::Judged{Verdict::None, angle, beyond, bearing.piece});
    return {};
  }
  const Judgement judged = judge(context, body, landed, touching, bearing);
  context.note(entry::Judged{judged.verdict, angle, beyond, bearing.piece});
  return {{judged.verdict, bearing.piece, judged.normal_C, bearing.closest.on_triangle_C, bearing.surface},
          gap};
}

}  // namespace lagniappe
