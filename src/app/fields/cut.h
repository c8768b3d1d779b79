// SPDX-License-Identifier: GPL-3.0-or-later
// A plane through the course that is looked at square on: metres in it, and pixels of its picture.
#pragma once

#include <QPointF>
#include <QSizeF>

#include "lagniappe/rigid_pose.h"

namespace lagniappe::app {

struct Cut {
  Vec3 middle_C{0.0};  // In the middle of the picture.
  Vec3 across_C{1.0, 0.0, 0.0},
      up_C{0.0, 1.0, 0.0};  // To the right and to the top; unit, square to each other.
  double pixels = 16.0;     // Of a metre.

  Vec3 towards_C() const { return cross(across_C, up_C); }  // Who looks at it.
  double off(const Vec3& p_C) const { return dot(p_C - middle_C, towards_C()); }
  QPointF pixel(const Vec3& p_C, const QSizeF& size) const {
    const Vec3 d = p_C - middle_C;
    return {0.5 * size.width() + dot(d, across_C) * pixels, 0.5 * size.height() - dot(d, up_C) * pixels};
  }
  Vec3 point(const QPointF& pixel, const QSizeF& size) const {
    return middle_C + across_C * ((pixel.x() - 0.5 * size.width()) / pixels) -
           up_C * ((pixel.y() - 0.5 * size.height()) / pixels);
  }

  bool operator==(const Cut&) const = default;
};

// The picture is dragged by so many pixels.
Cut dragged(Cut cut, const QPointF& by);
// What is under `at` stays there.
Cut zoomed(Cut cut, double factor, const QPointF& at, const QSizeF& size);
// About its own up and across, in radians.
Cut turned(Cut cut, double about_up, double about_across);
// Away from who looks, m.
Cut pushed(Cut cut, double metres);
// Upright on `up_C`, with `ahead_C` to the right.
Cut cut_along(const Vec3& middle_C, const Vec3& up_C, const Vec3& ahead_C, double pixels);

}  // namespace lagniappe::app
