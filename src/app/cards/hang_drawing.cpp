// SPDX-License-Identifier: GPL-3.0-or-later
// The capsule below a rim, with the heights at which it is caught; and what is done with each height of an
// obstacle.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

class HangDrawing : public CardDrawing {
 public:
  int height() const override { return 210; }

  Extent extent(const Profile& p) const override {
    const double tall = p.capsule.height;
    return {-(p.hang.reach + 2.0 * p.capsule.radius + 0.9 * tall), 0.95 * tall, -0.10 * tall,
            std::max({p.hang.highest, p.hang.hands, tall}) + 0.18 * tall, true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const Extent e = extent(p);
    const Values::Hang& h = p.hang;
    const double tall = p.capsule.height, axis = p.capsule.radius + kGap;
    sketch.line({{0.0, e.bottom}, {0.0, h.hands}, {0.45 * tall, h.hands}}, Sketch::Ink::Solid);
    sketch.capsule({-axis, 0.0}, p.capsule.radius, tall, Sketch::Ink::Now);
    const double left = -axis - p.capsule.radius - 0.18 * tall;
    sketch.line({{left - 0.1 * tall, 0.0}, {-axis, 0.0}}, Sketch::Ink::Faint);
    sketch.dimension({left, 0.0}, {left, h.hands}, QObject::tr("hands %1").arg(metres_text(h.hands)));
    for (const double at : {h.lowest, h.highest})
      sketch.line({{0.0, at}, {0.75 * tall, at}}, Sketch::Ink::Faint);
    sketch.dimension({0.6 * tall, h.lowest}, {0.6 * tall, h.highest},
                     QString("%1\u2013%2").arg(h.lowest, 0, 'f', 2).arg(metres_text(h.highest)));
    sketch.line({{-h.reach, 0.18 * tall}, {-h.reach, 0.42 * tall}}, Sketch::Ink::Faint);
    sketch.dimension({-h.reach, 0.3 * tall}, {0.0, 0.3 * tall}, metres_text(h.reach));
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    const double wide = 0.4 * p.capsule.height;
    for (const double at : {p.hang.lowest, p.hang.hands, p.hang.highest})
      sketch.line({{0.0, at}, {wide, at}}, Sketch::Ink::Reference);
    sketch.line({{-p.hang.reach, 0.0}, {-p.hang.reach, wide}}, Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    return {
        {"lowest", {0.0, p.hang.lowest}, QObject::tr("Lowest rim that catches"), "hang.lowest"},
        {"highest", {0.0, p.hang.highest}, QObject::tr("Highest rim that catches"), "hang.highest"},
        {"hands", {0.45 * p.capsule.height, p.hang.hands}, QObject::tr("Rim over the foot"), "hang.hands"},
        {"reach", {-p.hang.reach, 0.42 * p.capsule.height}, QObject::tr("How far hands reach"), "hang.reach"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    if (handle == 0) put(p, "hang.lowest", to.y);
    if (handle == 1) put(p, "hang.highest", to.y);
    if (handle == 2) put(p, "hang.hands", to.y);
    if (handle == 3) put(p, "hang.reach", -to.x);
    return p;
  }

 private:
  static constexpr double kGap = 0.02;  // m that the body hangs from the wall.
};

// Heights of an obstacle's top over the ground, and what is done with them.
struct Reach {
  QString text;
  double from, to;
};

std::vector<Reach> reaches(const Profile& p) {
  std::vector<Reach> all{{QObject::tr("step"), 0.0, p.ground.highest_step},
                         {QObject::tr("jump"), 0.0, p.jump.height}};
  if (p.mantle.start != Profile::Mantle::Start::Never) {
    all.push_back({QObject::tr("mantle"), p.mantle.lowest, p.mantle.highest});
    all.push_back({QObject::tr("jump and mantle"), p.mantle.lowest, p.mantle.highest + p.jump.height});
  }
  if (p.hang.grasps != Profile::Hang::Catch::Never)
    all.push_back({QObject::tr("jump and hang"), p.hang.lowest, p.hang.highest + p.jump.height});
  return all;
}

// Every height of an obstacle, from the floor up, by what one does with it.
class HeightsDrawing : public CardDrawing {
 public:
  int height() const override { return 150; }

  Extent extent(const Profile& p) const override {
    return {-0.02 * highest(p), 2.6 * highest(p), -0.9, 5.6, false};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const std::vector<Reach> all = reaches(p);
    sketch.line({{0.0, -0.5}, {0.0, 5.3}}, Sketch::Ink::Solid);
    double row = 4.6;
    for (const Reach& reach : all) {
      if (reach.to > reach.from) {
        sketch.area({{reach.from, row - 0.22},
                     {reach.to, row - 0.22},
                     {reach.to, row + 0.22},
                     {reach.from, row + 0.22}},
                    Sketch::Ink::Now);
        sketch.label({reach.to, row}, QString("%1 %2").arg(reach.text, metres_text(reach.to)),
                     Sketch::Ink::Dimension, Vec2(1.05 * highest(p), row));
      }
      row -= 1.0;
    }
    for (const auto& [from, to] : gaps(all))
      sketch.area({{from, -0.5}, {to, -0.5}, {to, 5.3}, {from, 5.3}}, Sketch::Ink::Warning);
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    double row = 4.6;
    for (const Reach& reach : reaches(p)) {
      sketch.line({{reach.to, row - 0.35}, {reach.to, row + 0.35}}, Sketch::Ink::Reference);
      row -= 1.0;
    }
  }

  std::vector<Handle> handles(const Profile&) const override { return {}; }
  Profile pulled(const Profile& profile, std::size_t, const Vec2&) const override { return profile; }

 private:
  static double highest(const Profile& p) {
    double top = 0.1;
    for (const Reach& reach : reaches(p)) top = std::max(top, reach.to);
    return top;
  }

  // Heights below the highest that nothing is done with.
  static std::vector<std::pair<double, double>> gaps(std::vector<Reach> all) {
    std::sort(all.begin(), all.end(), [](const Reach& a, const Reach& b) { return a.from < b.from; });
    std::vector<std::pair<double, double>> open;
    double covered = 0.0;
    for (const Reach& reach : all) {
      if (reach.to <= reach.from) continue;
      if (reach.from > covered + 0.005) open.emplace_back(covered, reach.from);
      covered = std::max(covered, reach.to);
    }
    return open;
  }
};

}  // namespace

std::unique_ptr<CardDrawing> hang_drawing() { return std::make_unique<HangDrawing>(); }
std::unique_ptr<CardDrawing> heights_drawing() { return std::make_unique<HeightsDrawing>(); }

}  // namespace lagniappe::app
