// SPDX-License-Identifier: GPL-3.0-or-later
// The capsule in elevation, with the figure inside.
#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

// A figure of the height, as one sees it from the front: head, body, legs.
void draw_figure(Sketch& sketch, double height) {
  const double head = 0.065 * height, shoulders = 0.80 * height, hips = 0.50 * height, wide = 0.11 * height;
  std::vector<Vec2> circle;
  for (int i = 0; i <= 24; ++i)
    circle.emplace_back(head * std::cos(kPi * i / 12.0),
                        height - head * 1.25 + head * std::sin(kPi * i / 12.0));
  sketch.line(circle, Sketch::Ink::Faint);
  sketch.line({{0.0, shoulders}, {0.0, hips}}, Sketch::Ink::Faint);
  sketch.line(
      {{-wide, hips - 0.02 * height}, {-wide, shoulders}, {wide, shoulders}, {wide, hips - 0.02 * height}},
      Sketch::Ink::Faint);
  sketch.line({{-0.6 * wide, 0.0}, {-0.45 * wide, hips}, {0.45 * wide, hips}, {0.6 * wide, 0.0}},
              Sketch::Ink::Faint);
}

class BodyDrawing : public CardDrawing {
 public:
  int height() const override { return 158; }

  Extent extent(const Profile& p) const override {
    const double wide = std::max(1.9 * p.capsule.height, 6.0 * p.capsule.radius);
    return {-0.5 * wide, 0.5 * wide, -0.04 * p.capsule.height, 1.12 * p.capsule.height, true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const auto& c = p.capsule;
    const double side = c.radius + 0.22 * c.height;
    sketch.line({{-2.0 * side, 0.0}, {2.0 * side, 0.0}}, Sketch::Ink::Solid);
    draw_figure(sketch, c.height);
    sketch.capsule({0.0, 0.0}, c.radius, c.height, Sketch::Ink::Now);
    sketch.dimension({-side, 0.0}, {-side, c.height}, metres_text(c.height));
    sketch.line({{0.0, c.height}, {-side, c.height}}, Sketch::Ink::Faint);
    sketch.line({{0.0, c.eye_height}, {side, c.eye_height}}, Sketch::Ink::Faint);
    sketch.label({side, c.eye_height}, QObject::tr("eye %1").arg(metres_text(c.eye_height)));
    sketch.line({{0.0, c.centre_of_mass}, {side, c.centre_of_mass}}, Sketch::Ink::Faint);
    sketch.label({side, c.centre_of_mass}, QObject::tr("mass %1").arg(metres_text(c.centre_of_mass)));
    sketch.label({c.radius, 0.30 * c.height}, QObject::tr("radius %1").arg(metres_text(c.radius)));
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    sketch.capsule({0.0, 0.0}, p.capsule.radius, p.capsule.height, Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    const auto& c = p.capsule;
    return {{"crown", {0.0, c.height}, QObject::tr("Height"), "capsule.height"},
            {"side",
             {c.radius, 0.5 * (c.radius + std::min(c.radius, 0.5 * c.height))},
             QObject::tr("Radius"),
             "capsule.radius"},
            {"eye", {0.0, c.eye_height}, QObject::tr("Height of the eyes"), "capsule.eye_height"},
            {"mass", {0.0, c.centre_of_mass}, QObject::tr("Centre of mass"), "capsule.centre_of_mass"}};
  }

  // Whatever must fit together goes along: the radius under half the height, eyes and mass below the crown.
  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    auto& c = p.capsule;
    if (handle == 0) {
      put(p, "capsule.height", std::max(to.y, 2.0 * c.radius));
      c.eye_height *= c.height / profile.capsule.height;
      c.centre_of_mass *= c.height / profile.capsule.height;
    } else if (handle == 1) {
      put(p, "capsule.radius", std::min(to.x, 0.5 * c.height));
      c.margin = std::min(c.margin, 0.5 * c.radius);
    } else {
      put(p, handle == 2 ? "capsule.eye_height" : "capsule.centre_of_mass", std::min(to.y, c.height));
    }
    return p;
  }
};

}  // namespace

std::unique_ptr<CardDrawing> body_drawing() { return std::make_unique<BodyDrawing>(); }

}  // namespace lagniappe::app
