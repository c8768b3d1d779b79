// SPDX-License-Identifier: GPL-3.0-or-later
// The capsule at a wall, and what it does with each height of its rim, to scale.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

class MantleDrawing : public CardDrawing {
 public:
  int height() const override { return 226; }

  Extent extent(const Profile& p) const override {
    const double tall = p.capsule.height;
    return {-(p.mantle.reach + 2.0 * p.capsule.radius + 0.35 * tall),
            std::max(p.mantle.longest_vault, 0.3 * tall) + 1.05 * tall, -0.12 * tall,
            std::max(with_jump(p) + 0.25 * tall, 1.1 * tall), true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const Extent e = extent(p);
    const Values::Mantle& m = p.mantle;
    const double tall = p.capsule.height, thin = m.longest_vault, step = p.ground.highest_step;
    sketch.line({{e.left, 0.0}, {0.0, 0.0}, {0.0, m.highest}, {e.right, m.highest}}, Sketch::Ink::Solid);
    sketch.capsule({-(m.reach + p.capsule.radius), 0.0}, p.capsule.radius, tall, Sketch::Ink::Now);
    sketch.dimension({-m.reach, 0.62 * tall}, {0.0, 0.62 * tall}, metres_text(m.reach));
    const double right = std::max(thin, 0.3 * tall) + 0.2 * tall;
    if (thin > 0.0) {
      sketch.line({{thin, 0.0}, {thin, m.highest}}, Sketch::Ink::Faint);
      sketch.label({thin, m.highest + 0.1}, QObject::tr("thinner: over"), Sketch::Ink::Dimension);
    }
    sketch.line({{0.0, m.lowest}, {right + 0.1, m.lowest}}, Sketch::Ink::Faint);
    sketch.dimension({right, m.lowest}, {right, m.highest},
                     QString("%1\u2013%2").arg(m.lowest, 0, 'f', 2).arg(metres_text(m.highest)));
    sketch.line({{0.0, with_jump(p)}, {right + 0.1, with_jump(p)}}, Sketch::Ink::Faint);
    sketch.label({0.0, with_jump(p)}, QObject::tr("with a jump %1").arg(metres_text(with_jump(p))));
    if (m.lowest > step + 0.005) {
      sketch.area({{0.0, step}, {right, step}, {right, m.lowest}, {0.0, m.lowest}}, Sketch::Ink::Warning);
      sketch.label({right, 0.5 * (step + m.lowest)}, QObject::tr("neither step nor mantle"),
                   Sketch::Ink::Warning);
    }
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    const Values::Mantle& m = p.mantle;
    sketch.line({{0.0, m.lowest}, {0.2 * p.capsule.height, m.lowest}}, Sketch::Ink::Reference);
    sketch.line({{0.0, m.highest}, {0.5 * p.capsule.height, m.highest}}, Sketch::Ink::Reference);
    sketch.line({{-m.reach, 0.0}, {-m.reach, 0.5 * p.capsule.height}}, Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    return {
        {"lowest", {0.0, p.mantle.lowest}, QObject::tr("Lowest rim that is mantled"), "mantle.lowest"},
        {"highest", {0.0, p.mantle.highest}, QObject::tr("Highest rim that is mantled"), "mantle.highest"},
        {"reach", {-p.mantle.reach, 0.0}, QObject::tr("How far from the wall hands reach it"), "mantle.reach"},
        {"vault",
         {p.mantle.longest_vault, p.mantle.highest},
         QObject::tr("What is thinner is gone over"),
         "mantle.longest_vault"}};
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    Profile p = profile;
    if (handle == 0) put(p, "mantle.lowest", to.y);
    if (handle == 1) put(p, "mantle.highest", to.y);
    if (handle == 2) put(p, "mantle.reach", -to.x);
    if (handle == 3) put(p, "mantle.longest_vault", to.x);
    return p;
  }

 private:
  // m: a rim that is mantled at the top of a jump.
  static double with_jump(const Profile& p) { return p.mantle.highest + p.jump.height; }
};

}  // namespace

std::unique_ptr<CardDrawing> mantle_drawing() { return std::make_unique<MantleDrawing>(); }

}  // namespace lagniappe::app
