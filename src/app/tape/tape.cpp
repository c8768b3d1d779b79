// SPDX-License-Identifier: GPL-3.0-or-later
#include "tape/tape.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QToolTip>
#include <algorithm>
#include <cmath>
#include <map>

#include "tape/event_marks.h"
#include "tape/tape_lanes.h"
#include "tape/tape_overlay.h"
#include "theme/state_colours.h"
#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kNames = 92, kRight = 14, kTop = 9, kBottom = 20;  // Pixels around the lanes.
constexpr int kFindings = 13, kStates = 22, kContacts = 39, kFirings = 18, kShares = 40, kLeastCurve = 34;
constexpr int kCurveName = 15, kUnderCurve = 3;  // Pixels above a curve for its name, and below it.
constexpr int kTallCurve = 60;                   // Pixels from which there is room for more numbers.
constexpr int kLeastHeight = 212, kLeastWithoutCurves = 120;  // Of all lanes, with two curves.
constexpr double kCurveWidth = 1.5;
constexpr double kLiveReplot = 0.07;    // s between two drawings of the whole tape while driving.
constexpr double kShortestShown = 5.0;  // s shown of a take that is only beginning.
const char* const kApart = "apart";

// Seconds, with their unit.
class SecondsTicker : public QCPAxisTicker {
 protected:
  QString getTickLabel(double tick, const QLocale& locale, QChar format, int precision) override {
    return QCPAxisTicker::getTickLabel(std::abs(tick) < 1e-9 ? 0.0 : tick, locale, format, precision) + " s";
  }
};

void style_axis(QCPAxis* axis) {
  axis->setTickLabelFont(theme::number_font(10));
  axis->setTickLabelColor(theme::ink2());
  axis->setBasePen(QPen(theme::rule()));
  axis->setTickPen(QPen(theme::rule()));
  axis->setSubTickPen(Qt::NoPen);
  axis->grid()->setPen(QPen(theme::rule(), 1, Qt::SolidLine));
  axis->grid()->setZeroLinePen(QPen(theme::rule(), 1));
  axis->setNumberFormat("g");
  axis->setNumberPrecision(6);
}

}  // namespace

Tape::Tape(DriveSession& session, QWidget* parent, Third third)
    : QCustomPlot(parent),
      session_(session),
      curve_keys_{"ground_speed", "height"},
      third_(third),
      overlay_(new TapeOverlay(this)) {
  setObjectName("tape");
  setFocusPolicy(Qt::TabFocus);
  setMouseTracking(true);
  setMinimumHeight(third == Third::Firings ? kLeastWithoutCurves : kLeastHeight);
  setNoAntialiasingOnDrag(false);
  setAccessibleName(tr("Tape"));
  setAccessibleDescription(tr("Left and Right move the playhead by a tick, with Shift they select"));
  since_replot_.start();
  setBackground(QBrush(theme::sheet()));
  build_lanes();
}

void Tape::changeEvent(QEvent* event) {
  QCustomPlot::changeEvent(event);
  if (event->type() != QEvent::PaletteChange) return;
  setBackground(QBrush(theme::sheet()));
  set_curves(curve_keys_);  // Made anew, in the present colours.
}

QCPAxisRect* Tape::add_lane(int row, int height) {
  auto* rect = new QCPAxisRect(this, false);
  rect->setAutoMargins(QCP::msNone);
  rect->setMargins(QMargins(kNames, row == 0 ? kTop : 0, kRight, 0));
  rect->setMinimumSize(50, height);
  if (height != kLeastCurve) rect->setMaximumSize(QWIDGETSIZE_MAX, height);
  plotLayout()->addElement(row, 0, rect);
  for (const QCPAxis::AxisType type : {QCPAxis::atBottom, QCPAxis::atLeft}) {
    style_axis(rect->addAxis(type));
    rect->axis(type)->setVisible(false);
    rect->axis(type)->setLayer("grid");
  }
  lanes_.push_back(rect);
  return rect;
}

