// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/cut.h"

#include <algorithm>

#include "lagniappe/turns.h"

namespace lagniappe::app {
namespace {

constexpr double kLeastPixels = 0.5, kMostPixels = 2000.0;  // Of a metre.

// Turning on and on leaves no rounding behind.
Cut squared(Cut cut) {
  cut.up_C = glm::normalize(cut.up_C);
  cut.across_C = glm::normalize(cut.across_C - cut.up_C * dot(cut.across_C, cut.up_C));
  return cut;
}

}  // namespace

Cut dragged(Cut cut, const QPointF& by) {
  cut.middle_C += (cut.up_C * by.y() - cut.across_C * by.x()) / cut.pixels;
  return cut;
}

Cut zoomed(Cut cut, double factor, const QPointF& at, const QSizeF& size) {
  const Vec3 kept = cut.point(at, size);
  cut.pixels = std::clamp(cut.pixels * factor, kLeastPixels, kMostPixels);
  cut.middle_C += kept - cut.point(at, size);
  return cut;
}

Cut turned(Cut cut, double about_up, double about_across) {
  const Quat turn = glm::angleAxis(about_up, cut.up_C) * glm::angleAxis(about_across, cut.across_C);
  cut.across_C = turn * cut.across_C;
  cut.up_C = turn * cut.up_C;
  return squared(cut);
}

Cut pushed(Cut cut, double metres) {
  cut.middle_C -= cut.towards_C() * metres;
  return cut;
}

Cut cut_along(const Vec3& middle_C, const Vec3& up_C, const Vec3& ahead_C, double pixels) {
  return squared({middle_C, ahead_C, up_C, pixels});
}

}  // namespace lagniappe::app
