// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/overlay_lines.h"

#include "theme/theme.h"
#include "viewport/entry_geometry.h"
#include "viewport/line_pen.h"

namespace lagniappe::app {
namespace {

constexpr double kArrowPerPull = 0.04;   // m drawn per m/s2.
constexpr double kArrowPerSpeed = 0.25;  // m drawn per m/s.
constexpr double kNormalLength = 0.45;   // m.
constexpr double kStepBar = 0.15;        // m, half of the bar at the highest step.
constexpr double kRimShown = 0.5;        // m to each side.
constexpr double kPointedAt = 0.12;      // m, of the rings around what a ledger line is about.

// Where each sweep began, where it would have ended, and where it did end.
void draw_sweeps(LinePen& pen, const Ledger& ledger, const CharacterState& state, double radius) {
  const Vec3 up = state.up_C(), u = LinePen::across_any(up), v = cross(up, u);
  const auto ring = [&](const Vec3& foot, const QColor& colour) {
    pen.arc(foot + up * radius, u * radius, v * radius, 2.0 * kPi, colour);
  };
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* sweep = std::get_if<entry::Sweep>(&entry);
    if (sweep == nullptr) continue;
    const Vec3 ended = sweep->from_C + sweep->motion_C * sweep->fraction;
    ring(sweep->from_C, theme::ink2());
    ring(ended, theme::teal());
    pen.line(sweep->from_C + up * radius, ended + up * radius, theme::teal());
    if (!sweep->hit) continue;
    ring(sweep->from_C + sweep->motion_C, theme::gold());
    pen.arrow(ended + up * radius, sweep->motion_C * (1.0 - sweep->fraction), theme::gold());
  }
}

// A step that was tried stands where the way was blocked: a post as high as the riser was found to be, and a
// bar at the highest that is allowed.
void draw_steps(LinePen& pen, const Ledger& ledger, const CharacterState& before) {
  const Vec3 up = before.up_C(), side = LinePen::across_any(up) * kStepBar, other = cross(up, side);
  Vec3 at = before.foot_C;
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* sweep = std::get_if<entry::Sweep>(&entry);
    if (sweep != nullptr && sweep->hit) at = sweep->point_C - up * dot(sweep->point_C - sweep->from_C, up);
    const auto* step = std::get_if<entry::Step>(&entry);
    if (step == nullptr) continue;
    const QColor colour = step->outcome == entry::Step::Outcome::Taken ? theme::moss() : theme::brick();
    pen.arrow(at, up * std::max(step->rise, 0.02), colour);
    for (const Vec3& d : {side, other})
      pen.line(at + up * step->highest - d, at + up * step->highest + d, theme::gold());
  }
}

void draw_contacts(LinePen& pen, const Ledger& ledger) {
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* sweep = std::get_if<entry::Sweep>(&entry);
    if (sweep == nullptr || !sweep->hit) continue;
    pen.star(sweep->point_C, 0.07, theme::brick());
    pen.arrow(sweep->point_C, sweep->normal_C * kNormalLength, theme::brick());
  }
}

// A stretch of the rim that holds, the line that is kept before it, and how far one is.
void draw_rims(LinePen& pen, const Ledger& ledger, const CharacterState& state) {
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* held = std::get_if<entry::RimHeld>(&entry);
    if (held == nullptr) continue;
    const Vec3 along = cross(state.up_C(), held->inward_C) * kRimShown, kept = held->inward_C * held->least;
    pen.line(held->rim_C - along, held->rim_C + along, theme::brick());
    pen.line(held->rim_C + kept - along, held->rim_C + kept + along, theme::gold());
    pen.line(held->rim_C, held->rim_C + held->inward_C * held->distance, theme::brick());
  }
}

// The way over the rim that it holds, its rim, and where one will stand.
void draw_hold(LinePen& pen, const World& world, const CharacterState& state) {
  if (!state.holding()) return;
  const Hold& hold = state.hold;
  const RigidPose frame = world.piece_frame(hold.piece, state.time);
  const auto at = [&](const glm::vec3& from_P) { return frame.point(hold.at_P + Vec3(from_P)); };
  if (hold.kind == Hold::Kind::Hang) {
    const Vec3 along = frame.rotation_CP * Vec3(hold.rim().along_P) * kRimShown;
    pen.line(at(glm::vec3(0.0f)) - along, at(glm::vec3(0.0f)) + along, theme::moss());
    pen.star(at(glm::vec3(0.0f)), kPointedAt, theme::gold());
    return;
  }
  if (hold.kind == Hold::Kind::Climb) {
    const ClimbHold wall = hold.wall();
    pen.arrow(at(wall.hands_P), frame.rotation_CP * Vec3(wall.normal_P) * kNormalLength, theme::moss());
    pen.star(at(wall.hands_P), kPointedAt, theme::gold());
    return;
  }
  const MantleWay way = hold.way();
  const Vec3 corners[] = {at(glm::vec3(0.0f)), at(way.above_P), at(way.over_P), at(way.to_P)};
  for (int i = 0; i < 3; ++i) pen.line(corners[i], corners[i + 1], theme::sky());
  pen.star(corners[3], kPointedAt, theme::moss());
  pen.star(at(way.rim_P), kPointedAt, theme::gold());
}