void Tape::build_lanes() {
  const QCPRange range = lanes_.empty() ? QCPRange(0.0, kShortestShown) : shown_range();
  clearPlottables();
  plotLayout()->clear();
  plotLayout()->setRowSpacing(5);
  lanes_.clear();
  curves_.clear();
  const auto lane = [&](int height, LanePainter::Paint paint) {
    new LanePainter(add_lane(int(lanes_.size()), height),
                    [this, paint = std::move(paint)](QPainter& painter, const LaneView& view) {
                      if (!is_current()) return;
                      paint_touched(painter, view, touched_, session_.shown().run.tick_rate());
                      paint(painter, view);
                    });
  };
  const auto rate = [this] { return session_.shown().run.tick_rate(); };
  lane(kFindings, [this](QPainter& p, const LaneView& v) { paint_findings(p, v, session_.shown().run); });
  const int ghost_height = ghosts_.empty() ? 0 : 8;
  lane(kStates + ghost_height, [this, ghost_height](QPainter& p, LaneView v) {
    const QRectF whole = v.area;
    v.area.setBottom(whole.bottom() - ghost_height);
    paint_states(p, v, index_, session_.shown(), true);
    if (ghost_height == 0) return;
    v.area = QRectF(whole.left(), whole.bottom() - ghost_height + 2, whole.width(), ghost_height - 2);
    paint_states(p, v, ghosts_.front()->index, *ghosts_.front()->ghost->recording, false);
  });
  if (third_ == Third::Contacts) {
    lane(kContacts, [this, rate](QPainter& p, const LaneView& v) { paint_contacts(p, v, index_, rate()); });
  } else if (third_ == Third::Shares) {
    lane(kShares, [this](QPainter& p, const LaneView& v) { paint_shares(p, v, session_.shown()); });
  } else {
    lane(kFirings, [this, rate](QPainter& p, const LaneView& v) { paint_firings(p, v, fired_, rate()); });
  }
  lane(kInputRow * int(1 + used_actions(index_).size()) + 2,
       [this](QPainter& p, const LaneView& v) { paint_inputs(p, v, index_, session_.shown()); });
  if (index_.zone_rows() > 0)
    lane(kZoneRow * index_.zone_rows(),
         [this](QPainter& p, const LaneView& v) { paint_zones(p, v, index_, session_.shown()); });
  for (const QString& key : curve_keys_) add_curve(int(lanes_.size()), key);
  if (!ghosts_.empty()) add_curve(int(lanes_.size()), kApart);
  QCPAxisRect* last = lanes_.back();
  last->setMargins(QMargins(kNames, 0, kRight, kBottom));
  QCPAxis* time = last->axis(QCPAxis::atBottom);
  time->setVisible(true);
  time->setTicker(QSharedPointer<QCPAxisTicker>(new SecondsTicker));
  show_range(range.lower, range.upper);
}

void Tape::add_curve(int row, const QString& key) {
  const Signal* signal = key == kApart ? nullptr : find_signal(key.toStdString());
  if (signal == nullptr && key != kApart) return;
  Curve curve{signal, add_lane(row, kLeastCurve), {}};
  QCPAxis* left = curve.rect->axis(QCPAxis::atLeft);
  left->setVisible(true);
  left->ticker()->setTickCount(3);
  left->setTickLabelPadding(3);
  const std::size_t count = (signal == nullptr ? 0 : 1) + ghosts_.size();
  for (std::size_t i = 0; i < count; ++i) {
    QCPGraph* graph = addGraph(curve.rect->axis(QCPAxis::atBottom), left);
    const bool shown = signal != nullptr && i == 0;
    const theme::RunStyle style =
        shown ? theme::shown_style() : theme::ghost_style(signal == nullptr ? i : i - 1);
    graph->setPen(QPen(style.colour, kCurveWidth, style.pen));
    graph->setAdaptiveSampling(false);
    curve.graphs.push_back(graph);
  }
  // Its name, inside the lane.
  new LanePainter(curve.rect, [title = curve_title(curve)](QPainter& painter, const LaneView& view) {
    painter.setFont(theme::text_font(11));
    painter.setPen(theme::ink2());
    painter.drawText(view.area.adjusted(6, 1, 0, 0), Qt::AlignTop | Qt::AlignLeft, title);
  });
  curves_.push_back(curve);
}

