// SPDX-License-Identifier: MIT
#include "motion/slide.h"

#include "motion/ground.h"
#include "motion/stepping.h"

namespace lagniappe {
namespace {

using Kind = entry::Slide::Kind;

// Sweeps by `rest`, moves to the contact, and leaves in `rest` what is still to be moved.
std::optional<WorldHit> advance(const StepContext& context, const Body& body, Vec3& foot, Vec3& rest) {
  const auto hit = body.sweep(foot, rest);
  if (context.ledger != nullptr) {
    entry::Sweep sweep{foot, rest,         hit ? hit->hit.fraction : 1.0, hit.has_value(), kNoPiece, {},
                       {},   Feature::Face};
    if (hit) {
      sweep.piece = hit->piece;
      sweep.point_C = hit->hit.point_C;
      sweep.normal_C = hit->hit.normal_C;
      sweep.feature = hit->hit.feature;
    }
    context.note(sweep);
  }
  const double fraction = hit ? hit->hit.fraction : 1.0;
  foot += rest * fraction;
  rest *= 1.0 - fraction;
  return hit;
}

// The wall that stands for a face too steep to walk: its normal without the part along up. A flat ceiling has
// no such part; it stops the motion that ran into it.
Vec3 wall_normal(const Body& body, const Vec3& normal_C, const Vec3& flat_motion_C) {
  const Vec3 against = -unit_or(flat_motion_C, body.up_C);
  const Vec3 flat = body.flat(normal_C);
  return length(flat) > 1e-6 ? unit_or(flat, against) : against;
}

}  // namespace

bool Planes::add(const Vec3& normal_C) {
  for (int i = 0; i < count_; ++i) {
    if (dot(normal_C_[i], normal_C) > kSamePlane) {
      normal_C_[i] = normal_C;
      return true;
    }
  }
  if (count_ == kMostPlanes) return false;
  normal_C_[count_++] = normal_C;
  return true;
}

Planes::Clipped Planes::clip(const Vec3& v) const {
  const double tolerance = kApproach * length(v);
  const auto goes_into_none = [&](const Vec3& candidate) {
    for (int i = 0; i < count_; ++i) {
      if (dot(candidate, normal_C_[i]) < -tolerance) return false;
    }
    return true;
  };
  if (goes_into_none(v)) return {v, Kind::Along};
  for (int i = count_ - 1; i >= 0; --i) {
    if (dot(v, normal_C_[i]) >= 0.0) continue;
    const Vec3 along = across(v, normal_C_[i]);
    if (goes_into_none(along)) return {along, Kind::Wall};
  }
  Clipped best{Vec3(0.0), Kind::Stop};
  for (int i = 0; i < count_; ++i) {
    for (int j = i + 1; j < count_; ++j) {
      const Vec3 edge = unit_or(cross(normal_C_[i], normal_C_[j]), Vec3(0.0));
      const Vec3 along = edge * dot(v, edge);
      if (length_squared(along) > length_squared(best.vector_C) && goes_into_none(along))
        best = {along, Kind::Crease};
    }
  }
  return best;
}

Slid slide_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C,
                     const Vec3& flat_motion_C, const Vec3& flat_velocity_C, const Vec3& ground_normal_C) {
  Slid out{foot_C, flat_velocity_C};
  Planes walls;
  Vec3 normal = ground_normal_C;
  Vec3 flat = flat_motion_C;
  // Each round either finishes, meets a new wall, or turns onto another walkable face; twice the planes bounds
  // both.
  for (int round = 0; round < 2 * kMostPlanes && length_squared(flat) > 0.0; ++round) {
    Vec3 rest = laid_on(flat, normal, body.up_C);
    const auto hit = advance(context, body, out.foot_C, rest);
    if (!hit) break;
    ++out.slides;
    flat = unit_or(flat, Vec3(0.0)) * length(rest);

    const Vec3 contact_normal = hit->hit.normal_C;
    const bool walk = walkable(context.profile, contact_normal, body.up_C);
    const bool on_edge =
        hit->hit.feature != Feature::Face && dot(contact_normal, hit->face_normal_C) < kSamePlane;
    if (!walk || on_edge) {
      if (const auto step = try_step(context, body, out.foot_C, flat, *hit, walls)) {
        out.lifted += dot(*step - out.foot_C, body.up_C);
        out.foot_C = *step;
        out.stepped = true;
        break;
      }
    }
    if (walk) {
      normal = contact_normal;
      context.note(entry::Slide{Kind::Along, normal, laid_on(flat, normal, body.up_C)});
      continue;
    }
    const Vec3 wall = wall_normal(body, contact_normal, flat);
    if (!walls.add(wall)) break;
    const Planes::Clipped clipped = walls.clip(flat);
    // Two walls leave only a motion along up, or one away from the wish: both are a corner to stand in.
    flat =
        clipped.kind == Kind::Wall && dot(clipped.vector_C, flat_motion_C) > 0.0 ? clipped.vector_C : Vec3(0.0);
    context.note(entry::Slide{flat == Vec3(0.0) ? Kind::Stop : Kind::Wall, wall, flat});
  }
  out.velocity_C = body.flat(walls.clip(flat_velocity_C).vector_C);
  return out;
}

Slid slide_in_air(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& motion_C,
                  const Vec3& velocity_C) {
  Slid out{foot_C, velocity_C};
  Planes planes;
  Vec3 rest = motion_C;
  for (int round = 0; round < 2 * kMostPlanes && length_squared(rest) > 0.0; ++round) {
    const auto hit = advance(context, body, out.foot_C, rest);
    if (!hit) break;
    ++out.slides;
    const bool room = planes.add(hit->hit.normal_C);
    const Planes::Clipped clipped = planes.clip(rest);
    rest = room && dot(clipped.vector_C, motion_C) > 0.0 ? clipped.vector_C : Vec3(0.0);
    const bool ceiling = dot(hit->hit.normal_C, body.up_C) < -kUpright;
    const Kind kind =
        rest == Vec3(0.0) ? Kind::Stop : (ceiling && clipped.kind == Kind::Wall ? Kind::Ceiling : clipped.kind);
    context.note(entry::Slide{kind, hit->hit.normal_C, rest});
    if (!room) break;
  }
  out.velocity_C = planes.clip(velocity_C).vector_C;
  return out;
}

}  // namespace lagniappe
