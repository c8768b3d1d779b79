// SPDX-License-Identifier: GPL-3.0-or-later
// How the look stick answers, and where the third-person eye stands, from above.
#include <algorithm>

#include "cards/drawings.h"
#include "lagniappe/input_frame.h"

namespace lagniappe::app {
namespace {

constexpr int kPoints = 60;

class StickDrawing : public CardDrawing {
 public:
  int height() const override { return 120; }
  Extent extent(const Profile&) const override { return {-0.1, 1.15, -0.18, 1.15, false}; }

  void draw(Sketch& sketch, const Profile& p) const override {
    sketch.line({{0.0, 0.0}, {1.0, 0.0}}, Sketch::Ink::Solid);
    sketch.line({{0.0, 0.0}, {0.0, 1.0}}, Sketch::Ink::Faint);
    sketch.line({{0.0, 0.0}, {1.0, 1.0}}, Sketch::Ink::Faint);
    sketch.area({{0.0, 0.0}, {p.look.dead_zone, 0.0}, {p.look.dead_zone, 1.0}, {0.0, 1.0}},
                Sketch::Ink::Warning);
    sketch.line(outline(p), Sketch::Ink::Now);
    sketch.label({p.look.dead_zone, 0.0},
                 QObject::tr("rest up to %1 %").arg(100.0 * p.look.dead_zone, 0, 'f', 0), Sketch::Ink::Warning);
    sketch.label({1.0, 1.0}, QObject::tr("%1°/s").arg(degrees(p.look.stick_yaw), 0, 'f', 0));
    sketch.label({1.0, 0.0}, QObject::tr("pushed fully"));
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    sketch.line(outline(p), Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    const double middle = 0.5 * (1.0 + p.look.dead_zone);
    return {{"dead zone", {p.look.dead_zone, 0.0}, QObject::tr("Dead zone, of both sticks"), "look.dead_zone"},
            {"power",
             {middle, std::pow(0.5, p.look.stick_power)},
             QObject::tr("Curve of the look stick"),
             "look.stick_power"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    if (handle == 0) put(p, "look.dead_zone", to.x);
    if (handle == 1) put(p, "look.stick_power", std::log(std::clamp(to.y, 1e-3, 0.999)) / std::log(0.5));
    return p;
  }

 private:
  // As the core shapes it.
  static std::vector<Vec2> outline(const Profile& p) {
    Profile::Look unit = p.look;
    unit.stick_pitch = 1.0;
    unit.invert_pitch = false;
    std::vector<Vec2> points;
    for (int i = 0; i <= kPoints; ++i) {
      const double push = double(i) / kPoints;
      points.emplace_back(push, stick_turn_rate(unit, Vec2(0.0, push)).y);
    }
    return points;
  }
};

// From above: the figure, the eye behind it, and what it sees.
class CameraDrawing : public CardDrawing {
 public:
  int height() const override { return 124; }

  Extent extent(const Profile& p) const override {
    const double back = std::max(p.camera.distance, 0.6), side = std::max(std::abs(p.camera.shoulder), 0.2);
    return {-1.25 * back, 0.75 * back + 0.6, -side - 0.35 * back - 0.2, side + 0.35 * back + 0.2, true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const Vec2 eye = place(p);
    const double reach = 0.55 * std::max(p.camera.distance, 0.6);
    sketch.line({{-p.camera.distance, 0.0}, {0.5 * reach, 0.0}}, Sketch::Ink::Faint);
    circle(sketch, {0.0, 0.0}, p.capsule.radius, Sketch::Ink::Now);
    circle(sketch, eye, p.camera.pull_in_radius, Sketch::Ink::Dimension);
    view(sketch, eye, p.camera.field_of_view, reach, Sketch::Ink::Now);
    if (p.camera.widening > 0.0)
      view(sketch, eye, p.camera.field_of_view + p.camera.widening, reach, Sketch::Ink::Warning);
    const double below = -0.3 * std::max(p.camera.distance, 0.6);
    sketch.dimension({-p.camera.distance, below}, {0.0, below}, metres_text(p.camera.distance));
    if (p.camera.shoulder != 0.0)
      sketch.label(eye, QObject::tr("shoulder %1").arg(metres_text(p.camera.shoulder)));
    sketch.label(
        eye + reach * Vec2(std::cos(0.5 * p.camera.field_of_view), std::sin(0.5 * p.camera.field_of_view)),
        QObject::tr("sees %1°").arg(degrees(p.camera.field_of_view), 0, 'f', 0));
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    circle(sketch, place(p), p.camera.pull_in_radius, Sketch::Ink::Reference);
    view(sketch, place(p), p.camera.field_of_view, 0.55 * std::max(p.camera.distance, 0.6),
         Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    const Vec2 eye = place(p);
    const double reach = 0.45 * std::max(p.camera.distance, 0.6), half = 0.5 * p.camera.field_of_view;
    return {{"eye", eye, QObject::tr("Distance behind the eyes; across it the shoulder"), "camera.distance"},
            {"field", eye + reach * Vec2(std::cos(half), -std::sin(half)),
             QObject::tr("Field of view, drawn as it is from bottom to top"), "camera.field_of_view"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    if (handle == 0) {
      put(p, "camera.distance", -to.x);
      put(p, "camera.shoulder", std::abs(to.y) < 0.03 * p.camera.distance ? 0.0 : -to.y);
    } else {
      const Vec2 way = to - place(p);
      put(p, "camera.field_of_view", degrees(2.0 * std::atan2(std::abs(way.y), std::max(way.x, 1e-6))));
    }
    return p;
  }

 private:
  static Vec2 place(const Profile& p) { return {-p.camera.distance, -p.camera.shoulder}; }
  static void circle(Sketch& sketch, const Vec2& centre, double radius, Sketch::Ink ink) {
    std::vector<Vec2> points;
    for (int i = 0; i <= 32; ++i)
      points.push_back(centre + radius * Vec2(std::cos(kPi * i / 16.0), std::sin(kPi * i / 16.0)));
    sketch.line(points, ink);
  }
  static void view(Sketch& sketch, const Vec2& eye, double angle, double reach, Sketch::Ink ink) {
    const double c = std::cos(0.5 * angle), s = std::sin(0.5 * angle);
    sketch.line({eye + reach * Vec2(c, s), eye, eye + reach * Vec2(c, -s)}, ink);
  }
};

}  // namespace

std::unique_ptr<CardDrawing> stick_drawing() { return std::make_unique<StickDrawing>(); }
std::unique_ptr<CardDrawing> camera_drawing() { return std::make_unique<CameraDrawing>(); }

}  // namespace lagniappe::app