// One point a tick while there are fewer ticks than pixels, else the least and the largest of every column.
void Tape::fill_graph(QCPGraph& graph, const MinMaxPyramid& values, int rate) {
  QVector<double> x, y;
  bool dense = false;
  if (values.size() > 0) {
    const QCPRange range = shown_range();
    const auto last = double(values.size() - 1);
    const auto from = std::size_t(std::clamp(std::floor(range.lower * rate) - 1.0, 0.0, last));
    const auto to = std::size_t(std::clamp(std::ceil(range.upper * rate) + 1.0, 0.0, last));
    const std::size_t columns = std::size_t(std::max(width() - kNames - kRight, 50));
    const std::size_t by = std::max<std::size_t>(1, (to - from) / columns);
    dense = by > 1;
    for (std::size_t t = from / by * by; t <= to; t += by) {
      const MinMaxPyramid::Bounds b = values.bounds(t, std::min(t + by - 1, values.size() - 1));
      x.append(double(t) / rate);
      y.append(double(b.low));
      if (by == 1) continue;
      x.append((double(t) + 0.5 * double(by)) / rate);
      y.append(double(b.high));
    }
  }
  // A dense zigzag is as clear with thin lines, and many times faster.
  QPen pen = graph.pen();
  pen.setWidthF(dense ? 1.0 : kCurveWidth);
  graph.setPen(pen);
  graph.setAntialiased(!dense);
  graph.setData(x, y, true);
}

void Tape::fill_curves() {
  curves_complete_ = true;
  if (!is_current()) return;
  for (Curve& curve : curves_) {
    std::size_t at = 0;
    const auto fill = [&](const MinMaxPyramid& values, std::size_t wanted, int rate) {
      curves_complete_ = curves_complete_ && values.size() >= wanted;
      fill_graph(*curve.graphs[at++], values, rate);
    };
    if (curve.signal != nullptr)
      fill(index_.values(*curve.signal, session_.shown()), index_.ticks() + 1,
           session_.shown().run.tick_rate());
    for (const auto& lanes : ghosts_) {
      const Recording& ghost = *lanes->ghost->recording;
      if (curve.signal == nullptr) {
        fill(lanes->apart, 0, session_.shown().run.tick_rate());
      } else {
        fill(lanes->index.values(*curve.signal, ghost), lanes->index.ticks() + 1, ghost.run.tick_rate());
      }
    }
    fit_values(curve);
  }
}

// All that is shown of a curve, with some room; what never changes lies in the middle of some range.
void Tape::fit_values(const Curve& curve) {
  QCPRange all;
  bool any = false;
  for (const QCPGraph* graph : curve.graphs) {
    bool found = false;
    const QCPRange range = graph->getValueRange(found);
    if (!found) continue;
    all = any ? QCPRange(std::min(all.lower, range.lower), std::max(all.upper, range.upper)) : range;
    any = true;
  }
  const bool still = all.size() < 1e-6 + 1e-5 * std::abs(all.upper);  // But for its rounding.
  const double size = still ? 1.0 : all.size();
  if (still) all = QCPRange(all.center() - 0.5 * size, all.center() + 0.5 * size);
  // Its name stands above it, whatever the lane's height.
  const double pixels = std::max(double(curve.rect->height()) - kCurveName - kUnderCurve, 8.0);
  const double each = size / pixels;
  curve.rect->axis(QCPAxis::atLeft)->ticker()->setTickCount(curve.rect->height() < kTallCurve ? 2 : 3);
  curve.rect->axis(QCPAxis::atLeft)->setRange(all.lower - kUnderCurve * each, all.upper + kCurveName * each);
}

Tape::GhostLanes::GhostLanes(std::shared_ptr<const Ghost> of) : ghost(std::move(of)) {
  index.update(*ghost->recording, 1);
  for (const float distance : ghost->against.apart) apart.add(distance);
}

void Tape::set_ghosts(std::vector<std::shared_ptr<const Ghost>> ghosts) {
  wanted_ghosts_ = std::move(ghosts);
  if (isVisible()) take_ghosts();
}

// Those that were there before keep what was read of them.
void Tape::take_ghosts() {
  std::vector<std::unique_ptr<GhostLanes>> lanes;
  for (const auto& ghost : wanted_ghosts_) {
    const auto kept = std::find_if(ghosts_.begin(), ghosts_.end(),
                                   [&](const auto& g) { return g != nullptr && g->ghost == ghost; });
    lanes.push_back(kept != ghosts_.end() ? std::move(*kept) : std::make_unique<GhostLanes>(ghost));
  }
  const bool lanes_change = lanes.size() != ghosts_.size();
  ghosts_ = std::move(lanes);
  if (lanes_change) return build_lanes();
  fill_curves();
  replot(QCustomPlot::rpQueuedReplot);
}

