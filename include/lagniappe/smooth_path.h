// SPDX-License-Identifier: MIT
// A line through points without corners (Catmull and Rom, 1974), and its nearest point to another.
#pragma once

#include <cstddef>
#include <vector>

#include "lagniappe/vector.h"

namespace lagniappe {

// A place on it is a number from 0 to spans(): the whole ones are its points, in their order.
class SmoothPath {
 public:
  SmoothPath() = default;
  // REQUIRES: two points at least, three where it is closed.
  SmoothPath(std::vector<Vec3> points, bool closed);

  const std::vector<Vec3>& points() const { return points_; }
  bool closed() const { return closed_; }
  std::size_t spans() const { return spans_.size(); }

  Vec3 at(double place) const;
  Vec3 slope(double place) const;  // Change of that with the place.

  // The place nearest to a point; the lower of two that are equally near.
  double nearest(const Vec3& point) const;

  // m from the origin, farther than which no place of it is.
  double extent() const;

 private:
  // b + u (p + u (q + u r)), and a ball around it.
  struct Span {
    Vec3 b, p, q, r;
    Vec3 centre = Vec3(0.0);
    double radius = 0.0;

    Vec3 at(double u) const { return b + u * (p + u * (q + u * r)); }
    Vec3 slope(double u) const { return p + u * (2.0 * q + u * (3.0 * r)); }
    Vec3 bend(double u) const { return 2.0 * q + u * (6.0 * r); }
    double nearest(const Vec3& point) const;
  };
  static Span span_through(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& d);
  std::pair<const Span&, double> part(double place) const;

  std::vector<Vec3> points_;
  std::vector<Span> spans_;
  bool closed_ = false;
};

}  // namespace lagniappe
