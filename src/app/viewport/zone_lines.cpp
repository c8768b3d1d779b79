// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/zone_lines.h"

#include "lagniappe/handling.h"
#include "lagniappe/launch.h"
#include "lagniappe/profile.h"
#include "lagniappe/turns.h"
#include "theme/theme.h"
#include "viewport/line_pen.h"

namespace lagniappe::app {
namespace {

constexpr int kParts = 32;                // Of a throw's way.
constexpr double kStroke = 0.12;          // m of arrow for a m/s of air.
constexpr double kNearMark = 0.75;        // m from its end in which a way that meets something has arrived.
constexpr double kLongestPreview = 10.0;  // s.

// Draws in a zone's own frame.
struct ZonePen {
  LinePen& pen;
  const RigidPose& frame;
  QColor colour;

  void line(const Vec3& a, const Vec3& b) { pen.line(frame.point(a), frame.point(b), colour); }
  void arc(const Vec3& centre, const Vec3& u, const Vec3& v, double turn) {
    pen.arc(frame.point(centre), frame.rotation_CP * u, frame.rotation_CP * v, turn, colour);
  }
  void circle(double y, double radius) { arc({0, y, 0}, Vec3(radius, 0, 0), Vec3(0, 0, radius), 2.0 * kPi); }
  void uprights(double low, double high, double radius) {
    for (const Vec3& side : {Vec3(1, 0, 0), Vec3(-1, 0, 0), Vec3(0, 0, 1), Vec3(0, 0, -1)})
      line(side * radius + Vec3(0, low, 0), side * radius + Vec3(0, high, 0));
  }

