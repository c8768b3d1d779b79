// SPDX-License-Identifier: MIT
// The three questions to a world, each as something that is shown candidate faces in any order and keeps the
// answer. Trees, moving pieces and gathered sets all ask through these, so they cannot disagree.
#pragma once

#include "lagniappe/world.h"

namespace lagniappe {

class SweepQuery {
 public:
  SweepQuery(const Segment& axis, double radius, const Vec3& motion_C, const Moment& moment);

  void offer(const WorldFace& face);
  // Faces that are first touched beyond this fraction cannot matter any more.
  double bound() const { return best_ ? best_->hit.fraction + tie_ : 1.0; }
  // Around the whole sweep.
  const Box& region() const { return region_; }
  const std::optional<WorldHit>& answer() const { return best_; }

 private:
  Segment axis_;
  double radius_;
  Vec3 motion_C_;
  PieceId without_;
  double tie_;
  Box region_;
  std::optional<WorldHit> best_;
};

class ContactQuery {
 public:
  ContactQuery(const Segment& axis, double radius, std::span<WorldContact> out, const Moment& moment)
      : axis_(axis),
        radius_(radius),
        without_(moment.without),
        wanted_C_(moment.wanted_C),
        region_(bounds(axis).grown(radius)),
        out_(out) {}

  void offer(const WorldFace& face);
  const Box& region() const { return region_; }
  std::size_t answer() const { return count_; }

 private:
  void keep(const WorldContact& contact);
  bool before(const WorldContact& a, const WorldContact& b) const;

  Segment axis_;
  double radius_;
  PieceId without_;
  Vec3 wanted_C_;
  Box region_;
  std::span<WorldContact> out_;
  std::size_t count_ = 0;
};

class RayQuery {
 public:
  RayQuery(const Vec3& origin_C, const Vec3& motion_C, const Moment& moment);

  void offer(const WorldFace& face);
  double bound() const { return best_ ? best_->hit.fraction : 1.0; }
  const Box& region() const { return region_; }
  const std::optional<WorldRayHit>& answer() const { return best_; }

 private:
  Vec3 origin_C_, motion_C_;
  PieceId without_;
  Box region_;
  std::optional<WorldRayHit> best_;
};

// Returns `normal_C` or its opposite, whichever is on the side that `direction_C` points to.
inline Vec3 towards(const Vec3& normal_C, const Vec3& direction_C) {
  return dot(normal_C, direction_C) >= 0.0 ? normal_C : -normal_C;
}

// Answers of a world with what its zones say of the faces' surfaces.
template <typename Hit>
std::optional<Hit> covered(const World& world, std::optional<Hit> hit, const Moment& moment) {
  if (!hit || !world.covers_surfaces()) return hit;
  if (const auto over = world.surface_over(hit->hit.point_C, moment.time)) hit->surface = *over;
  return hit;
}

inline std::size_t covered(const World& world, std::span<WorldContact> out, std::size_t count,
                           const Moment& moment) {
  if (!world.covers_surfaces()) return count;
  for (WorldContact& contact : out.first(count)) {
    if (const auto over = world.surface_over(contact.closest.on_triangle_C, moment.time))
      contact.surface = *over;
  }
  return count;
}

}  // namespace lagniappe
