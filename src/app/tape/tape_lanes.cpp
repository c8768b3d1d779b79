// SPDX-License-Identifier: GPL-3.0-or-later
#include "tape/tape_lanes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "tape/event_marks.h"
#include "theme/state_colours.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kMarkSize = 8.0, kClosest = 6.0;  // Pixels: of a mark, between two of a kind.
constexpr double kShortestName = 26.0;             // Pixels a state needs for its name.

// The way that ticks [first, last] take up: tick k ends at k / rate.
QRectF span_of(const LaneView& view, const Stretch& ticks, int rate, double top, double height) {
  const double left = view.x((double(ticks.first) - 1.0) / rate), right = view.x(double(ticks.last) / rate);
  return QRectF(left, top, std::max(right - left, 1.0), height).intersected(view.area.adjusted(0, -1, 0, 1));
}

// Calls `f` for the stretches that can be seen; those that fall on the same pixel are drawn once.
template <typename F>
void each_visible(const LaneView& view, const std::vector<Stretch>& stretches, const Stretch& visible, int rate,
                  const F& f) {
  double drawn_to = -1e9;
  for (std::size_t i = first_from(stretches, visible.first);
       i < stretches.size() && stretches[i].first <= visible.last; ++i) {
    const double right = view.x(double(stretches[i].last) / rate);
    if (right - drawn_to < 0.5) continue;
    f(stretches[i]);
    drawn_to = right;
  }
}

void paint_band(QPainter& painter, const LaneView& view, const std::vector<Stretch>& stretches, int ticks_rate,
                const Stretch& visible, double y, const QPen& pen) {
  painter.setPen(pen);
  each_visible(view, stretches, visible, ticks_rate, [&](const Stretch& s) {
    const QRectF r = span_of(view, s, ticks_rate, y, 1.0);
    painter.drawLine(QPointF(r.left(), y), QPointF(r.right(), y));
  });
}

// Where the pull is felt.
Vec3 middle_of(const CharacterState& state, const Profile& profile) {
  const double share = state.capsule_height / profile.capsule.height;
  return state.foot_C + state.up_C() * (profile.capsule.centre_of_mass * share);
}

}  // namespace

Stretch LaneView::visible(std::size_t ticks, int tick_rate) const {
  const double first = std::clamp(std::floor(from * tick_rate), 0.0, double(ticks));
  const double last = std::clamp(std::ceil(to * tick_rate) + 1.0, 0.0, double(ticks));
  return {static_cast<std::size_t>(first), static_cast<std::size_t>(last)};
}

LanePainter::LanePainter(QCPAxisRect* rect, Paint paint)
    : QCPAbstractPlottable(rect->axis(QCPAxis::atBottom), rect->axis(QCPAxis::atLeft)),
      paint_(std::move(paint)) {}

QCPRange LanePainter::getKeyRange(bool& found, QCP::SignDomain) const {
  found = false;
  return {};
}

QCPRange LanePainter::getValueRange(bool& found, QCP::SignDomain, const QCPRange&) const {
  found = false;
  return {};
}

void LanePainter::draw(QCPPainter* painter) {
  const QCPRange range = keyAxis()->range();
  paint_(*painter, {QRectF(keyAxis()->axisRect()->rect()), range.lower, range.upper});
}

void paint_states(QPainter& painter, const LaneView& view, const TapeIndex& index, const Recording& recording,
                  bool with_names) {
  const StateChart& chart = chart_of(recording.take.profile);
  const int rate = recording.run.tick_rate();
  painter.setFont(theme::text_font(11));
  const Stretch visible = view.visible(index.ticks(), rate);
  const auto& states = index.states();
  auto from =
      std::lower_bound(states.begin(), states.end(), visible.first,
                       [](const TapeIndex::StateStretch& s, std::size_t t) { return s.ticks.last < t; });
  double drawn_to = -1e9;
  for (; from != states.end() && from->ticks.first <= visible.last; ++from) {
    const QRectF r = span_of(view, from->ticks, rate, view.area.top(), view.area.height());
    if (r.right() - drawn_to < 0.5) continue;
    drawn_to = r.right();
    const QColor colour = theme::state_colour(from->state, chart);
    painter.fillRect(r, colour);
    if (r.width() > 3.0) painter.fillRect(QRectF(r.right() - 1.0, r.top(), 1.0, r.height()), theme::sheet());
    if (!with_names || r.width() < kShortestName) continue;
    painter.setPen(theme::ink_on(colour));
    const QString name = QString::fromUtf8(chart.name_of(from->state).data());
    painter.drawText(r.adjusted(5, 0, -2, 0), Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(name, Qt::ElideRight, int(r.width()) - 7));
  }
}