// Wherever the character stands, also when no sweep met anything.
void draw_ground_contact(LinePen& pen, const CharacterState& state) {
  if (state.ground.verdict == Verdict::None) return;
  const QColor colour = state.grounded() ? theme::moss() : theme::plum();
  pen.star(state.ground.point_C, 0.07, colour);
  pen.arrow(state.ground.point_C, state.ground.normal_C * kNormalLength, colour);
}

void draw_probe(LinePen& pen, const Ledger& ledger, const CharacterState& state, double radius) {
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* probe = std::get_if<entry::Probe>(&entry);
    if (probe == nullptr) continue;
    const Vec3 up = state.up_C(), end = probe->from_C - up * (probe->hit ? probe->gap : probe->reach);
    const Vec3 u = LinePen::across_any(up), v = cross(up, u);
    for (const Vec3& foot : {probe->from_C, end, probe->from_C - up * probe->reach}) {
      pen.arc(foot + up * radius, u * radius, v * radius, 2.0 * kPi, theme::sky());
    }
    pen.arrow(probe->from_C, -up * probe->reach, theme::sky());
  }
}

// The intent goes on from what it is against: the piece underfoot, or air that moves.
void intend(LinePen& pen, const entry::Intent& intent, const Vec3& from, const CharacterState& state) {
  const Vec3 against = (intent.air_C + state.ground_velocity_C) * kArrowPerSpeed;
  if (against != Vec3(0.0)) pen.arrow(from, against, theme::sky());
  pen.arrow(from + against, intent.velocity_C * kArrowPerSpeed, theme::gold());
}

void draw_arrows(LinePen& pen, const Ledger& ledger, const CharacterState& state) {
  const Vec3 from = state.foot_C + state.up_C() * (0.55 * state.capsule_height);
  for (const LedgerEntry& entry : ledger.entries) {
    if (const auto* intent = std::get_if<entry::Intent>(&entry)) intend(pen, *intent, from, state);
  }
  pen.arrow(from + state.up_C() * 0.06, state.velocity_C * kArrowPerSpeed, theme::teal());
  // Where the course says what pulls.
  pen.arrow(from, Vec3(state.pull_C) * kArrowPerPull, theme::brick());
}

}  // namespace

std::vector<LineVertex> overlay_lines(const DriveSession& session, const OverlayChoice& choice,
                                      const Vec3& origin_C) {
  std::vector<LineVertex> lines;
  // Standing still on a tick, what its ledger says is drawn as well.
  const bool contacts = choice.contacts || !session.live();
  if (!choice.capsule && !contacts && !choice.probe && !choice.arrows) return lines;
  LinePen pen(lines, origin_C);
  const CharacterState& state = session.current();
  const double radius = session.shown_profile().capsule.radius;
  const Ledger ledger = session.last_ledger();
  if (choice.capsule) pen.capsule(capsule_axis(state, radius), radius, theme::plum());
  if (!session.live()) {
    draw_sweeps(pen, ledger, state, radius);
    draw_steps(pen, ledger, state);
  }
  if (contacts) {
    draw_contacts(pen, ledger);
    draw_ground_contact(pen, state);
    draw_rims(pen, ledger, state);
    draw_hold(pen, session.place()->world, state);
  }
  if (choice.probe || !session.live()) draw_probe(pen, ledger, state, radius);
  if (choice.arrows) draw_arrows(pen, ledger, state);
  return lines;
}

std::vector<LineVertex> highlight_lines(const DriveSession& session, const Highlight& highlight,
                                        const Vec3& origin_C) {
  std::vector<LineVertex> lines;
  if (!session.has_shown()) return lines;
  LinePen pen(lines, origin_C);
  const std::vector<Vec3> outline = outline_of(*session.place(), highlight.piece, session.moment().time);
  for (std::size_t i = 0; i + 1 < outline.size(); i += 2) pen.line(outline[i], outline[i + 1], theme::gold());
  if (!highlight.entry) return lines;
  const Ledger ledger = session.last_ledger();
  if (*highlight.entry >= ledger.entries.size()) return lines;
  const Vec3 up = session.current().up_C(), u = LinePen::across_any(up), v = cross(up, u);
  for (const Vec3& place : places_of(ledger.entries[*highlight.entry], session.current())) {
    pen.star(place, kPointedAt, theme::gold());
    for (const double size : {kPointedAt, 1.6 * kPointedAt})
      pen.arc(place, u * size, v * size, 2.0 * kPi, theme::gold());
  }
  return lines;
}

}  // namespace lagniappe::app
