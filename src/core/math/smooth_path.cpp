// SPDX-License-Identifier: MIT
#include "lagniappe/smooth_path.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "math/catmull_rom.h"

namespace lagniappe {
namespace {

constexpr int kLooks = 8;    // Along a span, for the part in which the nearest point is.
constexpr int kRounds = 20;  // To it, from there.
constexpr double kThere = 1e-13;

}  // namespace

SmoothPath::Span SmoothPath::span_through(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& d) {
  const Cubic cubic = catmull_rom(a, b, c, d);
  Span span{b, cubic.p, cubic.q, cubic.r};
  // A cubic lies within the hull of its Bezier points.
  const Vec3 hull[] = {b, b + (c - a) / 6.0, c - (d - b) / 6.0, c};
  span.centre = 0.5 * (b + c);
  for (const Vec3& v : hull) span.radius = std::max(span.radius, length(v - span.centre));
  return span;
}

SmoothPath::SmoothPath(std::vector<Vec3> points, bool closed) : points_(std::move(points)), closed_(closed) {
  const auto count = static_cast<std::ptrdiff_t>(points_.size());
  const auto near = [&](std::ptrdiff_t i) {
    i = closed ? (i + count) % count : std::clamp<std::ptrdiff_t>(i, 0, count - 1);
    return points_[static_cast<std::size_t>(i)];
  };
  for (std::ptrdiff_t i = 0; i < (closed ? count : count - 1); ++i)
    spans_.push_back(span_through(near(i - 1), near(i), near(i + 1), near(i + 2)));
}

std::pair<const SmoothPath::Span&, double> SmoothPath::part(double place) const {
  const double last = static_cast<double>(spans_.size() - 1);
  const double begin = std::clamp(std::floor(place), 0.0, last);
  return {spans_[static_cast<std::size_t>(begin)], std::clamp(place - begin, 0.0, 1.0)};
}

Vec3 SmoothPath::at(double place) const {
  const auto [span, u] = part(place);
  return span.at(u);
}

Vec3 SmoothPath::slope(double place) const {
  const auto [span, u] = part(place);
  return span.slope(u);
}

// Newton's steps on the slope of the distance's square, kept between the looks beside the nearest one.
double SmoothPath::Span::nearest(const Vec3& point) const {
  const auto square = [&](double u) { return length_squared(at(u) - point); };
  int best = 0;
  double least = square(0.0);
  for (int i = 1; i <= kLooks; ++i) {
    const double here = square(double(i) / kLooks);
    if (here < least) least = here, best = i;
  }
  double low = std::max(best - 1, 0) / double(kLooks), high = std::min(best + 1, kLooks) / double(kLooks);
  double u = double(best) / kLooks;
  for (int round = 0; round < kRounds && high - low > kThere; ++round) {
    const Vec3 off = at(u) - point, along = slope(u);
    const double rises = dot(off, along), turns = dot(along, along) + dot(off, bend(u));
    (rises > 0.0 ? high : low) = u;
    const double next = turns > 0.0 ? u - rises / turns : 0.5 * (low + high);
    const double kept = next >= low && next <= high ? next : 0.5 * (low + high);
    if (std::abs(kept - u) < kThere) break;
    u = kept;
  }
  return u;
}

double SmoothPath::nearest(const Vec3& point) const {
  double place = 0.0, least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < spans_.size(); ++i) {
    const Span& span = spans_[i];
    if (length(point - span.centre) - span.radius >= least) continue;
    const double u = span.nearest(point), distance = length(span.at(u) - point);
    if (distance >= least) continue;
    least = distance;
    place = double(i) + u;
  }
  return place;
}

double SmoothPath::extent() const {
  double most = 0.0;
  for (const Span& span : spans_) most = std::max(most, length(span.centre) + span.radius);
  return most;
}

}  // namespace lagniappe