void paint_contacts(QPainter& painter, const LaneView& view, const TapeIndex& index, int rate) {
  const Stretch visible = view.visible(index.ticks(), rate);
  const double row = view.area.height() / kContactRows;
  const double ground = view.area.top() + row - 2.5;
  paint_band(painter, view, index.stretches(Event::OnGround), rate, visible, ground,
             QPen(theme::moss(), 3, Qt::SolidLine, Qt::FlatCap));
  paint_band(painter, view, index.stretches(Event::Carried), rate, visible, ground - 3.5,
             QPen(theme::sky(), 2, Qt::DotLine, Qt::FlatCap));
  painter.setRenderHint(QPainter::Antialiasing);
  for (const EventMark& mark : event_marks()) {
    const double y = view.area.top() + row * (mark.row + 0.5) - (mark.row == 0 ? 2.0 : 0.0);
    double last_x = -1e9;
    each_visible(view, index.stretches(mark.event), visible, rate, [&](const Stretch& s) {
      const double x = view.x(double(s.first) / rate), end = view.x(double(s.last) / rate);
      if (end - x > kMarkSize) {
        painter.setPen(QPen(theme::colours().*mark.colour, 1));
        painter.drawLine(QPointF(x, y), QPointF(std::min(end, view.area.right()), y));
      }
      if (x - last_x < kClosest) return;
      last_x = x;
      if (x >= view.area.left() - 2.0 && x <= view.area.right() + 2.0)
        paint_mark(painter, mark.shape, theme::colours().*mark.colour, {x, y}, kMarkSize);
    });
  }
  painter.setRenderHint(QPainter::Antialiasing, false);
}

void paint_zones(QPainter& painter, const LaneView& view, const TapeIndex& index, const Recording& recording) {
  const int rate = recording.run.tick_rate();
  const Stretch visible = view.visible(index.ticks(), rate);
  painter.setFont(theme::text_font(10));
  // A stroke where one is entered, for those that are left within the tick.
  painter.setPen(QPen(theme::ink2(), 2, Qt::SolidLine, Qt::FlatCap));
  each_visible(view, index.stretches(Event::ZoneEntered), visible, rate, [&](const Stretch& s) {
    const double x = view.x(double(s.first) / rate);
    painter.drawLine(QPointF(x, view.area.top()), QPointF(x, view.area.top() + kZoneRow - 2.0));
  });
  std::vector<double> drawn_to(std::size_t(index.zone_rows()), -1e9);
  for (const TapeIndex::ZoneStretch& zone : index.zones()) {
    if (zone.ticks.first > visible.last) break;
    if (zone.ticks.last < visible.first) continue;
    const double top = view.area.top() + zone.row * kZoneRow;
    QRectF r = span_of(view, zone.ticks, rate, top, kZoneRow - 2.0);
    double& drawn = drawn_to[std::size_t(zone.row)];
    if (r.right() - drawn < 0.5) continue;
    drawn = r.right();
    if (r.width() < 3.0) r.setWidth(3.0);
    painter.setBrush(theme::colours().stick);
    painter.setPen(QPen(theme::ink2(), 1));
    painter.drawRect(r.adjusted(0.5, 0.5, -0.5, -0.5));
    if (r.width() < kShortestName) continue;
    painter.setPen(theme::ink());
    const QString name = QString::fromUtf8(recording.place->world.zone(zone.zone, 0.0).name.data());
    painter.drawText(r.adjusted(4, 0, -2, 0), Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(name, Qt::ElideRight, int(r.width()) - 6));
  }
}

std::vector<Action> used_actions(const TapeIndex& index) {
  std::vector<Action> used;
  for (std::size_t a = 0; a < TapeIndex::kButtonKinds; ++a) {
    const Action action = static_cast<Action>(a);
    if (!index.presses(action).empty() || !index.held(action).empty()) used.push_back(action);
  }
  return used;
}

void paint_inputs(QPainter& painter, const LaneView& view, TapeIndex& index, const Recording& recording) {
  const int rate = recording.run.tick_rate();
  const Stretch visible = view.visible(index.ticks(), rate);
  const MinMaxPyramid& stick = index.values(*find_signal("intent"), recording, recording.run.ticks() + 1);
  const double base = view.area.top() + kInputRow - 1.0;
  // One bar a tick, or, where ticks are narrower than 2 pixels, a bar for what falls on them.
  const double wide = view.x(1.0 / rate) - view.x(0.0);
  const std::size_t by = std::max<std::size_t>(1, std::size_t(std::ceil(2.0 / std::max(wide, 1e-9))));
  for (std::size_t t = std::max<std::size_t>(1, visible.first / by * by); t <= visible.last; t += by) {
    const std::size_t last = std::min({t + by - 1, index.ticks(), stick.size() - 1});
    if (t > last) break;
    const double share = stick.bounds(t, last).high;
    if (share <= 0.0) continue;
    const QRectF r = span_of(view, {t, last}, rate, base - share * (kInputRow - 3), share * (kInputRow - 3));
    painter.fillRect(wide > 3.0 ? r.adjusted(0, 0, -1, 0) : r, theme::colours().stick);
  }
  double y = view.area.top() + kInputRow * 1.5;
  painter.setRenderHint(QPainter::Antialiasing);
  for (const Action action : used_actions(index)) {
    paint_band(painter, view, index.held(action), rate, visible, y,
               QPen(theme::teal(), 4, Qt::SolidLine, Qt::FlatCap));
    for (const std::size_t press : index.presses(action)) {
      const double x = view.x((double(press) - 1.0) / rate);
      if (x < view.area.left() || x > view.area.right()) continue;
      paint_mark(painter, MarkShape::Drop, theme::ink(), {x, y - 1.0}, 7.0);
    }
    y += kInputRow;
  }
  painter.setRenderHint(QPainter::Antialiasing, false);
}

