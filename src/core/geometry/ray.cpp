// SPDX-License-Identifier: MIT
#include <cmath>

#include "geometry/closest.h"

namespace lagniappe {

std::optional<RayHit> cast_ray(const Vec3& origin, const Vec3& motion, const Triangle& t) {
  const Vec3 e1 = t.v1_C - t.v0_C, e2 = t.v2_C - t.v0_C;
  const Vec3 p = cross(motion, e2);
  const double determinant = dot(e1, p);
  if (determinant == 0.0) return std::nullopt;
  const double inverse = 1.0 / determinant;
  const Vec3 from_v0 = origin - t.v0_C;
  const double u = dot(from_v0, p) * inverse;
  if (!(u >= 0.0 && u <= 1.0)) return std::nullopt;
  const Vec3 q = cross(from_v0, e1);
  const double v = dot(motion, q) * inverse;
  if (!(v >= 0.0 && u + v <= 1.0)) return std::nullopt;
  const double fraction = dot(e2, q) * inverse;
  if (!(fraction >= 0.0 && fraction <= 1.0)) return std::nullopt;
  const Vec3 normal = winding_normal(t);
  return RayHit{fraction, origin + motion * fraction, dot(normal, motion) <= 0.0 ? normal : -normal};
}

}  // namespace lagniappe
