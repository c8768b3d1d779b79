// SPDX-License-Identifier: GPL-3.0-or-later
// A riser and a tread on the right, a drop on the left, to scale with the capsule between them.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

struct Places {
  double edge, riser;  // Where the ground drops, and where it rises.
};
Places places(const Profile& p) { return {-2.2 * p.capsule.radius, 1.25 * p.capsule.radius}; }

class StepDrawing : public CardDrawing {
 public:
  int height() const override { return 158; }

  Extent extent(const Profile& p) const override {
    const double top = std::max(1.06 * p.capsule.height, p.ground.highest_step + 0.3);
    const double low = -std::max(p.ground.snap_distance, 0.1) - 0.14 * p.capsule.height;
    const double tread = std::max(p.ground.shortest_tread, 0.2);
    return {places(p).edge - 0.85 * p.capsule.height, places(p).riser + tread + 0.95 * p.capsule.height, low,
            top, true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const auto [edge, riser] = places(p);
    const double rise = p.ground.highest_step, tread = p.ground.shortest_tread, drop = p.ground.snap_distance;
    const Extent e = extent(p);
    sketch.line({{e.left, -drop},
                 {edge, -drop},
                 {edge, 0.0},
                 {riser, 0.0},
                 {riser, rise},
                 {riser + tread, rise},
                 {riser + tread, rise + 0.5 * p.capsule.height}},
                Sketch::Ink::Solid);
    sketch.capsule({0.0, 0.0}, p.capsule.radius, p.capsule.height, Sketch::Ink::Now);
    const double right = riser + tread + 0.3 * p.capsule.height;
    sketch.line({{riser, 0.0}, {right + 0.1, 0.0}}, Sketch::Ink::Faint);
    sketch.line({{riser + tread, rise}, {right + 0.1, rise}}, Sketch::Ink::Faint);
    sketch.dimension({right, 0.0}, {right, rise}, QObject::tr("step %1").arg(metres_text(rise)));
    sketch.label({riser + 0.5 * tread, rise}, QObject::tr("tread %1").arg(metres_text(tread)));
    const double left = edge - 0.3 * p.capsule.height;
    sketch.line({{edge, 0.0}, {left - 0.1, 0.0}}, Sketch::Ink::Faint);
    sketch.dimension({left, -drop}, {left, 0.0}, QObject::tr("snap %1").arg(metres_text(drop)));
    // How sharply the ground may fall away at speed.
    const double reach = 0.9 * p.capsule.height;
    const Vec2 crest(edge - reach * std::cos(p.ground.crest_angle), -reach * std::sin(p.ground.crest_angle));
    if (p.ground.crest_angle < radians(89.0) && crest.y > e.bottom)
      sketch.line({{edge, 0.0}, crest}, Sketch::Ink::Warning);
    sketch.label({edge, 0.35 * p.capsule.height},
                 QObject::tr("crest %1°").arg(degrees(p.ground.crest_angle), 0, 'f', 0), Sketch::Ink::Warning);
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    const auto [edge, riser] = places(p);
    const double rise = p.ground.highest_step, tread = p.ground.shortest_tread, drop = p.ground.snap_distance;
    sketch.line({{edge - 1.2, -drop}, {edge, -drop}, {edge, 0.0}}, Sketch::Ink::Reference);
    sketch.line({{riser, 0.0}, {riser, rise}, {riser + tread, rise}, {riser + tread, rise + 0.3}},
                Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    const auto [edge, riser] = places(p);
    return {{"step",
             {riser, p.ground.highest_step},
             QObject::tr("Highest riser that is stepped onto"),
             "ground.highest_step"},
            {"tread",
             {riser + p.ground.shortest_tread, p.ground.highest_step + 0.25 * p.capsule.height},
             QObject::tr("What must be clear above a riser"),
             "ground.shortest_tread"},
            {"snap",
             {edge, -p.ground.snap_distance},
             QObject::tr("How far the ground may drop away and still be followed"),
             "ground.snap_distance"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    if (handle == 0) put(p, "ground.highest_step", to.y);
    if (handle == 1) put(p, "ground.shortest_tread", to.x - places(p).riser);
    if (handle == 2) put(p, "ground.snap_distance", -to.y);
    return p;
  }
};

}  // namespace

std::unique_ptr<CardDrawing> step_drawing() { return std::make_unique<StepDrawing>(); }

}  // namespace lagniappe::app
