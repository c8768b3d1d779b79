// SPDX-License-Identifier: MIT
#include "geometry/closest.h"

#include <algorithm>
#include <array>

#include "geometry/tolerances.h"

namespace lagniappe {

Vec3 winding_normal(const Triangle& t) { return unit_or(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C), Vec3(0.0)); }

namespace {
// Squared sine under which two segments count as parallel: what is left of a difference of squares of doubles.
constexpr double kParallel = 1e-14;
}  // namespace

PointOnTriangle closest_point(const Vec3& p, const Triangle& t) {
  const Vec3 ab = t.v1_C - t.v0_C, ac = t.v2_C - t.v0_C, ap = p - t.v0_C;
  const double d1 = dot(ab, ap), d2 = dot(ac, ap);
  if (d1 <= 0.0 && d2 <= 0.0) return {t.v0_C, Feature::Vertex};

  const Vec3 bp = p - t.v1_C;
  const double d3 = dot(ab, bp), d4 = dot(ac, bp);
  if (d3 >= 0.0 && d4 <= d3) return {t.v1_C, Feature::Vertex};

  const double vc = d1 * d4 - d3 * d2;
  if (vc <= 0.0 && d1 >= 0.0 && d3 <= 0.0) return {t.v0_C + ab * (d1 / (d1 - d3)), Feature::Edge};

  const Vec3 cp = p - t.v2_C;
  const double d5 = dot(ab, cp), d6 = dot(ac, cp);
  if (d6 >= 0.0 && d5 <= d6) return {t.v2_C, Feature::Vertex};

  const double vb = d5 * d2 - d1 * d6;
  if (vb <= 0.0 && d2 >= 0.0 && d6 <= 0.0) return {t.v0_C + ac * (d2 / (d2 - d6)), Feature::Edge};

  const double va = d3 * d6 - d5 * d4;
  if (va <= 0.0 && d4 - d3 >= 0.0 && d5 - d6 >= 0.0) {
    return {t.v1_C + (t.v2_C - t.v1_C) * ((d4 - d3) / ((d4 - d3) + (d5 - d6))), Feature::Edge};
  }
  const double sum = va + vb + vc;
  return {t.v0_C + ab * (vb / sum) + ac * (vc / sum), Feature::Face};
}

SegmentPair closest_points(const Segment& first, const Segment& second) {
  const Vec3 d1 = first.b_C - first.a_C, d2 = second.b_C - second.a_C, r = first.a_C - second.a_C;
  const double a = dot(d1, d1), e = dot(d2, d2), f = dot(d2, r), c = dot(d1, r), b = dot(d1, d2);
  double s = 0.0, t = 0.0;
  if (a <= 0.0) {
    t = e > 0.0 ? std::clamp(f / e, 0.0, 1.0) : 0.0;
  } else if (e <= 0.0) {
    s = std::clamp(-c / a, 0.0, 1.0);
  } else {
    const double denominator = a * e - b * b;
    if (denominator > kParallel * a * e) {
      s = std::clamp((b * f - c * e) / denominator, 0.0, 1.0);
    } else {
      // Parallel: every pair along the shared stretch is nearest; take its middle, away from the ends.
      const double at_start = -c / a, at_end = (b - c) / a;
      const double low = std::clamp(std::min(at_start, at_end), 0.0, 1.0);
      const double high = std::clamp(std::max(at_start, at_end), 0.0, 1.0);
      s = 0.5 * (low + high);
    }
    t = (b * s + f) / e;
    if (t < 0.0) {
      t = 0.0;
      s = std::clamp(-c / a, 0.0, 1.0);
    } else if (t > 1.0) {
      t = 1.0;
      s = std::clamp((b - c) / a, 0.0, 1.0);
    }
  }
  return {s, t, first.a_C + d1 * s, second.a_C + d2 * t};
}

namespace {

struct Best {
  double distance_squared;
  Vec3 on_segment, on_triangle;
  Feature feature;

  void take(const Vec3& segment_point, const Vec3& triangle_point, Feature f) {
    const double d = length_squared(segment_point - triangle_point);
    // Less by rounding alone does not count, so that faces win over their own edges.
    if (d < distance_squared * (1.0 - 1e-12)) *this = {d, segment_point, triangle_point, f};
  }
};

// The point where the segment crosses the inside of the triangle, if it does.
std::optional<Vec3> crossing(const Segment& s, const Triangle& t) {
  const auto hit = cast_ray(s.a_C, s.b_C - s.a_C, t);
  return hit ? std::optional(hit->point_C) : std::nullopt;
}

// The side to leave a crossed triangle by: the one on which more of the segment already is.
Vec3 least_push_out(const Segment& s, const Triangle& t) {
  const Vec3 normal = winding_normal(t);
  if (normal == Vec3(0.0)) return unit_or(cross(s.b_C - s.a_C, t.v1_C - t.v0_C), Vec3(0.0, 1.0, 0.0));
  return dot(normal, 0.5 * (s.a_C + s.b_C) - t.v0_C) >= 0.0 ? normal : -normal;
}

}  // namespace

Closest closest(const Segment& s, const Triangle& t) {
  if (const auto point = crossing(s, t)) return {0.0, *point, *point, least_push_out(s, t), Feature::Face};

  const PointOnTriangle from_a = closest_point(s.a_C, t);
  Best best{length_squared(s.a_C - from_a.point_C), s.a_C, from_a.point_C, from_a.feature};
  const PointOnTriangle from_b = closest_point(s.b_C, t);
  best.take(s.b_C, from_b.point_C, from_b.feature);

  const std::array<Vec3, 4> corner = {t.v0_C, t.v1_C, t.v2_C, t.v0_C};
  for (int i = 0; i < 3; ++i) {
    const SegmentPair pair = closest_points(s, {corner[i], corner[i + 1]});
    const bool at_end = pair.t <= 0.0 || pair.t >= 1.0;
    best.take(pair.first_C, pair.second_C, at_end ? Feature::Vertex : Feature::Edge);
  }
  const double distance = std::sqrt(best.distance_squared);
  const Vec3 normal =
      distance > kTouch * 1e-3 ? (best.on_segment - best.on_triangle) / distance : least_push_out(s, t);
  return {distance, best.on_segment, best.on_triangle, normal, best.feature};
}

double push_out_depth(const Closest& c, const Segment& axis, double radius) {
  if (c.distance > kTouch * 1e-3) return radius - c.distance;
  const double behind =
      std::min(dot(axis.a_C - c.on_triangle_C, c.normal_C), dot(axis.b_C - c.on_triangle_C, c.normal_C));
  return radius - std::min(behind, 0.0);
}

}  // namespace lagniappe
