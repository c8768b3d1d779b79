// SPDX-License-Identifier: GPL-3.0-or-later
// The arc of a jump to scale, over the ground at the walking speed.
#include <algorithm>

#include "cards/drawings.h"

namespace lagniappe::app {
namespace {

constexpr int kPoints = 72;
constexpr double kFullShare = 0.98;  // Beyond this the handle would lie under that of the apex.
constexpr double kLeastSpeed = 0.5;  // m/s; slower arcs are drawn as if at this.

class JumpDrawing : public CardDrawing {
 public:
  explicit JumpDrawing(const JumpLocks& locks) : locks_(locks) {}

  int height() const override { return 180; }
  int footer() const override { return 22; }

  Extent extent(const Profile& p) const override {
    const double way = distance(p), after = p.jump.coyote_time * speed(p);
    const double high = p.jump.height + (p.jump.air_jumps > 0 ? jump_height(p, 1) : 0.0);
    return {-0.06 * way, std::max(way * 1.08, after + 0.1), -0.3 * high - 0.05, 1.14 * high, true};
  }

  void draw(Sketch& sketch, const Profile& p) const override {
    const JumpArc arc = jump_arc(p);
    const double v = speed(p), way = distance(p);
    // The late window: ground that is not there any more but still counts.
    const double late = p.jump.coyote_time * v;
    sketch.line({{-0.05 * way, 0.0}, {way * 1.06, 0.0}}, Sketch::Ink::Solid);
    const double apex = v * arc.time_to_apex;
    sketch.line({{apex, 0.0}, {apex, arc.height}}, Sketch::Ink::Faint);
    sketch.label({apex, arc.height},
                 QObject::tr("%1 in %2").arg(metres_text(arc.height), seconds_text(arc.time_to_apex)));
    const double below = -0.16 * p.jump.height;
    sketch.dimension({0.0, below}, {way, below},
                     QObject::tr("%1 in %2").arg(metres_text(way), seconds_text(arc.airtime)));
    if (late > 0.0) {
      const double deep = -0.05 * p.jump.height;
      sketch.line({{0.0, deep}, {late, deep}}, Sketch::Ink::Early);
      sketch.note(window_text(QObject::tr("late"), late, p.jump.coyote_time), Sketch::Ink::Early, false);
    }
    draw_air_jump(sketch, p, arc);
    sketch.line(points(p, 0, -1.0, 0.0, arc.airtime), Sketch::Ink::Now);
    if (p.jump.buffer > 0.0 && arc.airtime > 0.0) {
      const double from = std::max(arc.airtime - p.jump.buffer, 0.0);
      sketch.line(points(p, 0, -1.0, from, arc.airtime), Sketch::Ink::Early);
      sketch.note(window_text(QObject::tr("early"), p.jump.buffer * v, p.jump.buffer), Sketch::Ink::Early,
                  true);
    }
    if (p.jump.lowest_share < 1.0) {
      sketch.line(points(p, 0, 0.0, 0.0, jump_arc(p, 0, 0.0).airtime), Sketch::Ink::Dimension);
      const double low = p.jump.height * p.jump.lowest_share;
      sketch.label({v * jump_arc(p, 0, 0.0).time_to_apex, low}, QObject::tr("tap %1").arg(metres_text(low)),
                   Sketch::Ink::Dimension, Vec2(0.4 * way, 0.25 * arc.height));
    }
  }

  void draw_reference(Sketch& sketch, const Profile& p) const override {
    sketch.line(points(p, 0, -1.0, 0.0, jump_arc(p).airtime), Sketch::Ink::Reference);
  }

  std::vector<Handle> handles(const Profile& p) const override {
    const JumpArc arc = jump_arc(p);
    const double v = speed(p);
    const JumpArc cut = jump_arc(p, 0, 0.0);
    std::vector<Handle> all = {
        {"apex",
         {v * arc.time_to_apex, arc.height},
         QObject::tr("Height; sideways the time to the apex, where that is locked"),
         "jump.height"},
        {"landing",
         {v * arc.airtime, 0.0},
         QObject::tr("Airtime and distance, by the gravity, or by the height where gravity is locked"),
         "gravity"},
        {"let go",
         {v * (p.jump.lowest_share < kFullShare ? cut : arc).time_to_apex *
              (p.jump.lowest_share < kFullShare ? 1.0 : 0.55),
          p.jump.lowest_share * p.jump.height},
         QObject::tr("How high it gets when the button is let go at once"),
         "jump.lowest_share"},
        {"late",
         {p.jump.coyote_time * v, -0.05 * p.jump.height},
         QObject::tr("Coyote time: so long after the edge a press still counts"),
         "jump.coyote_time"}};
    const double early = std::max(arc.airtime - p.jump.buffer, 0.0);
    all.push_back({"early",
                   {early * v, jump_height_at(p, 0, early)},
                   QObject::tr("Jump buffer: a press from here on is remembered"),
                   "jump.buffer"});
    return all;
  }

