// SPDX-License-Identifier: GPL-3.0-or-later
// Puts lines, arcs, arrows and outlines together for the view.
#pragma once

#include <QColor>
#include <algorithm>
#include <cmath>
#include <vector>

#include "lagniappe/shapes.h"
#include "session/scene_mesh.h"

namespace lagniappe::app {

class LinePen {
 public:
  LinePen(std::vector<LineVertex>& out, const Vec3& origin_C) : out_(out), origin_(origin_C) {}

  void line(const Vec3& a, const Vec3& b, const QColor& colour) {
    for (const Vec3& p : {a, b}) {
      const Vec3 at = p - origin_;
      out_.push_back(
          {{float(at.x), float(at.y), float(at.z)},
           {float(colour.redF()), float(colour.greenF()), float(colour.blueF()), float(colour.alphaF())}});
    }
  }
  // An arc from angle 0 to `turn` about `centre`, from u towards v.
  void arc(const Vec3& centre, const Vec3& u, const Vec3& v, double turn, const QColor& colour) {
    const int parts = std::max(4, int(std::abs(turn) / radians(15.0)));
    for (int i = 0; i < parts; ++i) {
      const double a = turn * i / parts, b = turn * (i + 1) / parts;
      line(centre + u * std::cos(a) + v * std::sin(a), centre + u * std::cos(b) + v * std::sin(b), colour);
    }
  }
  void arrow(const Vec3& from, const Vec3& along, const QColor& colour) {
    const double size = length(along);
    if (size < 1e-6) return;
    const Vec3 d = along / size, side = across_any(d), other = cross(d, side), tip = from + along;
    const double head = std::min(0.14, 0.4 * size);
    line(from, tip, colour);
    for (const Vec3& s : {side, -side, other, -other}) line(tip, tip - d * head + s * (0.45 * head), colour);
  }
  // A cross of three strokes: a contact point, told from arrows by its shape.
  void star(const Vec3& at, double size, const QColor& colour) {
    for (const Vec3& d : {Vec3(1, 0, 0), Vec3(0, 1, 0), Vec3(0, 0, 1)})
      line(at - d * size, at + d * size, colour);
  }
  void capsule(const Segment& axis, double radius, const QColor& colour) {
    const Vec3 up = unit_or(axis.b_C - axis.a_C, Vec3(0, 1, 0)), u = across_any(up), v = cross(up, u);
    for (const Vec3& end : {axis.a_C, axis.b_C}) arc(end, u * radius, v * radius, 2.0 * kPi, colour);
    for (const Vec3& x : {u, v}) {
      arc(axis.b_C, x * radius, up * radius, kPi, colour);
      arc(axis.a_C, x * radius, -up * radius, kPi, colour);
      for (const double s : {-1.0, 1.0}) line(axis.a_C + x * (s * radius), axis.b_C + x * (s * radius), colour);
    }
  }
  static Vec3 across_any(const Vec3& unit) {
    return glm::normalize(cross(unit, std::abs(unit.x) < 0.7 ? Vec3(1, 0, 0) : Vec3(0, 0, 1)));
  }

 private:
  std::vector<LineVertex>& out_;
  Vec3 origin_;
};

}  // namespace lagniappe::app