  void outline(const zone::Box& s) {
    const Vec3 h = 0.5 * s.size;
    for (const double y : {0.0, s.size.y}) {
      const Vec3 a(-h.x, y, -h.z), b(h.x, y, -h.z), c(h.x, y, h.z), d(-h.x, y, h.z);
      line(a, b), line(b, c), line(c, d), line(d, a);
    }
    for (const double x : {-h.x, h.x}) {
      for (const double z : {-h.z, h.z}) line({x, 0, z}, {x, s.size.y, z});
    }
  }
  void outline(const zone::Cylinder& s) {
    circle(0.0, s.radius);
    circle(s.height, s.radius);
    uprights(0.0, s.height, s.radius);
  }
  void outline(const zone::Ball& s) { outline(zone::Pill{s.radius, 0.0}); }
  void outline(const zone::Pill& s) {
    const double low = s.radius, high = s.radius + s.length;
    circle(low, s.radius);
    if (high > low) circle(high, s.radius), uprights(low, high, s.radius);
    for (const Vec3& side : {Vec3(s.radius, 0, 0), Vec3(0, 0, s.radius)}) {
      arc({0, high, 0}, side, Vec3(0, s.radius, 0), kPi);
      arc({0, low, 0}, side, Vec3(0, -s.radius, 0), kPi);
    }
  }
};

Vec3 middle_of(const ZoneShape& shape) { return bounds(shape).centre(); }

// Strokes on a grid in the zone, as long as the air is fast there now.
void draw_air(LinePen& pen, const Zone& zone, const RigidPose& frame, double time) {
  const Box box = bounds(zone.shape);
  constexpr int kAcross = 3;
  for (int i = 0; i < kAcross * kAcross * kAcross; ++i) {
    const Vec3 share =
        (Vec3(i % kAcross, i / kAcross % kAcross, i / (kAcross * kAcross)) + 0.5) / double(kAcross);
    const Vec3 at = frame.point(box.low_C + box.size() * share), air = wind_at(zone, frame, at, time);
    pen.arrow(at, air * kStroke, theme::sky());
  }
}

// A flag for a checkpoint, a cross for what bars and for what puts home.
void draw_sign(ZonePen& sign, const ZoneEffect& effect, const ZoneShape& shape) {
  const Vec3 at = middle_of(shape);
  if (std::holds_alternative<effect::Checkpoint>(effect)) {
    sign.line(Vec3(0.0), {0, 1.2, 0});
    sign.line({0, 1.2, 0}, {0, 1.0, -0.5});
    sign.line({0, 1.0, -0.5}, {0, 0.8, 0});
  }
  if (std::holds_alternative<effect::Barred>(effect) || std::holds_alternative<effect::SendHome>(effect)) {
    sign.line(at + Vec3(-0.3, 0.0, -0.3), at + Vec3(0.3, 0.0, 0.3));
    sign.line(at + Vec3(-0.3, 0.0, 0.3), at + Vec3(0.3, 0.0, -0.3));
  }
}

// What a throw begins with, and how it is pulled.
struct Start {
  Vec3 foot_C, velocity_C, up_C;
  ThrowPull pull;
  double seconds;
};

std::optional<Start> start_of(const DriveSession& session, const TriangleWorld& world, ZoneId id) {
  const ZoneNow zone = world.zone(id, session.moment().time);
  const auto* launch = std::get_if<effect::Launch>(zone.effect);
  if (launch == nullptr) return std::nullopt;
  const CharacterState& state = session.current();
  const Profile& profile = session.profile();
  Start start{zone.frame.position_C, {}, state.up_C(), {}, 0.0};
  double gravity = profile.gravity;
  if (const auto here = world.surroundings(start.foot_C, session.moment().time).gravity) {
    const Vec3 pull = here->of(gravity);
    gravity = length(pull);
    start.up_C = unit_or(-pull, start.up_C);
  }
  start.pull = {gravity, gravity * profile.jump.fall_factor, profile.terminal_speed};
  if (!launch->to.empty()) {
    const auto way = throw_to(start.foot_C, launch->target_C, start.up_C, launch->apex, start.pull);
    if (!way) return std::nullopt;
    start.velocity_C = way->velocity_C;
    start.seconds = way->seconds;
    return start;
  }
  CharacterState there = state;
  there.foot_C = start.foot_C;
  start.velocity_C = launch_velocity(*launch, zone, there, Vec3(0.0));
  const double rise = dot(start.velocity_C, start.up_C);
  if (rise <= 0.0 || gravity <= 0.0) return std::nullopt;
  const double apex = rise * rise / (2.0 * gravity);
  start.seconds = std::min(rise / gravity + std::sqrt(2.0 * apex / start.pull.fall_gravity), kLongestPreview);
  return start;
}

}  // namespace

QColor zone_colour(const ZoneEffect& effect) {
  if (std::holds_alternative<effect::Launch>(effect)) return theme::gold();
  if (std::holds_alternative<effect::Wind>(effect)) return theme::sky();
  if (std::holds_alternative<effect::Barred>(effect) || std::holds_alternative<effect::SendHome>(effect))
    return theme::brick();
  if (std::holds_alternative<effect::Checkpoint>(effect)) return theme::teal();
  return std::holds_alternative<effect::Signal>(effect) ? theme::ink2() : theme::moss();
}

ThrowPreview throw_preview(const DriveSession& session, ZoneId zone) {
  return throw_preview(session, session.place()->world, zone);
}

ThrowPreview throw_preview(const DriveSession& session, const TriangleWorld& zones, ZoneId zone) {
  ThrowPreview preview;
  const auto start = start_of(session, zones, zone);
  if (!start) return preview;
  const Profile& profile = session.profile();
  Values values = profile;
  values.gravity = start->pull.gravity;
  const Pull pull = pull_on(values, -1, false);
  const double rise = dot(start->velocity_C, start->up_C);
  const Vec3 level = across(start->velocity_C, start->up_C);
  const auto at = [&](double time) {
    return start->foot_C + level * time + start->up_C * rise_for(pull, rise, time).height;
  };
  preview.terminal = -rise_for(pull, rise, start->seconds).speed >= profile.terminal_speed;
  const Vec3 end = at(start->seconds);
  preview.foot_C.push_back(start->foot_C);
  for (int i = 1; i <= kParts && !preview.blocked; ++i) {
    const Vec3 from = preview.foot_C.back(), to = at(start->seconds * i / kParts);
    const double radius = profile.capsule.radius;
    const Segment axis = capsule_axis(from, start->up_C, radius, profile.capsule.height);
    const auto hit = i > 1 ? session.place()->world.sweep(axis, radius, to - from, session.moment())
                           : std::optional<WorldHit>();
    const Vec3 reached = hit ? from + (to - from) * hit->hit.fraction : to;
    preview.foot_C.push_back(reached);
    if (!hit) continue;
    preview.blocked = length(reached - end) > kNearMark;
    break;
  }
  return preview;
}

std::vector<LineVertex> zone_lines(const DriveSession& session, const Vec3& origin_C) {
  std::vector<LineVertex> lines;
  LinePen pen(lines, origin_C);
  const TriangleWorld& world = session.place()->world;
  const double time = session.moment().time;
  for (std::size_t i = 0; i < world.zone_count(); ++i) {
    const auto id = static_cast<ZoneId>(i);
    const Zone& zone = world.zone_as_given(id);
    const RigidPose frame = world.zone(id, time).frame;
    ZonePen drawn{pen, frame, zone_colour(zone.effect)};
    std::visit([&](const auto& shape) { drawn.outline(shape); }, zone.shape);
    draw_sign(drawn, zone.effect, zone.shape);
    draw_air(pen, zone, frame, time);
    const ThrowPreview thrown = throw_preview(session, id);
    for (std::size_t k = 0; k + 1 < thrown.foot_C.size(); ++k)
      pen.line(thrown.foot_C[k], thrown.foot_C[k + 1], theme::gold());
    if (thrown.foot_C.empty()) continue;
    const bool fails = thrown.blocked || thrown.terminal;
    pen.star(thrown.foot_C.back(), fails ? 0.3 : 0.15, fails ? theme::brick() : theme::gold());
  }
  return lines;
}

}  // namespace lagniappe::app