  Profile pulled(const Profile& profile, std::size_t handle, const Vec2& to) const override {
    const double v = speed(profile);
    Profile p = profile;
    std::optional<Profile> made;
    switch (handle) {
      case 0: {
        const double height = std::clamp(to.y, 0.02, 100.0);
        if (locks_.has(JumpValue::TimeToApex) && !locks_.has(JumpValue::Gravity)) {
          made = with_jump(p, JumpValue::Height, height, JumpValue::TimeToApex, std::max(to.x / v, 0.02));
        } else {
          const JumpValue kept = locks_.has(JumpValue::Gravity)   ? JumpValue::Gravity
                                 : locks_.has(JumpValue::TakeOff) ? JumpValue::TakeOff
                                                                  : JumpValue::Gravity;
          made = with_jump(p, JumpValue::Height, height, kept, jump_value(p, kept));
        }
        break;
      }
      case 1:
        made = with_airtime(p, std::clamp(to.x / v, 0.02, 30.0), locks_.has(JumpValue::Gravity));
        break;
      case 2:
        put(p, "jump.lowest_share", to.y / std::max(p.jump.height, 1e-6));
        break;
      case 3:
        put(p, "jump.coyote_time", to.x / v);
        break;
      default:
        put(p, "jump.buffer", std::max(jump_arc(p).airtime - to.x / v, 0.0));
        break;
    }
    if (!made) return p;
    put(*made, "gravity", made->gravity);
    put(*made, "jump.height", made->jump.height);
    return *made;
  }

 private:
  static double speed(const Profile& p) { return std::max(walking_speed(p), kLeastSpeed); }
  static double distance(const Profile& p) { return std::max(jump_arc(p).airtime * speed(p), 0.1); }

  static std::vector<Vec2> points(const Profile& p, int jump, double released, double from, double to) {
    std::vector<Vec2> all;
    for (int i = 0; i <= kPoints; ++i) {
      const double t = from + (to - from) * i / kPoints;
      all.emplace_back(t * speed(p), std::max(jump_height_at(p, jump, t, released), 0.0));
    }
    return all;
  }

  // "late 0.48 m, 8 ticks": ticks that begin within the window.
  QString window_text(const QString& name, double way, double seconds) const {
    const int ticks = int(std::floor(seconds * tick_rate + 1e-9)) + 1;
    return QObject::tr("%1 %2, %n ticks", nullptr, ticks).arg(name, metres_text(way));
  }

  // The first air jump, from the apex.
  static void draw_air_jump(Sketch& sketch, const Profile& p, const JumpArc& arc) {
    if (p.jump.air_jumps < 1) return;
    std::vector<Vec2> rise;
    const double top = jump_arc(p, 1).time_to_apex;
    for (int i = 0; i <= kPoints; ++i) {
      const double t = top * i / kPoints;
      rise.emplace_back((arc.time_to_apex + t) * speed(p), arc.height + jump_height_at(p, 1, t));
    }
    sketch.line(rise, Sketch::Ink::Dimension);
    sketch.label(rise.back(), QObject::tr("in the air +%1").arg(metres_text(jump_height(p, 1))));
  }

  const JumpLocks& locks_;
};

}  // namespace

std::optional<Profile> with_jump_value(const Profile& profile, const JumpLocks& locks, JumpValue which,
                                       double value) {
  const JumpValue kept = which == locks.first ? locks.second : locks.first;
  return with_jump(profile, which, value, kept, jump_value(profile, kept));
}

std::unique_ptr<CardDrawing> jump_drawing(const JumpLocks& locks) {
  return std::make_unique<JumpDrawing>(locks);
}

}  // namespace lagniappe::app
