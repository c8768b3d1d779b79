// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/course_scale.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace lagniappe::app {
namespace {

constexpr double kRoom = 0.9;         // Of the picture.
constexpr double kAroundMarks = 6.0;  // m.

double half_size(const field::Uniform& s) { return 0.5 * length(s.size); }
double half_size(const field::Slab& s) { return 0.5 * length(s.size); }
double half_size(const field::Ball& s) { return s.radius; }
double half_size(const field::Pill& s) { return s.radius + 0.5 * s.length; }
double half_size(const field::Ring& s) { return s.radius + s.thickness; }
double half_size(const field::Path& s) {
  double farthest = 0.0;
  for (const Vec3& p : s.line.points()) farthest = std::max(farthest, length(p));
  return farthest + s.radius;
}

struct Shown {
  double left = std::numeric_limits<double>::max(), right = -left, bottom = left, top = -left;

  void add(const Cut& cut, const Vec3& at_C, double around) {
    const Vec3 d = at_C - cut.middle_C;
    const double x = dot(d, cut.across_C), y = dot(d, cut.up_C);
    left = std::min(left, x - around);
    right = std::max(right, x + around);
    bottom = std::min(bottom, y - around);
    top = std::max(top, y + around);
  }
};

}  // namespace

Cut covering(Cut cut, const Course& course, const QSize& size) {
  Shown shown;
  for (const Field& field : course.fields) {
    const double reach = reach_of(field);
    shown.add(cut, field.at_C,
              std::visit([](const auto& s) { return half_size(s); }, field.shape) +
                  (std::isfinite(reach) ? reach : 0.0));
  }
  if (course.fields.empty() || course.gravity) {
    for (const Mark& mark : course.marks) shown.add(cut, mark.at_C, kAroundMarks);
    for (const Zone& zone : course.zones) shown.add(cut, zone.at_C, length(bounds(zone.shape).size()));
  }
  const double wide = shown.right - shown.left, high = shown.top - shown.bottom;
  if (!(wide > 0.0 && high > 0.0)) return cut;
  cut.middle_C +=
      cut.across_C * (0.5 * (shown.left + shown.right)) + cut.up_C * (0.5 * (shown.bottom + shown.top));
  cut.pixels = kRoom * std::min(size.width() / wide, size.height() / high);
  return cut;
}

}  // namespace lagniappe::app
