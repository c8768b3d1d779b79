// SPDX-License-Identifier: MIT
// A capsule (a segment with a radius, any axis) against one triangle: distance and swept first touch.
//
// Thread safety: free functions over values; any number of threads at once.
#pragma once

#include <cstdint>
#include <optional>

#include "lagniappe/shapes.h"

namespace lagniappe {

// The part of a triangle that is touched. The order is the order of preference among ties.
enum class Feature : std::uint8_t { Face, Edge, Vertex };

// The nearest points of a segment and a triangle.
struct Closest {
  double distance;     // Between the two points; 0 where the segment crosses the triangle.
  Vec3 on_segment_C;   // Where several pairs are nearest, the first found in the order face, edge, vertex.
  Vec3 on_triangle_C;  //
  Vec3 normal_C;       // Unit, from triangle to segment. At distance 0: the direction of least push-out.
  Feature feature;     // Of the triangle, at on_triangle_C.
};

// Returns the nearest points of `segment` and `triangle`. Exact up to rounding; continuous in distance, not in
// the points (parallel segments have many nearest pairs). REQUIRES: every input is finite.
Closest closest(const Segment& segment, const Triangle& triangle);

// How far a capsule at distance 0 must move along Closest::normal_C until it only touches: `radius` plus the
// depth of the segment's end behind the triangle. For positive distances: radius - distance (negative when
// apart).
double push_out_depth(const Closest& closest, const Segment& axis, double radius);

struct SweepHit {
  double fraction;  // Of `motion_C`, in [0, 1], at first touch.
  Vec3 point_C;     // The touching point on the triangle.
  Vec3 normal_C;    // Unit; points from the triangle to the capsule.
  Feature feature;  // Of the triangle, at point_C.
};

// Returns the first touch of the capsule (`axis`, `radius`) moving by `motion_C`, or nothing if the whole
// motion is free. A motion that would enter by less than 1e-9 m is free: gliding along a flat mesh meets none
// of its seams. A capsule that touches or overlaps at the start is hit at fraction 0 when the motion goes into
// the triangle, and not at all when it leads away or along: a triangle is convex, so a motion that does not
// approach it at first never does. Ties: face before edge before vertex. REQUIRES: radius > 0, and every input
// is finite.
std::optional<SweepHit> sweep(const Segment& axis, double radius, const Vec3& motion_C,
                              const Triangle& triangle);

// As sweep(), but only the fraction: cheaper where many triangles compete for the first touch.
std::optional<double> sweep_fraction(const Segment& axis, double radius, const Vec3& motion_C,
                                     const Triangle& triangle);

struct RayHit {
  double fraction;  // Of `motion_C`, in [0, 1].
  Vec3 point_C;
  Vec3 normal_C;  // Unit face normal, on the side that the ray comes from.
};

// Returns where the segment from `origin_C` to `origin_C + motion_C` first meets the triangle, from either
// side. Edges and vertices count as inside; a ray within the triangle's plane meets nothing. Moeller and
// Trumbore, "Fast, Minimum Storage Ray-Triangle Intersection" (1997).
std::optional<RayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C, const Triangle& triangle);

}  // namespace lagniappe
