// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/overlay_lines.h"

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kArrowPerSpeed = 0.25;  // m drawn per m/s.
constexpr double kNormalLength = 0.45;   // m.

class Pen {
 public:
  Pen(std::vector<LineVertex>& out, const Vec3& origin_C) : out_(out), origin_(origin_C) {}

  void line(const Vec3& a, const Vec3& b, const QColor& colour) {
    for (const Vec3& p : {a, b}) {
      const Vec3 at = p - origin_;
      out_.push_back(
          {{float(at.x), float(at.y), float(at.z)},
           {float(colour.redF()), float(colour.greenF()), float(colour.blueF()), float(colour.alphaF())}});
    }
  }
  // An arc from angle 0 to `turn` about `centre`, from u towards v.
  void arc(const Vec3& centre, const Vec3& u, const Vec3& v, double turn, const QColor& colour) {
    const int parts = std::max(4, int(std::abs(turn) / radians(15.0)));
    for (int i = 0; i < parts; ++i) {
      const double a = turn * i / parts, b = turn * (i + 1) / parts;
      line(centre + u * std::cos(a) + v * std::sin(a), centre + u * std::cos(b) + v * std::sin(b), colour);
    }
  }
  void arrow(const Vec3& from, const Vec3& along, const QColor& colour) {
    const double size = length(along);
    if (size < 1e-6) return;
    const Vec3 d = along / size, side = across_any(d), other = cross(d, side), tip = from + along;
    const double head = std::min(0.14, 0.4 * size);
    line(from, tip, colour);
    for (const Vec3& s : {side, -side, other, -other}) line(tip, tip - d * head + s * (0.45 * head), colour);
  }
  // A cross of three strokes: a contact point, told from arrows by its shape.
  void star(const Vec3& at, double size, const QColor& colour) {
    for (const Vec3& d : {Vec3(1, 0, 0), Vec3(0, 1, 0), Vec3(0, 0, 1)})
      line(at - d * size, at + d * size, colour);
  }
  void capsule(const Segment& axis, double radius, const QColor& colour) {
    const Vec3 up = unit_or(axis.b_C - axis.a_C, Vec3(0, 1, 0)), u = across_any(up), v = cross(up, u);
    for (const Vec3& end : {axis.a_C, axis.b_C}) arc(end, u * radius, v * radius, 2.0 * kPi, colour);
    for (const Vec3& x : {u, v}) {
      arc(axis.b_C, x * radius, up * radius, kPi, colour);
      arc(axis.a_C, x * radius, -up * radius, kPi, colour);
      for (const double s : {-1.0, 1.0}) line(axis.a_C + x * (s * radius), axis.b_C + x * (s * radius), colour);
    }
  }
  static Vec3 across_any(const Vec3& unit) {
    return glm::normalize(cross(unit, std::abs(unit.x) < 0.7 ? Vec3(1, 0, 0) : Vec3(0, 0, 1)));
  }

 private:
  std::vector<LineVertex>& out_;
  Vec3 origin_;
};

// Where each sweep began, where it would have ended, and where it did end.
void draw_sweeps(Pen& pen, const Ledger& ledger, const CharacterState& state, double radius) {
  const Vec3 up = state.up_C(), u = Pen::across_any(up), v = cross(up, u);
  const auto ring = [&](const Vec3& foot, const QColor& colour) {
    pen.arc(foot + up * radius, u * radius, v * radius, 2.0 * kPi, colour);
  };
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* sweep = std::get_if<entry::Sweep>(&entry);
    if (sweep == nullptr) continue;
    const Vec3 ended = sweep->from_C + sweep->motion_C * sweep->fraction;
    ring(sweep->from_C, theme::kInk2);
    ring(ended, theme::kTeal);
    pen.line(sweep->from_C + up * radius, ended + up * radius, theme::kTeal);
    if (!sweep->hit) continue;
    ring(sweep->from_C + sweep->motion_C, theme::kGold);
    pen.arrow(ended + up * radius, sweep->motion_C * (1.0 - sweep->fraction), theme::kGold);
  }
}

void draw_contacts(Pen& pen, const Ledger& ledger) {
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* sweep = std::get_if<entry::Sweep>(&entry);
    if (sweep == nullptr || !sweep->hit) continue;
    pen.star(sweep->point_C, 0.07, theme::kBrick);
    pen.arrow(sweep->point_C, sweep->normal_C * kNormalLength, theme::kBrick);
  }
}

// Wherever the character stands, also when no sweep met anything.
void draw_ground_contact(Pen& pen, const CharacterState& state) {
  if (state.ground.verdict == Verdict::None) return;
  const QColor colour = state.grounded() ? theme::kMoss : theme::kPlum;
  pen.star(state.ground.point_C, 0.07, colour);
  pen.arrow(state.ground.point_C, state.ground.normal_C * kNormalLength, colour);
}

void draw_probe(Pen& pen, const Ledger& ledger, const CharacterState& state, double radius) {
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* probe = std::get_if<entry::Probe>(&entry);
    if (probe == nullptr) continue;
    const Vec3 up = state.up_C(), end = probe->from_C - up * (probe->hit ? probe->gap : probe->reach);
    const Vec3 u = Pen::across_any(up), v = cross(up, u);
    for (const Vec3& foot : {probe->from_C, end, probe->from_C - up * probe->reach}) {
      pen.arc(foot + up * radius, u * radius, v * radius, 2.0 * kPi, theme::kSky);
    }
    pen.arrow(probe->from_C, -up * probe->reach, theme::kSky);
  }
}

void draw_arrows(Pen& pen, const Ledger& ledger, const CharacterState& state) {
  const Vec3 from = state.foot_C + state.up_C() * (0.55 * state.capsule_height);
  for (const LedgerEntry& entry : ledger.entries) {
    if (const auto* wish = std::get_if<entry::Wish>(&entry))
      pen.arrow(from, wish->velocity_C * kArrowPerSpeed, theme::kGold);
  }
  pen.arrow(from + state.up_C() * 0.06, state.velocity_C * kArrowPerSpeed, theme::kTeal);
}

}  // namespace

std::vector<LineVertex> overlay_lines(const DriveSession& session, const OverlayChoice& choice,
                                      const Vec3& origin_C) {
  std::vector<LineVertex> lines;
  // Standing still on a tick, what its ledger says is drawn as well.
  const bool contacts = choice.contacts || session.paused();
  if (!choice.capsule && !contacts && !choice.probe && !choice.arrows) return lines;
  Pen pen(lines, origin_C);
  const CharacterState& state = session.current();
  const double radius = session.profile().capsule.radius;
  const Ledger ledger = session.last_ledger();
  if (choice.capsule)
    pen.capsule(capsule_axis(state.foot_C, state.up_C(), radius, state.capsule_height), radius, theme::kPlum);
  if (session.paused()) draw_sweeps(pen, ledger, state, radius);
  if (contacts) {
    draw_contacts(pen, ledger);
    draw_ground_contact(pen, state);
  }
  if (choice.probe) draw_probe(pen, ledger, state, radius);
  if (choice.arrows) draw_arrows(pen, ledger, state);
  return lines;
}

}  // namespace lagniappe::app
