// SPDX-License-Identifier: GPL-3.0-or-later
// The capsule where a guard holds it at a rim, with the drop beside it, to scale.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

class LedgeDrawing : public CardDrawing {
 public:
  int height() const override { return 150; }

  Extent extent(const Profile& p) const override {
    const double below = std::max(counted_drop(p), 0.2 * p.capsule.height);
    return {-std::max(slows_from(p) + 0.3 * p.capsule.height, 1.2 * p.capsule.height), 0.9 * p.capsule.height,
            -below - 0.16 * p.capsule.height, 1.06 * p.capsule.height, true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const Extent e = extent(p);
    const double least = p.ledge.least_reach, drop = counted_drop(p);
    sketch.line({{e.left, 0.0}, {0.0, 0.0}, {0.0, e.bottom}}, Sketch::Ink::Solid);
    sketch.capsule({-least, 0.0}, p.capsule.radius, p.capsule.height, Sketch::Ink::Now);
    sketch.line({{-least, 0.0}, {-least, 0.5 * p.capsule.height}}, Sketch::Ink::Faint);
    sketch.dimension({-least, 0.5 * p.capsule.height}, {0.0, 0.5 * p.capsule.height},
                     QObject::tr("keeps %1").arg(metres_text(least)));
    const double right = 0.35 * p.capsule.height;
    sketch.line({{0.0, -drop}, {right + 0.15 * p.capsule.height, -drop}}, Sketch::Ink::Faint);
    sketch.line({{0.0, 0.0}, {right + 0.15 * p.capsule.height, 0.0}}, Sketch::Ink::Faint);
    sketch.dimension({right, -drop}, {right, 0.0}, QObject::tr("walks down %1").arg(metres_text(drop)));
    if (p.ledge.reach_time > 0.0) {
      sketch.line({{-slows_from(p), 0.0}, {-slows_from(p), 0.12 * p.capsule.height}}, Sketch::Ink::Warning);
      sketch.label({-slows_from(p), 0.12 * p.capsule.height}, QObject::tr("slows from here"),
                   Sketch::Ink::Warning);
    }
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    const double least = p.ledge.least_reach, drop = counted_drop(p);
    sketch.line({{-least, 0.0}, {-least, 0.5 * p.capsule.height}}, Sketch::Ink::Reference);
    sketch.line({{0.0, -drop}, {0.3 * p.capsule.height, -drop}}, Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    return {{"keep",
             {-p.ledge.least_reach, 0.0},
             QObject::tr("How far the foot stays from a rim"),
             "ledge.least_reach"},
            {"drop",
             {0.0, -p.ledge.deepest_drop},
             QObject::tr("How far ground may drop away and still be walked on"),
             "ledge.deepest_drop"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    if (handle == 0) put(p, "ledge.least_reach", -to.x);
    if (handle == 1) put(p, "ledge.deepest_drop", -to.y);
    return p;
  }

 private:
  static double counted_drop(const Profile& p) {
    return std::max(p.ledge.deepest_drop, p.ground.snap_distance);
  }
  static double slows_from(const Profile& p) {
    return p.ledge.least_reach + p.ledge.reach_time * p.ground.speed;
  }
};

}  // namespace

std::unique_ptr<CardDrawing> ledge_drawing() { return std::make_unique<LedgeDrawing>(); }

}  // namespace lagniappe::app
