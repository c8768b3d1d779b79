// SPDX-License-Identifier: MIT
#include "world/queries.h"

#include <algorithm>

#include "geometry/sweep_kernel.h"
#include "geometry/tolerances.h"

namespace lagniappe {
namespace {

// Decides between hits at the same instant, by what they are and not by the order of faces: face, edge, vertex;
// then what lies more head-on; then the surface that bears more; of equal ones the lower triangle.
bool preferred(const WorldHit& a, const WorldHit& b, const Vec3& motion_C) {
  if (a.hit.feature != b.hit.feature) return a.hit.feature < b.hit.feature;
  const double more_against = dot(b.hit.normal_C - a.hit.normal_C, motion_C);
  if (std::abs(more_against) > kTouch * length(motion_C)) return more_against > 0.0;
  if (a.surface != b.surface) return decides_before(a.surface, b.surface);
  return a.triangle < b.triangle;
}

}  // namespace

SweepQuery::SweepQuery(const Segment& axis, double radius, const Vec3& motion_C, const Moment& moment)
    : axis_(axis), radius_(radius), motion_C_(motion_C), without_(moment.without), region_(bounds(axis)) {
  const double far = length(motion_C);
  tie_ = far > 0.0 ? kTouch / far : 0.0;
  region_.join(bounds(moved(axis, motion_C)));
  region_ = region_.grown(radius + kTouch);
}

void SweepQuery::offer(const WorldFace& face) {
  // Most candidates end here, on the little that a plane takes.
  if (PlaneGap(axis_, motion_C_, face.triangle, face.normal_C).apart(radius_) || face.piece == without_) return;
  const auto fraction = sweep_fraction(axis_, radius_, motion_C_, face.triangle, face.normal_C, bound());
  if (!fraction || *fraction > bound()) return;
  const Closest c = closest(moved(axis_, motion_C_ * *fraction), face.triangle);
  const WorldHit candidate{{*fraction, c.on_triangle_C, c.normal_C, c.feature},
                           towards(face.normal_C, c.normal_C),
                           face.piece,
                           face.index,
                           face.surface};
  if (!best_ || *fraction < best_->hit.fraction - tie_) {
    best_ = candidate;
    return;
  }
  const double least = std::min(*fraction, best_->hit.fraction);
  if (preferred(candidate, *best_, motion_C_)) best_ = candidate;
  best_->hit.fraction = least;
}

void ContactQuery::offer(const WorldFace& face) {
  if (face.piece == without_) return;
  const double a = dot(axis_.a_C - face.triangle.v0_C, face.normal_C),
               b = dot(axis_.b_C - face.triangle.v0_C, face.normal_C);
  const double beyond = radius_ + kTouch;
  if (std::min(a, b) > beyond || std::max(a, b) < -beyond) return;
  if (!region_.overlaps(bounds(face.triangle))) return;
  const Closest c = closest(axis_, face.triangle);
  if (c.distance <= radius_)
    keep({c, towards(face.normal_C, c.normal_C), face.piece, face.index, face.surface});
}

bool ContactQuery::before(const WorldContact& a, const WorldContact& b) const {
  const double more = dot(a.closest.normal_C - b.closest.normal_C, wanted_C_);
  if (more != 0.0) return more > 0.0;
  if (a.closest.distance != b.closest.distance) return a.closest.distance < b.closest.distance;
  return a.triangle < b.triangle;
}

void ContactQuery::keep(const WorldContact& contact) {
  if (count_ == out_.size()) {
    if (count_ == 0 || !before(contact, out_[count_ - 1])) return;
  } else {
    ++count_;
  }
  std::size_t at = count_ - 1;
  for (; at > 0 && before(contact, out_[at - 1]); --at) out_[at] = out_[at - 1];
  out_[at] = contact;
}

RayQuery::RayQuery(const Vec3& origin_C, const Vec3& motion_C, const Moment& moment)
    : origin_C_(origin_C), motion_C_(motion_C), without_(moment.without) {
  region_.join(origin_C);
  region_.join(origin_C + motion_C);
  region_ = region_.grown(kTouch);
}

void RayQuery::offer(const WorldFace& face) {
  if (face.piece == without_) return;
  const auto hit = lagniappe::cast_ray(origin_C_, motion_C_, face.triangle);
  if (!hit) return;
  const bool same = best_ && hit->fraction == best_->hit.fraction;
  const bool tie = same && (face.surface != best_->surface ? decides_before(face.surface, best_->surface)
                                                           : face.index < best_->triangle);
  if (best_ && !tie && hit->fraction >= best_->hit.fraction) return;
  best_ = WorldRayHit{*hit, face.piece, face.surface, face.index};
}

}  // namespace lagniappe
