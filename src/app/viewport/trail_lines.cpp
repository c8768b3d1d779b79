// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/trail_lines.h"

#include <set>

#include "theme/state_colours.h"
#include "theme/theme.h"
#include "viewport/line_pen.h"

namespace lagniappe::app {
namespace {

constexpr double kDot = 0.022;    // m.
constexpr double kLift = 0.015;   // m above the foot, so that the way does not lie in the floor.
constexpr double kDashes = 12.0;  // Strokes and gaps in a second, of a ghost's way.
constexpr int kRampParts = 5;     // Of a signal's legend.

Stretch around(const Run& run, double seconds, double reach) {
  const double low = std::max(0.0, (seconds - reach) * run.tick_rate());
  const double high = std::min(double(run.ticks()), (seconds + reach) * run.tick_rate());
  return {std::size_t(low), std::size_t(std::max(low, high))};
}

// Dark to light: told apart without seeing hues.
QColor ramp(double share) {
  const auto mix = [&](int a, int b) { return int(a + (b - a) * std::clamp(share, 0.0, 1.0)); };
  return {mix(0x1C, 0xF2), mix(0x2F, 0xB9), mix(0x5E, 0x45)};
}

struct Bounds {
  double low = 0.0, high = 0.0;
};

Bounds bounds_of(const Signal& signal, const Recording& r, const Stretch& ticks) {
  Bounds b{1e30, -1e30};
  for (std::size_t t = ticks.first; t <= ticks.last; ++t) {
    const double v = value_at(signal, r.run, r.take, r.place->world, t);
    b = {std::min(b.low, v), std::max(b.high, v)};
  }
  return b;
}

// The colour of each tick of the shown way.
class TrailColours {
 public:
  TrailColours(const Recording& recording, const TrailChoice& choice, const Stretch& ticks)
      : recording_(recording),
        by_state_(choice.colour_by == "state"),
        signal_(find_signal(choice.colour_by.toStdString())) {
    if (signal_ != nullptr) bounds_ = bounds_of(*signal_, recording, ticks);
  }
  QColor at(std::size_t tick) const {
    if (by_state_)
      return theme::state_colour(recording_.run.state(tick).state, chart_of(recording_.take.profile));
    if (signal_ == nullptr) return theme::shown_style().colour;
    const double value = value_at(*signal_, recording_.run, recording_.take, recording_.place->world, tick);
    return ramp((value - bounds_.low) / std::max(bounds_.high - bounds_.low, 1e-9));
  }

 private:
  const Recording& recording_;
  bool by_state_;
  const Signal* signal_;
  Bounds bounds_;
};

Vec3 point(const CharacterState& s) { return s.foot_C + s.up_C() * kLift; }

void draw_way(LinePen& pen, const Recording& recording, const Stretch& ticks, const TrailColours& colours) {
  const Run& run = recording.run;
  for (std::size_t t = ticks.first; t <= ticks.last; ++t) {
    const QColor colour = colours.at(t);
    pen.star(point(run.state(t)), kDot, colour);
    if (t > ticks.first && run.state(t).times_put_home == run.state(t - 1).times_put_home)
      pen.line(point(run.state(t - 1)), point(run.state(t)), colour);
  }
}

void draw_ghost_way(LinePen& pen, const Run& run, const Stretch& ticks, const QColor& colour) {
  for (std::size_t t = ticks.first + 1; t <= ticks.last; ++t) {
    if (int(double(t) / run.tick_rate() * kDashes * 2.0) % 2 != 0) continue;
    if (run.state(t).times_put_home == run.state(t - 1).times_put_home)
      pen.line(point(run.state(t - 1)), point(run.state(t)), colour);
  }
}

void draw_capsule(LinePen& pen, const Recording& recording, std::size_t tick, const QColor& colour) {
  const CharacterState& s = recording.run.state(tick);
  const double radius = recording.take.profile.capsule.radius;
  pen.capsule(capsule_axis(s, radius), radius, colour);
}

double seconds_at_playhead(const DriveSession& session) {
  return double(session.playhead()) / session.shown().run.tick_rate();
}

}  // namespace

std::vector<LineVertex> trail_lines(const DriveSession& session, const TrailChoice& choice,
                                    const Ghosts& ghosts, const Vec3& origin_C) {
  std::vector<LineVertex> lines;
  if (!choice.shown || !session.has_shown()) return lines;
  LinePen pen(lines, origin_C);
  const Recording& shown = session.shown();
  const double now = seconds_at_playhead(session);
  const Stretch ticks = around(shown.run, now, choice.seconds);
  draw_way(pen, shown, ticks, TrailColours(shown, choice, ticks));
  for (std::size_t t = ticks.first; choice.onion_skins > 0 && t <= ticks.last; ++t) {
    QColor colour = theme::ink2();
    colour.setAlphaF(0.45F);
    if (t % std::size_t(choice.onion_skins) == 0) draw_capsule(pen, shown, t, colour);
  }
  for (std::size_t g = 0; g < ghosts.size(); ++g) {
    const Recording& ghost = *ghosts[g]->recording;
    const QColor colour = theme::ghost_style(g).colour;
    draw_ghost_way(pen, ghost.run, around(ghost.run, now, choice.seconds), colour);
    draw_capsule(pen, ghost, ghost_tick(session, *ghosts[g]), colour);
  }
  return lines;
}

TrailLegend trail_legend(const DriveSession& session, const TrailChoice& choice) {
  TrailLegend legend;
  if (!choice.shown || choice.colour_by.isEmpty() || !session.has_shown()) return legend;
  const Recording& shown = session.shown();
  const Stretch ticks = around(shown.run, seconds_at_playhead(session), choice.seconds);
  if (choice.colour_by == "state") {
    std::set<StateId> states;
    for (std::size_t t = ticks.first; t <= ticks.last; ++t) states.insert(shown.run.state(t).state);
    for (const StateId s : states)
      legend.rows.push_back(
          {theme::state_colour(s, session.chart()), QString::fromUtf8(session.chart().name_of(s).data())});
    legend.title = "Trail by state";
    return legend;
  }
  const Signal* signal = find_signal(choice.colour_by.toStdString());
  if (signal == nullptr) return legend;
  const Bounds b = bounds_of(*signal, shown, ticks);
  const QString unit = QString::fromUtf8(signal->unit.data(), qsizetype(signal->unit.size()));
  legend.title = "Trail by " + QString::fromUtf8(signal->name.data(), qsizetype(signal->name.size()));
  for (int i = kRampParts; i-- > 0;) {
    const double share = double(i) / (kRampParts - 1);
    legend.rows.push_back(
        {ramp(share), QString("%1 %2").arg(b.low + (b.high - b.low) * share, 0, 'f', 2).arg(unit)});
  }
  return legend;
}

std::size_t ghost_tick(const DriveSession& session, const Ghost& ghost) {
  return tick_at(session.shown().run, session.playhead(), ghost.recording->run);
}

}  // namespace lagniappe::app
