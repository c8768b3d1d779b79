// SPDX-License-Identifier: GPL-3.0-or-later
// The capsule at a wall that it climbs, with the gap, the hands and how far a wall may lean, to scale.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

class ClimbDrawing : public CardDrawing {
 public:
  int height() const override { return 196; }

  Extent extent(const Profile& p) const override {
    const double tall = p.capsule.height;
    return {-1.6 * tall - p.climb.gap, 1.3 * tall, -0.08 * tall, 1.3 * tall, true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const Values::Climb& c = p.climb;
    const double tall = p.capsule.height, top = 1.2 * tall, axis = p.capsule.radius + c.gap;
    sketch.line({{0.0, 0.0}, {0.0, top}}, Sketch::Ink::Solid);
    sketch.capsule({-axis, 0.0}, p.capsule.radius, tall, Sketch::Ink::Now);
    sketch.line({{-axis, c.hands}, {0.0, c.hands}}, Sketch::Ink::Faint);
    const double left = -axis - p.capsule.radius - 0.15 * tall;
    sketch.line({{left - 0.1 * tall, 0.0}, {-axis, 0.0}}, Sketch::Ink::Faint);
    sketch.line({{left - 0.1 * tall, c.hands}, {-axis, c.hands}}, Sketch::Ink::Faint);
    sketch.dimension({left, 0.0}, {left, c.hands}, QObject::tr("hands %1").arg(metres_text(c.hands)));
    sketch.line({{0.0, 0.0}, leaning(p, c.most_back)}, Sketch::Ink::Faint);
    sketch.line({{0.0, top}, over_to(p)}, Sketch::Ink::Faint);
    sketch.label(leaning(p, c.most_back), QObject::tr("back %1°").arg(degrees(c.most_back), 0, 'f', 0));
    sketch.label(over_to(p), QObject::tr("over %1°").arg(degrees(c.most_over), 0, 'f', 0));
    sketch.label({0.0, 0.12 * tall}, QObject::tr("gap %1").arg(metres_text(c.gap)));
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    sketch.line({{-p.capsule.radius - p.climb.gap, p.climb.hands}, {0.0, p.climb.hands}},
                Sketch::Ink::Reference);
    sketch.line({{0.0, 0.0}, leaning(p, p.climb.most_back)}, Sketch::Ink::Reference);
    sketch.line({{0.0, 1.2 * p.capsule.height}, over_to(p)}, Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    return {
        {"hands", {0.0, p.climb.hands}, QObject::tr("Where there must be wall"), "climb.hands"},
        {"back", leaning(p, p.climb.most_back), QObject::tr("How far a wall may lean back"), "climb.most_back"},
        {"over", over_to(p), QObject::tr("How far a wall may lean over"), "climb.most_over"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    const double top = 1.2 * p.capsule.height;
    if (handle == 0) put(p, "climb.hands", to.y);
    if (handle == 1) put(p, "climb.most_back", degrees(std::atan2(to.x, std::max(to.y, 1e-6))));
    if (handle == 2) put(p, "climb.most_over", degrees(std::atan2(to.x, std::max(top - to.y, 1e-6))));
    return p;
  }

 private:
  // The end of a wall of the body's height that leans back so far from its foot.
  static Vec2 leaning(const Profile& p, double angle) {
    return Vec2(std::sin(angle), std::cos(angle)) * (1.1 * p.capsule.height);
  }
  // Of one that leans over, from its top down.
  static Vec2 over_to(const Profile& p) {
    return Vec2(0.0, 1.2 * p.capsule.height) +
           Vec2(std::sin(p.climb.most_over), -std::cos(p.climb.most_over)) * (0.8 * p.capsule.height);
  }
};

}  // namespace

std::unique_ptr<CardDrawing> climb_drawing() { return std::make_unique<ClimbDrawing>(); }

}  // namespace lagniappe::app