void Tape::showEvent(QShowEvent* event) {
  QCustomPlot::showEvent(event);
  take_ghosts();
}

void Tape::set_curves(const QStringList& keys) {
  curve_keys_ = keys;
  build_lanes();
}

void Tape::set_touched(std::vector<Stretch> touched) {
  if (touched == touched_) return;
  touched_ = std::move(touched);
  replot(QCustomPlot::rpQueuedReplot);
}

void Tape::set_firings(std::vector<std::size_t> ticks) {
  if (ticks == fired_) return;
  fired_ = std::move(ticks);
  replot(QCustomPlot::rpQueuedReplot);
}

QCPRange Tape::shown_range() const { return lanes_.front()->axis(QCPAxis::atBottom)->range(); }

void Tape::show_range(double from, double to) {
  for (QCPAxisRect* lane : lanes_) lane->axis(QCPAxis::atBottom)->setRange(from, to);
  limit_range();
  fill_curves();
  replot(QCustomPlot::rpQueuedReplot);
}

// No narrower than a tick, no wider than the take and a little.
void Tape::limit_range() {
  const QCPRange range = shown_range();
  const double seconds = session_.has_shown() ? session_.shown().run.seconds() : 0.0;
  const double rate = session_.has_shown() ? session_.shown().run.tick_rate() : 60.0;
  const double most = std::max(seconds * 1.04, kShortestShown), least = 1.0 / rate;
  const double size = std::clamp(range.size(), least, most);
  const double centre =
      std::clamp(range.center(), size / 2.0 - 0.02 * most, std::max(most - size / 2.0, size / 2.0));
  for (QCPAxisRect* lane : lanes_)
    lane->axis(QCPAxis::atBottom)->setRange(centre - size / 2.0, centre + size / 2.0);
}

void Tape::show_all() { show_range(0.0, 1e9); }

void Tape::zoom(double factor) {
  const double at = session_.has_shown() ? double(session_.playhead()) / session_.shown().run.tick_rate() : 0.0;
  const QCPRange range = shown_range();
  const double centre = range.contains(at) ? at : range.center();
  show_range(centre + (range.lower - centre) * factor, centre + (range.upper - centre) * factor);
}

void Tape::select(std::optional<Stretch> stretch) {
  if (stretch == selection_) return;
  selection_ = stretch;
  emit selection_changed();
}

double Tape::x_of_tick(std::size_t tick) const {
  return lanes_.front()->axis(QCPAxis::atBottom)->coordToPixel(double(tick) / session_.shown().run.tick_rate());
}

std::size_t Tape::tick_at_x(double x) const {
  const double seconds = lanes_.front()->axis(QCPAxis::atBottom)->pixelToCoord(x);
  const Run& run = session_.shown().run;
  return std::size_t(std::clamp(std::round(seconds * run.tick_rate()), 0.0, double(run.ticks())));
}

QRect Tape::lane_rect(int row) const { return lanes_.at(std::size_t(row))->rect(); }

// While driving, the present stays in view.
void Tape::follow_live() {
  const QCPRange range = shown_range();
  const double now = session_.shown().run.seconds();
  if (session_.live() && (now > range.upper - 0.1 * range.size() || !was_live_))
    show_range(now - 0.9 * range.size(), now + 0.1 * range.size());
  was_live_ = session_.live();
}

void Tape::refresh() {
  if (!session_.has_shown()) {
    TapeOverlay::Content nothing;
    nothing.area = rect();
    nothing.message = tr("The tape: open a course and drive, and every tick of it is kept here.");
    return overlay_->show_content(nothing);
  }
  const bool due = !session_.live() || since_replot_.nsecsElapsed() * 1e-9 > kLiveReplot;
  const bool other = revision_ != session_.revision();
  if (due || other) {
    const auto rows = [&] { return std::pair(used_actions(index_).size(), index_.zone_rows()); };
    const auto before = rows();
    const bool changed = index_.update(session_.shown(), session_.revision());
    if (other) {
      const bool longer = session_.is_open() && session_.shown().run.ticks() < 2;
      revision_ = session_.revision();
      select(std::nullopt);
      touched_.clear();
      build_lanes();
      longer ? show_range(0.0, 12.0) : show_all();
    } else if (before != rows()) {
      build_lanes();
    }
    follow_live();
    if (changed || !curves_complete_) {
      limit_range();
      fill_curves();
      replot(QCustomPlot::rpQueuedReplot);
      since_replot_.restart();
    }
  }
  overlay_->show_content(overlay_content());
}

