// SPDX-License-Identifier: MIT
#include "motion/ground.h"

#include <algorithm>

#include "motion/contact_kind.h"
#include "motion/planes.h"
#include "motion/upright_way.h"

namespace lagniappe {
namespace {

// How far the axis stands beyond the contact, across up.
double overhang(const Body& body, const Vec3& foot_C, const Vec3& contact_C) {
  const Vec3 from_low = body.flat(contact_C - foot_C - body.low_C), along = body.flat(body.high_C - body.low_C);
  const double square = length_squared(along);
  if (square < kTouch * kTouch) return length(from_low);
  return length(from_low - along * std::clamp(dot(from_low, along) / square, 0.0, 1.0));
}

// Whether walkable ground lies within a step's height under the edge that is touched: under the centre of the
// capsule, or as far from there, towards the edge or away from it, as one may stand beyond an edge. That is
// where the step below ends on whose edge one stood.
bool step_below(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& contact_C) {
  const double reach = std::max(context.profile.ground.highest_step, context.profile.ground.snap_distance);
  // A body that lies meets with its head what its middle is far below of.
  const bool lies = length_squared(body.flat(body.high_C - body.low_C)) > kTouch * kTouch;
  const double under_foot = lies ? reach : reach - dot(contact_C - foot_C, body.up_C);
  const Vec3 towards = unit_or(body.flat(contact_C - foot_C), Vec3(0.0));
  const double aside = std::min(context.profile.ground.longest_overhang, body.radius);
  for (const double way : {0.0, aside, -aside}) {
    const auto hit = body.cast_ray(foot_C + body.up_C * body.radius + towards * way,
                                   -body.up_C * (body.radius + under_foot + kGroundTouch));
    if (hit && hit->surface.ground && walkable(context.profile, hit->surface, hit->hit.normal_C, body.up_C))
      return true;
  }
  return false;
}

// Where a fall would go on, if at all, the steepness of that way decides instead of the faces': two steep faces
// that meet in a level groove are as good as a floor. Returns the normal of what bears, or nothing if it would
// slide off.
std::optional<Vec3> groove_normal(const StepContext& context, const Body& body, const Touching& touching) {
  Planes planes;
  int bearing = 0;
  for (const WorldContact& c : touching) {
    if (contact_kind(context.profile, c.surface, c.closest.normal_C, body.up_C) == ContactKind::Ceiling)
      continue;
    bearing += dot(c.closest.normal_C, body.up_C) > kTouch && c.surface.walk != Surface::Walk::Never &&
               c.surface.ground;
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
  const Vec3 face = bearing_normal(context, body, bearing);
  if (!walkable(context.profile, bearing.surface, face, body.up_C)) {
    if (const auto normal = groove_normal(context, body, touching)) return {Verdict::Walkable, *normal};
    return {Verdict::Steep, face};
  }
  const auto as = [&](Verdict verdict) { return Judgement{verdict, face}; };
  if (bearing.closest.feature == Feature::Face) return as(Verdict::Walkable);
  const double beyond = overhang(body, foot_C, bearing.closest.on_triangle_C);
  if (beyond <= context.profile.ground.longest_overhang ||
      step_below(context, body, foot_C, bearing.closest.on_triangle_C))
    return as(Verdict::Walkable);
  // Across a slot, on two edges, nobody slips off.
  if (const auto normal = groove_normal(context, body, touching)) return {Verdict::Walkable, *normal};
  return as(Verdict::Tipping);
}

}  // namespace

Vec3 bearing_normal(const StepContext& context, const Body& body, const WorldContact& bearing) {
  const bool bears = under_foot(context.profile, bearing.face_normal_C, body.up_C);
  return bears ? bearing.face_normal_C : bearing.closest.normal_C;
}

namespace {

// Whether two contacts are one to a capsule that counts as touching what is a touch away: so far round the foot
// their places may be apart.
bool one_contact(const Body& body, const WorldContact& a, const WorldContact& b) {
  return dot(a.closest.normal_C, b.closest.normal_C) >= 1.0 - 2.0 * kGroundTouch / body.radius;
}

// The order in which the faces of one contact bear.
bool bears_before(const StepContext& context, const Body& body, const WorldContact& a, const WorldContact& b) {
  // On an edge the face that bears, not the wall under it.
  const bool face_a = under_foot(context.profile, a.face_normal_C, body.up_C),
             face_b = under_foot(context.profile, b.face_normal_C, body.up_C);
  if (face_a != face_b) return face_a;
  const Vec3 na = bearing_normal(context, body, a), nb = bearing_normal(context, body, b);
  const bool walk_a = walkable(context.profile, a.surface, na, body.up_C),
             walk_b = walkable(context.profile, b.surface, nb, body.up_C);
  if (walk_a != walk_b) return walk_a;
  const double upright = dot(na - nb, body.up_C);
  if (std::abs(upright) > kTouch) return upright > 0.0;
  if (a.closest.feature != b.closest.feature) return a.closest.feature < b.closest.feature;
  if (a.surface != b.surface) return decides_before(a.surface, b.surface);
  return a.piece != b.piece && context.world.piece_name(a.piece) < context.world.piece_name(b.piece);
}

// What holds the foot up at all. Faces do by their own slope; their rims wherever they are touched from above,
// and the rim of a wall only under the foot.
bool may_bear(const StepContext& context, const Body& body, const WorldContact& c) {
  // What the core is deep in squeezes it; it does not bear.
  const bool rests = c.closest.distance >= body.radius - body.margin - kGroundTouch;
  if (!rests) return false;
  if (!under_foot(context.profile, c.face_normal_C, body.up_C))
    return c.closest.feature != Feature::Face && under_foot(context.profile, c.closest.normal_C, body.up_C);
  return dot(c.closest.normal_C, body.up_C) > kSideways;
}

// The lowest contact under the foot, as its normal says: the lower, the more upright. Then the best face of it.
template <typename Wanted>
const WorldContact* lowest(const StepContext& context, const Body& body, const Touching& touching,
                           const Wanted& wanted) {
  const WorldContact *low = nullptr, *best = nullptr;
  const auto height = [&](const WorldContact& c) { return dot(c.closest.normal_C, body.up_C); };
  const auto bears = [&](const WorldContact& c) { return wanted(c) && may_bear(context, body, c); };
  for (const WorldContact& c : touching) {
    if (!bears(c)) continue;
    const double lower = low == nullptr ? 1.0 : height(c) - height(*low);
    if (lower > kTouch || (lower > -kTouch && bears_before(context, body, c, *low))) low = &c;
  }
  best = low;
  for (const WorldContact& c : touching) {
    if (bears(c) && one_contact(body, c, *low) && bears_before(context, body, c, *best)) best = &c;
  }
  return best;
}

}  // namespace

const WorldContact* bearing_contact(const StepContext& context, const Body& body, const Touching& touching) {
  return lowest(context, body, touching, [](const WorldContact& c) { return c.surface.ground; });
}

const WorldContact* lowest_contact(const StepContext& context, const Body& body, const Touching& touching) {
  return lowest(context, body, touching, [](const WorldContact&) { return true; });
}

GroundFound probe_ground(const StepContext& context, const Body& body, const Vec3& foot_C, double reach) {
  // From a touch above: a capsule that rests keeps its contact whatever the last rounding was.
  const UprightWay way = upright_way(context, body, foot_C + body.up_C * kTouch, -body.up_C, reach + kTouch);
  const bool met = way.gone < reach + kTouch;
  const double gap = met ? std::max(way.gone - kTouch, 0.0) : reach;
  context.note(entry::Probe{reach, gap, met, foot_C, way.stop ? way.stop->piece : kNoPiece});
  if (!met) return {};

  const bool straight = length_squared(body.flat(way.foot_C - foot_C)) <= kTouch * kTouch;
  const Vec3 landed = straight ? foot_C - body.up_C * gap : way.foot_C;
  const Touching touching(body, landed);
  const WorldContact* bearing = bearing_contact(context, body, touching);
  if (bearing == nullptr) {
    // Walls may still hold it between them.
    const auto groove = groove_normal(context, body, touching);
    if (!groove || touching.count == 0) return {};
    const WorldContact& c = *touching.begin();
    context.note(entry::Judged{Verdict::Walkable, std::acos(std::clamp(dot(*groove, body.up_C), -1.0, 1.0)),
                               0.0, c.piece});
    return {{Verdict::Walkable, c.piece, *groove, c.closest.on_triangle_C, c.surface}, gap, landed};
  }
  const Judgement judged = judge(context, body, landed, touching, *bearing);
  const double angle =
      std::acos(std::clamp(dot(bearing_normal(context, body, *bearing), body.up_C), -1.0, 1.0));
  const double beyond = overhang(body, landed, bearing->closest.on_triangle_C);
  context.note(entry::Judged{judged.verdict, angle, beyond, bearing->piece});
  return {{judged.verdict, bearing->piece, judged.normal_C, bearing->closest.on_triangle_C, bearing->surface},
          gap,
          landed};
}

}  // namespace lagniappe
