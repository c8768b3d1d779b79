// SPDX-License-Identifier: MIT
// A capsule moving against a triangle is a point moving against the rounded Minkowski difference of triangle
// and axis: two copies of the triangle, three parallelograms (edge times axis), nine edges and six vertices,
// all grown by the radius. The body is convex and the point starts outside, so the least fraction over all
// parts is the first touch; each part has a closed form.
#include <algorithm>
#include <array>

#include "geometry/closest.h"
#include "geometry/sweep_kernel.h"
#include "geometry/tolerances.h"

namespace lagniappe {
namespace {

// A point that starts at the origin of its own frame and moves by `motion`; keeps the least fraction found.
struct FirstTouch {
  Vec3 motion;
  double radius;
  double fraction = 2.0;  // Above 1: nothing found.

  void offer(double t) {
    if (t < fraction) fraction = t;
  }
};

// Fraction at which the point comes within the radius of the plane through `corner` with unit `normal`, from
// outside. Gives the foot of the perpendicular at that moment.
std::optional<std::pair<double, Vec3>> touch_plane(const FirstTouch& touch, const Vec3& corner, Vec3 normal) {
  double height = -dot(normal, corner);
  if (height < 0.0) {
    height = -height;
    normal = -normal;
  }
  const double approach = -dot(normal, touch.motion);
  if (height < touch.radius || height - approach > touch.radius - kTouch) return std::nullopt;
  const double t = (height - touch.radius) / approach;
  if (t >= touch.fraction) return std::nullopt;
  return std::pair(t, touch.motion * t - normal * touch.radius);
}

void touch_triangle(FirstTouch& touch, const Vec3& v0, const Vec3& e1, const Vec3& e2, const Vec3& normal) {
  const auto plane = touch_plane(touch, v0, normal);
  if (!plane) return;
  const Vec3 p = plane->second - v0;
  const double d11 = dot(e1, e1), d12 = dot(e1, e2), d22 = dot(e2, e2), p1 = dot(p, e1), p2 = dot(p, e2);
  const double denominator = d11 * d22 - d12 * d12;
  const double u = (d22 * p1 - d12 * p2), v = (d11 * p2 - d12 * p1);
  if (u >= 0.0 && v >= 0.0 && u + v <= denominator) touch.offer(plane->first);
}

void touch_parallelogram(FirstTouch& touch, const Vec3& corner, const Vec3& edge, const Vec3& side) {
  const Vec3 area = cross(edge, side);
  const double square = length_squared(area);
  // Nearly parallel: the two edges and the vertices' segments bound the same body.
  if (square <= 1e-24 * length_squared(edge) * length_squared(side)) return;
  const auto plane = touch_plane(touch, corner, area / std::sqrt(square));
  if (!plane) return;
  const Vec3 p = plane->second - corner;
  const double u = dot(cross(p, side), area), v = dot(cross(edge, p), area);
  if (u >= 0.0 && u <= square && v >= 0.0 && v <= square) touch.offer(plane->first);
}

// Least root of the quadratic |x0 + t m|^2 = radius^2, a t^2 + 2 half_b t + c = 0, for a point that approaches
// from outside and comes nearer than the radius by a touch.
void touch_quadratic(FirstTouch& touch, double a, double half_b, double c, auto&& accept) {
  if (half_b >= 0.0 || c < 0.0) return;  // Leading away, or inside (then another part was entered before).
  const double nearest_at = std::min(-half_b / a, 1.0);
  const double deepest = touch.radius - kTouch;
  const double nearest_square = c + touch.radius * touch.radius + nearest_at * (2.0 * half_b + nearest_at * a);
  if (nearest_square > deepest * deepest) return;
  const double discriminant = std::max(half_b * half_b - a * c, 0.0);
  const double t = c / (-half_b + std::sqrt(discriminant));  // The stable form of the lesser root.
  if (t <= 1.0 && t < touch.fraction && accept(t)) touch.offer(t);
}

void touch_sphere(FirstTouch& touch, const Vec3& centre) {
  const double a = length_squared(touch.motion), half_b = -dot(centre, touch.motion);
  const double c = length_squared(centre) - touch.radius * touch.radius;
  touch_quadratic(touch, a, half_b, c, [](double) { return true; });
}

// The side of the cylinder around the segment from `start` along `edge`; its ends are spheres of their own.
void touch_cylinder(FirstTouch& touch, const Vec3& start, const Vec3& edge) {
  const double edge_square = length_squared(edge);
  if (edge_square <= 0.0) return;
  const double along_start = -dot(start, edge) / edge_square,
               along_motion = dot(touch.motion, edge) / edge_square;
  const Vec3 offset = -start - edge * along_start, slope = touch.motion - edge * along_motion;
  const double a = length_squared(slope);
  if (a <= 0.0) return;
  const double c = length_squared(offset) - touch.radius * touch.radius;
  touch_quadratic(touch, a, dot(offset, slope), c, [&](double t) {
    const double along = along_start + along_motion * t;
    return along >= 0.0 && along <= 1.0;
  });
}

double first_touch(const Segment& axis, double radius, const Vec3& motion, const Triangle& triangle,
                   double bound) {
  // Relative to the axis' first point, so that places far from the origin lose nothing.
  const std::array<Vec3, 3> v = {triangle.v0_C - axis.a_C, triangle.v1_C - axis.a_C, triangle.v2_C - axis.a_C};
  const Vec3 back = axis.a_C - axis.b_C;  // A vertex as seen from the axis' other end.
  const bool ball = length_squared(back) == 0.0;
  FirstTouch touch{motion, radius, bound};

  const Vec3 e1 = v[1] - v[0], e2 = v[2] - v[0];
  const Vec3 area = cross(e1, e2);
  const double double_area = length(area);
  if (double_area > kLeastDoubleArea) {
    const Vec3 normal = area / double_area;
    touch_triangle(touch, v[0], e1, e2, normal);
    if (!ball) touch_triangle(touch, v[0] + back, e1, e2, normal);
  }
  for (int i = 0; i < 3; ++i) {
    const Vec3 edge = v[(i + 1) % 3] - v[i];
    touch_cylinder(touch, v[i], edge);
    touch_sphere(touch, v[i]);
    if (ball) continue;
    touch_parallelogram(touch, v[i], edge, back);
    touch_cylinder(touch, v[i] + back, edge);
    touch_cylinder(touch, v[i], back);
    touch_sphere(touch, v[i] + back);
  }
  return touch.fraction;
}

// Whether the swept capsule's box misses the triangle's: the cheap way out for most candidates.
bool boxes_apart(const Segment& axis, double radius, const Vec3& motion, const Triangle& triangle) {
  Box swept = bounds(axis);
  swept.join(bounds(moved(axis, motion)));
  return !swept.grown(radius + kTouch).overlaps(bounds(triangle));
}

// Whether the swept capsule and the triangle lie apart as seen along one of the triangle's edges crossed with
// the axis: for an upright capsule, as seen from above.
bool edges_apart(const Segment& axis, double radius, const Vec3& motion, const Triangle& t) {
  const Vec3 d = axis.b_C - axis.a_C;
  const Vec3 v[] = {t.v0_C - axis.a_C, t.v1_C - axis.a_C, t.v2_C - axis.a_C};
  for (int i = 0; i < 3; ++i) {
    const Vec3 n = cross(v[(i + 1) % 3] - v[i], d);
    const double edge = dot(n, v[i]), opposite = dot(n, v[(i + 2) % 3]), along = dot(n, motion);
    const double low = std::min(edge, opposite) - std::max(along, 0.0);
    const double high = std::max(edge, opposite) - std::min(along, 0.0);
    const double reach_square = (radius + kTouch) * (radius + kTouch) * length_squared(n);
    if ((low > 0.0 && low * low > reach_square) || (high < 0.0 && high * high > reach_square)) return true;
  }
  return false;
}

// First touch of the plane's inside by the end of the axis that comes first. A plane that carries a convex body
// is touched no later than any part of it: if the touch lies in the triangle, it is the first of all.
std::optional<double> face_touch(const Segment& axis, double radius, const Vec3& motion, const Triangle& t,
                                 const Vec3& normal) {
  FirstTouch touch{motion, radius};
  const Vec3 e1 = t.v1_C - t.v0_C, e2 = t.v2_C - t.v0_C;
  touch_triangle(touch, t.v0_C - axis.a_C, e1, e2, normal);
  touch_triangle(touch, t.v0_C - axis.b_C, e1, e2, normal);
  if (touch.fraction > 1.0) return std::nullopt;
  // The other end may have been nearer to the plane and have missed the triangle.
  const double a = dot(axis.a_C - t.v0_C, normal), b = dot(axis.b_C - t.v0_C, normal);
  const double nearest = std::min(std::abs(a), std::abs(b));
  const double approach = std::abs(dot(motion, normal));
  return (nearest - radius) / approach >= touch.fraction - 1e-15 ? std::optional(touch.fraction) : std::nullopt;
}

}  // namespace

std::optional<double> sweep_fraction(const Segment& axis, double radius, const Vec3& motion,
                                     const Triangle& triangle, const Vec3& normal, double bound) {
  bool may_touch_at_start = true;
  if (normal != Vec3(0.0)) {
    const PlaneGap gap(axis, motion, triangle, normal);
    if (gap.apart(radius)) return std::nullopt;
    may_touch_at_start = gap.start <= radius + kTouch;
  }
  if (boxes_apart(axis, radius, motion, triangle) || edges_apart(axis, radius, motion, triangle))
    return std::nullopt;
  if (may_touch_at_start) {
    const Closest start = closest(axis, triangle);
    if (start.distance <= radius + kTouch) {
      const bool approaches = -dot(start.normal_C, motion) > kApproach * length(motion);
      return approaches ? std::optional(0.0) : std::nullopt;
    }
    // Two convex bodies that lie apart along a direction by more than they approach along it never meet.
    if (-dot(start.normal_C, motion) <= start.distance - radius + kTouch) return std::nullopt;
  } else if (const auto fraction = face_touch(axis, radius, motion, triangle, normal)) {
    return fraction;
  }
  // A little beyond the bound, which ties may lie on.
  const double fraction = first_touch(axis, radius, motion, triangle, bound * (1.0 + 1e-12) + 1e-15);
  return fraction <= std::min(bound, 1.0) ? std::optional(fraction) : std::nullopt;
}

std::optional<double> sweep_fraction(const Segment& axis, double radius, const Vec3& motion,
                                     const Triangle& triangle) {
  return sweep_fraction(axis, radius, motion, triangle, winding_normal(triangle), 1.0);
}

std::optional<SweepHit> sweep(const Segment& axis, double radius, const Vec3& motion,
                              const Triangle& triangle) {
  const auto fraction = sweep_fraction(axis, radius, motion, triangle);
  if (!fraction) return std::nullopt;
  const Closest c = closest(moved(axis, motion * *fraction), triangle);
  return SweepHit{*fraction, c.on_triangle_C, c.normal_C, c.feature};
}

}  // namespace lagniappe
