// SPDX-License-Identifier: MIT
#include "geometry/closest.h"

#include <algorithm>
#include <array>
#include <limits>

#include "geometry/tolerances.h"

namespace lagniappe {

Vec3 winding_normal(const Triangle& t) { return unit_or(cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C), Vec3(0.0)); }

namespace {
// Squared sine under which two segments count as parallel: what is left of a difference of squares of doubles.
constexpr double kParallel = 1e-14;
}  // namespace

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

// The side to leave a crossed triangle by: the one on which more of the segment already is.
Vec3 least_push_out(const Segment& s, const Triangle& t) {
  const Vec3 normal = winding_normal(t);
  if (normal == Vec3(0.0)) return unit_or(cross(s.b_C - s.a_C, t.v1_C - t.v0_C), Vec3(0.0, 1.0, 0.0));
  return dot(normal, 0.5 * (s.a_C + s.b_C) - t.v0_C) >= 0.0 ? normal : -normal;
}

}  // namespace

namespace {

// Whether the point, which may lie off the plane, is over the inside of the triangle.
bool over_inside(const Vec3& p, const Triangle& t, const Vec3& area) {
  const Vec3 v[] = {t.v0_C, t.v1_C, t.v2_C};
  for (int i = 0; i < 3; ++i) {
    if (dot(cross(v[(i + 1) % 3] - v[i], p - v[i]), area) <= 0.0) return false;
  }
  return true;
}

}  // namespace

// Where the segment stays on one side of the plane and its nearer end is over the inside, that is nearest.
// Else, unless it crosses the inside, an edge is: on its way to anything over the inside it passes over an
// edge, lower.
Closest closest(const Segment& s, const Triangle& t) {
  const Vec3 area = cross(t.v1_C - t.v0_C, t.v2_C - t.v0_C);
  const double square = length_squared(area);
  Best best{std::numeric_limits<double>::infinity(), s.a_C, t.v0_C, Feature::Vertex};
  bool edges_matter = true;
  if (square > 0.0) {
    const double a = dot(s.a_C - t.v0_C, area), b = dot(s.b_C - t.v0_C, area);
    const auto take_end = [&](const Vec3& end, double height) {
      if (!over_inside(end, t, area)) return false;
      best.take(end, end - area * (height / square), Feature::Face);
      return true;
    };
    const bool one_side = (a > 0.0 && b > 0.0) || (a < 0.0 && b < 0.0);
    if (one_side) {
      edges_matter = std::abs(a) <= std::abs(b) ? !take_end(s.a_C, a) : !take_end(s.b_C, b);
    } else {
      // In the plane, but for rounding, a ray meets anything; what goes over the inside there ends in it or
      // passes over an edge.
      const double in_plane = kTouch * 1e-3 * std::sqrt(square);
      const bool lies_in_it = std::abs(a) <= in_plane && std::abs(b) <= in_plane;
      const auto hit = lies_in_it ? std::nullopt : cast_ray(s.a_C, s.b_C - s.a_C, t);
      if (hit) return {0.0, hit->point_C, hit->point_C, least_push_out(s, t), Feature::Face};
      // An end may lie in the plane, where no ray meets it.
      take_end(s.a_C, a);
      take_end(s.b_C, b);
    }
  }
  if (edges_matter) {
    const std::array<Vec3, 4> corner = {t.v0_C, t.v1_C, t.v2_C, t.v0_C};
    for (int i = 0; i < 3; ++i) {
      const SegmentPair pair = closest_points(s, {corner[i], corner[i + 1]});
      const bool at_end = pair.t <= 0.0 || pair.t >= 1.0;
      best.take(pair.first_C, pair.second_C, at_end ? Feature::Vertex : Feature::Edge);
    }
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