TapeOverlay::Content Tape::overlay_content() const {
  TapeOverlay::Content content;
  content.area = QRect(lanes_.front()->rect().topLeft(), lanes_.back()->rect().bottomRight());
  const double x = x_of_tick(session_.playhead());
  if (x >= content.area.left() - 1.0 && x <= content.area.right() + 1.0) content.playhead = x;
  if (selection_) content.selection = {x_of_tick(selection_->first), x_of_tick(selection_->last)};
  content.loops = session_.loop().has_value();
  if (!ghosts_.empty() && ghosts_.front()->ghost->against.parting)
    content.parting = x_of_tick(*ghosts_.front()->ghost->against.parting);
  content.labels = labels();
  content.focused = hasFocus();
  return content;
}

std::vector<TapeOverlay::Label> Tape::labels() const {
  std::vector<TapeOverlay::Label> all;
  const auto at = [&](std::size_t lane, double offset, const QString& text, bool strong = false) {
    all.push_back({lanes_[lane]->rect().top() + offset, text, strong});
  };
  at(0, kFindings / 2.0, session_.shown().run.findings().empty() ? tr("no findings") : tr("findings"));
  at(1, kStates / 2.0, tr("states"));
  const char* const rows[] = {"ground", "steps", "walls"};
  if (third_ == Third::Firings) at(2, kFirings / 2.0, tr("firings"));
  if (third_ == Third::Shares) at(2, kShares / 2.0, tr("shares"));
  for (int i = 0; third_ == Third::Contacts && i < kContactRows; ++i)
    at(2, kContacts * (i + 0.5) / kContactRows, tr(rows[i]));
  at(3, kInputRow / 2.0 + 1.0, tr("stick"));
  double y = kInputRow * 1.5 + 1.0;
  for (const Action action : used_actions(index_)) {
    at(3, y, qt(kActionNames[static_cast<std::size_t>(action)]));
    y += kInputRow;
  }
  if (index_.zone_rows() > 0) at(4, kZoneRow / 2.0, tr("zones"));
  return all;
}

QString Tape::curve_title(const Curve& curve) const {
  if (curve.signal == nullptr) return tr("distance apart, m");
  const QString unit = qt(curve.signal->unit);
  return unit.isEmpty() ? qt(curve.signal->name) : QString("%1, %2").arg(qt(curve.signal->name), unit);
}

void Tape::resizeEvent(QResizeEvent* event) {
  QCustomPlot::resizeEvent(event);
  overlay_->setGeometry(rect());
  fill_curves();
}

// A tick back and on, a second with Page Up and Down; with Shift what is passed is selected.
void Tape::keyPressEvent(QKeyEvent* event) {
  const std::map<int, double> steps = {
      {Qt::Key_Left, -1.0}, {Qt::Key_Right, 1.0}, {Qt::Key_PageUp, -60.0}, {Qt::Key_PageDown, 60.0}};
  const auto step = steps.find(event->key());
  const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
  if (step == steps.end() || !plain || !session_.has_shown()) return QCustomPlot::keyPressEvent(event);
  const Run& run = session_.shown().run;
  const std::size_t at = session_.playhead();
  const double ticks = std::abs(step->second) > 1.0 ? step->second / 60.0 * run.tick_rate() : step->second;
  const auto to = static_cast<std::size_t>(std::clamp(double(at) + ticks, 0.0, double(run.ticks())));
  if (event->modifiers() & Qt::ShiftModifier) {
    // Its other end stays.
    const bool goes_on = selection_ && (selection_->first == at || selection_->last == at);
    if (!goes_on) select_from_ = at;
    select(Stretch{std::min(select_from_, to), std::max(select_from_, to)});
  }
  session_.set_playhead(to);
  emit scrubbed();
  refresh();
}

void Tape::focusInEvent(QFocusEvent* event) {
  QCustomPlot::focusInEvent(event);
  refresh();
}

void Tape::focusOutEvent(QFocusEvent* event) {
  QCustomPlot::focusOutEvent(event);
  refresh();
}

