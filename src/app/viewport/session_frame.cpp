// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/session_frame.h"

#include <algorithm>
#include <cmath>

#include "theme/state_colours.h"
#include "theme/theme.h"
#include "viewport/carriage.h"
#include "viewport/line_pen.h"
#include "viewport/zone_lines.h"

namespace lagniappe::app {
namespace {

constexpr double kNearGhost = 0.03;     // m.
constexpr double kLongestShadow = 6.0;  // m above ground at which the shadow is gone.

std::vector<LineVertex> mark_lines(const Course& course, const Vec3& origin_C) {
  std::vector<LineVertex> lines;
  const QColor c = theme::moss();
  const auto line = [&](const Vec3& a, const Vec3& b) {
    for (const Vec3& p : {a - origin_C, b - origin_C}) {
      lines.push_back(
          {{float(p.x), float(p.y), float(p.z)}, {float(c.redF()), float(c.greenF()), float(c.blueF()), 1.0f}});
    }
  };
  for (const Mark& mark : course.marks) {
    if (mark.id != "start") continue;
    const Vec3 at = mark.at_C + Vec3(0, 0.02, 0), ahead(-std::sin(mark.facing), 0, -std::cos(mark.facing)),
               side(-ahead.z, 0, ahead.x);
    for (int i = 0; i < 32; ++i) {
      const auto rim = [&](int k) {
        return at + ahead * (0.5 * std::cos(k * kPi / 16)) + side * (0.5 * std::sin(k * kPi / 16));
      };
      line(rim(i), rim(i + 1));
    }
    line(at, at + ahead * 0.9);
    line(at + ahead * 0.9, at + ahead * 0.72 + side * 0.12);
    line(at + ahead * 0.9, at + ahead * 0.72 - side * 0.12);
  }
  return lines;
}

glm::dmat4 to_course(const RigidPose& pose) {
  glm::dmat4 m = glm::mat4_cast(pose.rotation_CP);
  m[3] = glm::dvec4(pose.position_C, 1.0);
  return m;
}

std::optional<DrawnFrame::Shadow> shadow_of(const DriveSession& session, const Pose& pose) {
  const Vec3 up = pose.up_C(), from = pose.foot_C + up * 0.4;
  const auto hit = session.place()->world.cast_ray(from, -up * (kLongestShadow + 0.4), session.moment());
  if (!hit) return std::nullopt;
  const double height = std::max(hit->hit.fraction * (kLongestShadow + 0.4) - 0.4, 0.0);
  const double near = 1.0 - height / kLongestShadow;
  return DrawnFrame::Shadow{hit->hit.point_C, hit->hit.normal_C,
                            session.shown_profile().capsule.radius * (1.25 + 0.6 * (1.0 - near)),
                            0.5 * near * near};
}

// Other figures, in the colours of their ways.
void add_ghosts(const DriveSession& session, const Ghosts& ghosts, DrawnFrame& frame) {
  for (std::size_t g = 0; g < ghosts.size(); ++g) {
    const Recording& ghost = *ghosts[g]->recording;
    const std::size_t tick = ghost_tick(session, *ghosts[g]);
    const Pose pose = interpolate(ghost.run.state(tick), ghost.run.state(tick), 1.0);
    if (length(pose.foot_C - session.current().foot_C) < kNearGhost) continue;  // Not told apart anyway.
    for (FigurePart part : figure_parts(pose, carriage_at(ghost, session.place()->world, tick, pose))) {
      part.colour = theme::ghost_style(g).colour.lighter(125);
      frame.ghosts.push_back(part);
    }
  }
}

}  // namespace

DrawnFrame session_frame(const DriveSession& session, const LookedFrom& from, const FrameExtras& extras,
                         const QSize& pixels, bool flipped) {
  DrawnFrame frame;
  frame.eye = from.eye;
  frame.vertical_field = from.field;
  frame.pixels = pixels;
  frame.flipped = flipped;
  frame.grid = extras.grid;
  const theme::Colours& colours = theme::colours();
  frame.lamp = QVector3D(float(colours.view_red), float(colours.view_green), float(colours.view_blue));
  if (session.place() == nullptr) return frame;
  const Pose pose = session.pose();
  if (from.with_figure) frame.figure = figure_parts(pose, drawn_carriage(session, pose));
  frame.shadow = shadow_of(session, pose);
  for (const SceneMesh::Mover& mover : session.place()->drawn.movers)
    frame.movers.push_back(
        to_course(session.place()->world.motion_of(mover.piece)->pose_at(session.moment().time)));
  const Vec3 origin = session.place()->drawn.origin_C;
  frame.overlay = overlay_lines(session, extras.overlays, origin);
  frame.trail = extras.trail.lines;
  const auto zones = zone_lines(session, origin);
  frame.overlay.insert(frame.overlay.end(), zones.begin(), zones.end());
  if (extras.besides) {
    LinePen pen(frame.overlay, origin);
    extras.besides(pen);
  }
  const auto pointed_at = highlight_lines(session, extras.highlight, origin);
  frame.overlay.insert(frame.overlay.end(), pointed_at.begin(), pointed_at.end());
  add_ghosts(session, extras.ghosts, frame);
  frame.marks = mark_lines(session.place()->course, origin);
  return frame;
}

}  // namespace lagniappe::app
