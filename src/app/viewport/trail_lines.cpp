// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/trail_lines.h"

#include <algorithm>
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

QString text_of(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

// What each tick of a stretch has, once; the colours and their legend come from it.
class TrailColours {
 public:
  TrailColours(const Recording& recording, const TrailChoice& choice, const Stretch& ticks)
      : recording_(recording),
        ticks_(ticks),
        by_state_(choice.colour_by == "state"),
        signal_(find_signal(choice.colour_by.toStdString())) {
    if (signal_ == nullptr) return;
    for (std::size_t t = ticks.first; t <= ticks.last; ++t)
      values_.push_back(value_at(*signal_, recording.run, recording.take, recording.place->world, t));
    const auto [low, high] = std::minmax_element(values_.begin(), values_.end());
    low_ = *low;
    span_ = *high - *low;
  }
  QColor at(std::size_t tick) const {
    if (by_state_)
      return theme::state_colour(recording_.run.state(tick).state, chart_of(recording_.take.profile));
    if (signal_ == nullptr) return theme::shown_style().colour;
    return ramp((values_[tick - ticks_.first] - low_) / std::max(span_, 1e-9));
  }
  TrailLegend legend() const {
    if (by_state_) return state_legend();
    if (signal_ == nullptr) return {};
    TrailLegend legend{"Trail by " + text_of(signal_->name), {}};
    for (int i = kRampParts; i-- > 0;) {
      const double share = double(i) / (kRampParts - 1);
      legend.rows.push_back(
          {ramp(share), QString("%1 %2").arg(low_ + span_ * share, 0, 'f', 2).arg(text_of(signal_->unit))});
    }
    return legend;
  }

 private:
  TrailLegend state_legend() const {
    const StateChart& chart = chart_of(recording_.take.profile);
    std::set<StateId> states;
    for (std::size_t t = ticks_.first; t <= ticks_.last; ++t) states.insert(recording_.run.state(t).state);
    TrailLegend legend{"Trail by state", {}};
    for (const StateId s : states)
      legend.rows.push_back({theme::state_colour(s, chart), text_of(chart.name_of(s))});
    return legend;
  }

  const Recording& recording_;
  Stretch ticks_;
  bool by_state_;
  const Signal* signal_;
  std::vector<double> values_;
  double low_ = 0.0, span_ = 0.0;
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

void draw_figures(LinePen& pen, const Recording& shown, const Stretch& ticks, int every) {
  QColor colour = theme::ink2();
  colour.setAlphaF(0.45F);
  for (std::size_t t = ticks.first; every > 0 && t <= ticks.last; ++t) {
    if (t % std::size_t(every) == 0) draw_capsule(pen, shown, t, colour);
  }
}

}  // namespace

const Trail::Picture& Trail::of(const DriveSession& session, const TrailChoice& choice, const Ghosts& ghosts,
                                const Vec3& origin_C) {
  if (!choice.shown || !session.has_shown()) {
    of_.reset();
    return picture_ = {};
  }
  const Of wanted{session.revision(), session.playhead(), session.shown().run.ticks(), choice, ghosts,
                  origin_C,           theme::light()};
  if (of_ == wanted) return picture_;
  of_ = wanted;
  picture_ = {};
  LinePen pen(picture_.lines, origin_C);
  const Recording& shown = session.shown();
  const double now = seconds_at_playhead(session);
  const Stretch ticks = around(shown.run, now, choice.seconds);
  const TrailColours colours(shown, choice, ticks);
  picture_.legend = colours.legend();
  draw_way(pen, shown, ticks, colours);
  draw_figures(pen, shown, ticks, choice.onion_skins);
  for (std::size_t g = 0; g < ghosts.size(); ++g) {
    const Recording& ghost = *ghosts[g]->recording;
    const QColor colour = theme::ghost_style(g).colour;
    draw_ghost_way(pen, ghost.run, around(ghost.run, now, choice.seconds), colour);
    draw_capsule(pen, ghost, ghost_tick(session, *ghosts[g]), colour);
  }
  return picture_;
}

std::size_t ghost_tick(const DriveSession& session, const Ghost& ghost) {
  return tick_at(session.shown().run, session.playhead(), ghost.recording->run);
}

}  // namespace lagniappe::app