void Tape::mousePressEvent(QMouseEvent* event) {
  if (!session_.has_shown()) return;
  drag_at_ = event->position();
  if (event->button() != Qt::LeftButton) {
    drag_ = Drag::Pan;
  } else if (event->modifiers() & Qt::ShiftModifier) {
    drag_ = Drag::Select;
    select_from_ = tick_at_x(drag_at_.x());
  } else {
    drag_ = Drag::Scrub;
    session_.set_playhead(tick_at_x(drag_at_.x()));
    emit scrubbed();
  }
}

void Tape::mouseMoveEvent(QMouseEvent* event) {
  const double x = event->position().x();
  switch (drag_) {
    case Drag::None:
      return;
    case Drag::Scrub:
      session_.set_playhead(tick_at_x(x));
      emit scrubbed();
      return;
    case Drag::Select: {
      const std::size_t to = tick_at_x(x);
      select(Stretch{std::min(select_from_, to), std::max(select_from_, to)});
      return;
    }
    case Drag::Pan: {
      const QCPRange range = shown_range();
      const double moved = (x - drag_at_.x()) / lanes_.front()->width() * range.size();
      drag_at_ = event->position();
      show_range(range.lower - moved, range.upper - moved);
      return;
    }
  }
}

void Tape::mouseReleaseEvent(QMouseEvent*) {
  // A selection of nothing takes the selection away.
  if (drag_ == Drag::Select && selection_ && selection_->first == selection_->last) select(std::nullopt);
  drag_ = Drag::None;
}

void Tape::mouseDoubleClickEvent(QMouseEvent*) {
  if (selection_) select(std::nullopt);
}

void Tape::wheelEvent(QWheelEvent* event) {
  if (!session_.has_shown()) return;
  const QCPRange range = shown_range();
  const double notches = event->angleDelta().y() / 120.0, sideways = event->angleDelta().x() / 120.0;
  if (sideways != 0.0 || (event->modifiers() & Qt::ShiftModifier)) {
    const double by = -0.1 * (sideways + notches) * range.size();
    return show_range(range.lower + by, range.upper + by);
  }
  const double at = lanes_.front()->axis(QCPAxis::atBottom)->pixelToCoord(event->position().x());
  const double factor = std::pow(0.8, notches);
  show_range(at + (range.lower - at) * factor, at + (range.upper - at) * factor);
}

// What lies under the mouse, in words.
QString Tape::hint_at(const QPoint& at) const {
  if (!session_.has_shown() || at.x() < kNames) {
    return tr(
        "Drag: move the playhead. Shift and drag: select a stretch. Wheel: zoom. Right button: pan.\n"
        "Shapes: triangle up, step; cross, refused; triangle down, snap; bar, wall; T, ceiling; diamond, "
        "push-out; roof, jump; V, landing; flag, finding.");
  }
  const Run& run = session_.shown().run;
  const std::size_t tick = tick_at_x(at.x());
  QStringList parts;
  for (std::size_t e = 0; e < kEventNames.size(); ++e) {
    if (run.events(tick).has(static_cast<Event>(e))) parts.append(qt(kEventNames[e]));
  }
  QString text = tr("tick %1, %2 s: %3")
                     .arg(tick)
                     .arg(double(tick) / run.tick_rate(), 0, 'f', 3)
                     .arg(qt(session_.chart().name_of(run.state(tick).state)));
  if (!parts.isEmpty()) text += ", " + parts.join(", ");
  const double near = 6.0 / lanes_.front()->width() * shown_range().size() * run.tick_rate();
  for (const Finding& f : run.findings()) {
    if (double(tick) < double(f.first) - near || double(tick) > double(f.last) + near) continue;
    text += "\n" + QString::fromStdString(to_sentence(f, session_.shown().place->world,
                                                      session_.shown_profile(), run.tick_rate()));
  }
  return text;
}

bool Tape::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QCustomPlot::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  QToolTip::showText(help->globalPos(), hint_at(help->pos()), this);
  return true;
}

void Tape::paint_on(QCPPainter& painter, const QSize& size) {
  if (!isVisible()) take_ghosts();
  const QRect before = viewport();
  toPainter(&painter, size.width(), size.height());
  TapeOverlay::paint(painter, overlay_content());  // The lanes still lie as they were painted.
  setViewport(before);
}

}  // namespace lagniappe::app
