// SPDX-License-Identifier: MIT
#include "motion/planes.h"

namespace lagniappe {

using Kind = entry::Slide::Kind;

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

}  // namespace lagniappe