// A flag for each: a pole at its first tick, and a cloth as long as it lasts.
void paint_findings(QPainter& painter, const LaneView& view, const Run& run) {
  painter.setRenderHint(QPainter::Antialiasing);
  for (const Finding& f : run.findings()) {
    const QRectF r = span_of(view, {f.first, f.last}, run.tick_rate(), view.area.top(), view.area.height());
    const double x = view.x(double(f.first) / run.tick_rate());
    if (r.right() < view.area.left() || x > view.area.right()) continue;
    QColor cloth = theme::brick();
    cloth.setAlpha(90);
    if (r.width() > 8.0) painter.fillRect(QRectF(r.left(), r.top() + 2, r.width(), 5), cloth);
    painter.setPen(QPen(theme::brick(), 1.4));
    painter.drawLine(QPointF(x, view.area.top()), QPointF(x, view.area.bottom()));
    painter.setBrush(theme::brick());
    painter.drawPolygon(
        QPolygonF({{x, view.area.top() + 1}, {x + 8, view.area.top() + 4.5}, {x, view.area.top() + 8}}));
  }
  painter.setRenderHint(QPainter::Antialiasing, false);
}

// Those that fall on the same pixel are drawn once.
void paint_firings(QPainter& painter, const LaneView& view, const std::vector<std::size_t>& ticks, int rate) {
  painter.setPen(QPen(theme::rule(), 1));
  painter.drawLine(QPointF(view.area.left(), view.area.center().y()),
                   QPointF(view.area.right(), view.area.center().y()));
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme::ink());
  double drawn = -1e9;
  for (const std::size_t tick : ticks) {
    const double x = view.x(double(tick) / rate);
    if (x < view.area.left() - 4.0 || x > view.area.right() + 4.0 || x - drawn < 1.0) continue;
    painter.drawEllipse(QPointF(x, view.area.center().y()), 4.0, 4.0);
    drawn = x;
  }
}

// A column of pixels is one tick, its shares over one another; where nothing pulls it is empty.
void paint_shares(QPainter& painter, const LaneView& view, const Recording& recording) {
  const TriangleWorld& world = recording.place->world;
  const Run& run = recording.run;
  const double rate = run.tick_rate();
  std::array<FieldShare, kMostFields + 1> shares;
  struct Named {
    double left, right;
    QRectF last;
  };
  std::map<std::uint16_t, Named> names;
  for (double x = view.area.left(); x < view.area.right(); x += 1.0) {
    const double seconds = view.from + (x - view.area.left()) / view.area.width() * (view.to - view.from);
    const auto tick = std::lround(seconds * rate);
    if (tick < 0 || tick > long(run.ticks())) continue;
    const CharacterState& state = run.state(std::size_t(tick));
    const Vec3 middle_C = middle_of(state, recording.take.profile);
    const std::size_t count = world.field_shares(middle_C, state.time, shares);
    std::sort(shares.begin(), shares.begin() + std::ptrdiff_t(count),
              [](const FieldShare& a, const FieldShare& b) { return a.field < b.field; });
    double all = 0.0, below = 0.0;
    for (std::size_t i = 0; i < count; ++i) all += shares[i].share;
    for (std::size_t i = 0; i < count; ++i) {
      const double high = shares[i].share / std::max(all, 1.0) * view.area.height();
      QColor colour = shares[i].field == kBelowFields ? theme::ink2() : theme::field_colour(shares[i].field);
      colour.setAlpha(90);
      const QRectF part(x, view.area.bottom() - below - high, 1.0, high);
      painter.fillRect(part, colour);
      below += high;
      if (2.0 * high < view.area.height()) continue;
      Named& named = names.try_emplace(shares[i].field, Named{x, x, part}).first->second;
      if (x - named.right > 1.5) named.left = x;
      named.right = x;
      named.last = part;
    }
  }
  painter.setFont(theme::text_font(11));
  painter.setPen(theme::ink());
  for (const auto& [field, named] : names) {
    const QString name = field == kBelowFields ? QObject::tr("the course's own") : qt(world.field_name(field));
    const QRectF room(named.left + 5.0, named.last.top(), named.right - named.left - 6.0, named.last.height());
    if (room.width() > kShortestName)
      painter.drawText(room, Qt::AlignVCenter,
                       painter.fontMetrics().elidedText(name, Qt::ElideRight, int(room.width())));
  }
}

void paint_touched(QPainter& painter, const LaneView& view, const std::vector<Stretch>& touched, int rate) {
  QColor band = theme::gold();
  band.setAlpha(60);
  for (const Stretch& s : touched)
    painter.fillRect(span_of(view, s, rate, view.area.top(), view.area.height()), band);
}

}  // namespace lagniappe::app
