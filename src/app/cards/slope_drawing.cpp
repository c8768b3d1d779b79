// SPDX-License-Identifier: GPL-3.0-or-later
// The steepest slope that is walked, as a wedge, and what happens beyond it.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

constexpr double kReach = 2.1;  // m, how long the slope is drawn.

Vec2 along(double angle, double reach) { return {reach * std::cos(angle), reach * std::sin(angle)}; }

class SlopeDrawing : public CardDrawing {
 public:
  Extent extent(const Profile&) const override { return {-1.1, 2.7, -0.55, 2.15, true}; }

  void draw(Sketch& sketch, const Profile& p) const override {
    const double angle = p.ground.steepest_walkable, holds = std::atan(p.skid.friction);
    sketch.line({{-1.0, 0.0}, {2.6, 0.0}}, Sketch::Ink::Solid);
    sketch.line({{0.0, 0.0}, along(angle, kReach)}, Sketch::Ink::Now);
    sketch.area({{0.0, 0.0}, along(angle, kReach), {kReach * std::cos(angle), 0.0}}, Sketch::Ink::Now);
    std::vector<Vec2> arc;
    for (int i = 0; i <= 20; ++i) arc.push_back(along(angle * i / 20.0, 0.7));
    sketch.line(arc, Sketch::Ink::Dimension);
    sketch.label(along(0.45 * angle, 0.75), QObject::tr("walks up %1°").arg(degrees(angle), 0, 'f', 0));
    // Where friction alone holds a skid.
    sketch.line({{0.0, 0.0}, along(holds, 1.5)}, Sketch::Ink::Warning);
    sketch.label({0.9, 0.0}, QObject::tr("a skid rests below %1°").arg(degrees(holds), 0, 'f', 0),
                 Sketch::Ink::Warning);
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    sketch.line({{0.0, 0.0}, along(p.ground.steepest_walkable, kReach)}, Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    return {{"steepest", along(p.ground.steepest_walkable, 0.8 * kReach),
             QObject::tr("Steepest slope that is walked"), "ground.steepest_walkable"},
            {"friction", along(std::atan(p.skid.friction), 1.5), QObject::tr("Friction of a skid"),
             "skid.friction"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    const double angle = std::clamp(std::atan2(std::max(to.y, 0.0), std::max(to.x, 1e-6)), 0.0, radians(89.0));
    if (handle == 0) put(p, "ground.steepest_walkable", degrees(angle));
    if (handle == 1) put(p, "skid.friction", std::tan(angle));
    return p;
  }
};

}  // namespace

std::unique_ptr<CardDrawing> slope_drawing() { return std::make_unique<SlopeDrawing>(); }

}  // namespace lagniappe::app
