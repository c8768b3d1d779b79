// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/strength_plot.h"

#include <QJsonArray>
#include <algorithm>
#include <cmath>

#include "cards/plain_number.h"
#include "fields/outward.h"
#include "theme/focus_ring.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kPoints = 240;
constexpr double kGrip = 10.0;     // Pixels.
constexpr double kNoReach = 20.0;  // m that are shown of a field without an end.
constexpr double kFar = 1.15;      // Times the reach that is shown.
constexpr double kFinest = 1e-3;
// By the arrow keys, in m and shares of the strength; ten times as much with Shift.
constexpr double kNudge = 0.1, kShareNudge = 0.01;

struct Seen {
  double distance, share, influence;
};

// Of the field by itself, `way` out of its surface.
Seen seen(const Field& field, double way) {
  Field endless = field;  // Where its reach is over it still has a share.
  if (field.falloff != Field::Falloff::Linear) endless.reach = 1e9, endless.fade = 0.0;
  const Vec3 p = outward(field.shape, way);
  const FieldAt pull = field_at(endless, RigidPose{}, p), ends = field_at(field, RigidPose{}, p);
  const double strength = std::abs(field.strength);
  return {ends.distance, strength > 0.0 ? length(pull.pull_C) / strength : 0.0, ends.influence};
}

}  // namespace

StrengthPlot::StrengthPlot(QWidget* parent) : QCustomPlot(parent) {
  setMinimumHeight(200);
  setBackground(QBrush(theme::sheet()));
  setAccessibleName(tr("Strength over distance"));
  axisRect()->setAutoMargins(QCP::msNone);
  axisRect()->setMargins(QMargins(40, 14, 14, 34));
  for (QCPAxis* axis : {xAxis, yAxis}) theme_axis(axis);
}

void StrengthPlot::theme_axis(QCPAxis* axis) {
  axis->setTickLabelFont(theme::number_font(10));
  axis->setLabelFont(theme::text_font(11));
  axis->setTickLabelColor(theme::ink2());
  axis->setLabelColor(theme::ink2());
  axis->setBasePen(QPen(theme::ink(), 1.2));
  axis->setTickPen(QPen(theme::rule()));
  axis->setSubTickPen(Qt::NoPen);
  axis->grid()->setPen(QPen(theme::rule(), 1, Qt::SolidLine));
  axis->grid()->setZeroLinePen(QPen(theme::rule(), 1));
}

void StrengthPlot::changeEvent(QEvent* event) {
  QCustomPlot::changeEvent(event);
  if (event->type() != QEvent::PaletteChange) return;
  setBackground(QBrush(theme::sheet()));
  for (QCPAxis* axis : {xAxis, yAxis}) theme_axis(axis);
  replot(QCustomPlot::rpQueuedReplot);
}

void StrengthPlot::begin(const QString& x_label, bool of_field) {
  of_field_ = of_field;
  setFocusPolicy(of_field ? Qt::StrongFocus : Qt::NoFocus);  // Keys are for the points of a curve.
  clearPlottables();
  clearItems();
  names_.clear();
  remark_.clear();
  curve_ = to_be_ = {};
  xAxis->setLabel(x_label);
}

QCPGraph* StrengthPlot::add_curve(const QColor& colour, Qt::PenStyle style, double width, const QString& name) {
  QCPGraph* graph = addGraph();
  graph->setPen(QPen(colour, width, style));
  graph->setAntialiased(true);
  names_.push_back({name, colour, graph});
  return graph;
}

// Each where its curve is highest, below one another where they would meet.
void StrengthPlot::name_curves() {
  std::vector<QRectF> taken;
  for (const Name& name : names_) {
    const auto points = name.graph->data();
    if (points->isEmpty() || name.text.isEmpty()) continue;
    const auto top =
        std::max_element(points->constBegin(), points->constEnd(),
                         [](const QCPGraphData& a, const QCPGraphData& b) { return a.value < b.value; });
    const QFontMetricsF metrics(theme::text_font(11, true));
    const double wide = metrics.horizontalAdvance(name.text) + 6.0, high = metrics.height();
    const QRectF all = axisRect()->rect();
    QPointF at(xAxis->coordToPixel(top->key) + 6.0, yAxis->coordToPixel(top->value) + 3.0);
    at.setX(std::clamp(at.x(), all.left() + 4.0, std::max(all.left() + 4.0, all.right() - wide)));
    at.setY(std::clamp(at.y(), all.top() + 2.0, all.bottom() - high));
    QRectF place(at, QSizeF(wide, high));
    while (std::any_of(taken.begin(), taken.end(), [&](const QRectF& r) { return r.intersects(place); }) &&
           place.bottom() + high < all.bottom())
      place.translate(0.0, high);
    taken.push_back(place);
    auto* text = new QCPItemText(this);
    text->setText(name.text);
    text->setFont(theme::text_font(11, true));
    text->setColor(name.colour);
    text->setPositionAlignment(Qt::AlignLeft | Qt::AlignTop);
    text->position->setType(QCPItemPosition::ptAbsolute);
    text->position->setCoords(place.topLeft());
  }
}

void StrengthPlot::fit(double from, double to) {
  double most = 1.0;
  for (const Name& name : names_) {
    bool found = false;
    const QCPRange range = name.graph->getValueRange(found);
    if (found) most = std::max(most, range.upper);
  }
  xAxis->setRange(from, to);
  yAxis->setRange(0.0, most * 1.12);
}

void StrengthPlot::show_nothing() {
  begin({}, false);
  replot(QCustomPlot::rpQueuedReplot);
}

void StrengthPlot::show_line(const Course& course, const Pulls& pulls, const Vec3& from_C, const Vec3& to_C,
                             double time) {
  begin(tr("metres from A to B"), false);
  const double metres = length(to_C - from_C);
  const std::size_t fields = pulls.fields().size();
  QVector<double> x, sum;
  std::vector<QVector<double>> own(fields);
  for (int i = 0; i <= kPoints && metres > 0.0; ++i) {
    const double share = double(i) / kPoints;
    const Vec3 p = from_C + (to_C - from_C) * share;
    x.append(metres * share);
    sum.append(length(pulls.at(p, time)));
    for (std::size_t k = 0; k < fields; ++k) own[k].append(pulls.alone(k, p, time));
  }
  add_curve(theme::ink(), Qt::SolidLine, 3.0, tr("sum"))->setData(x, sum, true);
  for (std::size_t k = 0; k < fields; ++k) {
    if (std::all_of(own[k].begin(), own[k].end(), [](double v) { return v <= 0.0; })) continue;
    const RowChoice row{CourseList::Fields, k};
    add_curve(row_colour(course, row), course.fields[k].adds ? Qt::DashLine : Qt::SolidLine, 1.6,
              row_name(course, row))
        ->setData(x, own[k], true);
  }
  fit(0.0, std::max(metres, kFinest));
  name_curves();
  mark_alike(own, x);
  replot(QCustomPlot::rpQueuedReplot);
}

// The first place at which two of them are alike.
void StrengthPlot::mark_alike(const std::vector<QVector<double>>& own, const QVector<double>& x) {
  for (std::size_t a = 0; a < own.size(); ++a) {
    for (std::size_t b = a + 1; b < own.size(); ++b) {
      for (int i = 0; i + 1 < x.size(); ++i) {
        const double here = own[a][i] - own[b][i], next = own[a][i + 1] - own[b][i + 1];
        if ((here < 0.0) == (next < 0.0) || own[a][i] <= 0.0 || own[b][i] <= 0.0 || own[a][i + 1] <= 0.0 ||
            own[b][i + 1] <= 0.0)
          continue;
        const double share = here / (here - next), at = x[i] + (x[i + 1] - x[i]) * share,
                     value = own[a][i] + (own[a][i + 1] - own[a][i]) * share;
        remark_ = tr("both %1 m/s\u00b2 at %2 m").arg(value, 0, 'f', 1).arg(at, 0, 'f', 1);
        auto* line = new QCPItemLine(this);
        line->setPen(QPen(theme::ink(), 1.2, Qt::DashLine));
        line->start->setCoords(at, 0.0);
        line->end->setCoords(at, value);
        auto* text = new QCPItemText(this);
        text->setText(remark_);
        text->setFont(theme::number_font(10));
        text->setColor(theme::ink());
        text->setPositionAlignment(Qt::AlignHCenter | Qt::AlignBottom);
        const double middle =
            std::clamp(xAxis->coordToPixel(at), axisRect()->left() + 70.0, axisRect()->right() - 70.0);
        text->position->setType(QCPItemPosition::ptAbsolute);
        text->position->setCoords(middle, axisRect()->bottom() - 6.0);
        return;
      }
    }
  }
}

void StrengthPlot::show_falloff(const Course& course, const RowChoice& row, double gravity) {
  begin(tr("metres from its surface"), true);
  const Field& field = course.fields[row.index];
  strength_ = std::abs(field.strength) * (field.absolute ? 1.0 : gravity);
  curve_ = field.falloff == Field::Falloff::Curve ? field.curve : Curve{};
  const double reach = reach_of(field);
  double to = std::isfinite(reach) && reach > 0.0 ? reach * kFar : kNoReach;
  if (curve_.count > 0) to = std::max(to, curve_.points[curve_.count - 1].x * kFar);
  QVector<double> x, y, endless;
  for (int i = 0; i <= kPoints; ++i) {
    const Seen at = seen(field, to * i / kPoints);
    x.append(at.distance);
    y.append(at.share * at.influence * strength_);
    endless.append(at.share * strength_);
  }
  const QColor colour = row_colour(course, row);
  add_curve(colour, Qt::DotLine, 1.2, {})->setData(x, endless, true);
  add_curve(colour, Qt::SolidLine, 2.0, row_name(course, row))->setData(x, y, true);
  if (curve_.count > 0) {
    QCPGraph* points = add_curve(colour, Qt::NoPen, 1.0, {});
    points->setLineStyle(QCPGraph::lsNone);
    points->setScatterStyle(
        QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(colour, 2), QBrush(theme::sheet()), 9.0));
    for (int i = 0; i < curve_.count; ++i) points->addData(curve_.points[i].x, curve_.points[i].y * strength_);
    mark_chosen(colour);
  }
  to_be_ = curve_;
  if (to_be_.count == 0) {
    for (const double way : {0.0, 0.25, 0.5, 0.75, 1.0}) {
      const Seen at = seen(field, way * to / kFar);
      to_be_.points[to_be_.count++] = {with_digits(at.distance, 4), with_digits(at.share, 3)};
    }
  }
  if (!dragged_) fit(0.0, to);
  name_curves();
  replot(QCustomPlot::rpQueuedReplot);
}

// What keys would move: filled.
void StrengthPlot::mark_chosen(const QColor& colour) {
  if (chosen_ >= curve_.count) chosen_ = curve_.count - 1;
  if (!hasFocus() || chosen_ < 0) return;
  QCPGraph* point = add_curve(colour, Qt::NoPen, 1.0, {});
  point->setLineStyle(QCPGraph::lsNone);
  point->setScatterStyle(
      QCPScatterStyle(QCPScatterStyle::ssDisc, QPen(theme::ink(), 2), QBrush(theme::ink()), 11.0));
  point->addData(curve_.points[chosen_].x, curve_.points[chosen_].y * strength_);
}

QPointF StrengthPlot::pixel_of_point(int i) const {
  return {xAxis->coordToPixel(curve_.points[i].x), yAxis->coordToPixel(curve_.points[i].y * strength_)};
}

int StrengthPlot::point_at(const QPointF& p) const {
  for (int i = 0; i < curve_.count; ++i) {
    const QPointF d = pixel_of_point(i) - p;
    if (std::hypot(d.x(), d.y()) < kGrip) return i;
  }
  return -1;
}

void StrengthPlot::put_points(bool begins) {
  QJsonArray points;
  for (int i = 0; i < to_be_.count; ++i) points.append(QJsonArray{to_be_.points[i].x, to_be_.points[i].y});
  emit curve_changed(points, begins);
}

void StrengthPlot::mousePressEvent(QMouseEvent* event) {
  const int point = of_field_ && event->button() == Qt::LeftButton ? point_at(event->position()) : -1;
  if (point < 0) return;
  dragged_ = point;
  begun_ = false;
  choose_point(point);
}

// A point stays between its neighbours.
void StrengthPlot::move_point(int i, Vec2 to, bool begins) {
  to = {plain_number(to.x, 0.01), plain_number(to.y, 0.01)};
  if (i > 0) to.x = std::max(to.x, curve_.points[i - 1].x + 0.01);
  if (i + 1 < curve_.count) to.x = std::min(to.x, curve_.points[i + 1].x - 0.01);
  to_be_ = curve_;
  to_be_.points[i] = to;
  put_points(begins);
}

void StrengthPlot::mouseMoveEvent(QMouseEvent* event) {
  if (!dragged_ || *dragged_ >= curve_.count || strength_ <= 0.0) return;
  move_point(*dragged_, at(event->position()), !std::exchange(begun_, true));
}

Vec2 StrengthPlot::at(const QPointF& p) const {
  return {xAxis->pixelToCoord(p.x()), yAxis->pixelToCoord(p.y()) / strength_};
}

void StrengthPlot::mouseReleaseEvent(QMouseEvent*) { dragged_.reset(); }

void StrengthPlot::remove_point(int point) {
  if (curve_.count <= 1) return;
  for (int i = point + 1; i < to_be_.count; ++i) to_be_.points[i - 1] = to_be_.points[i];
  --to_be_.count;
  put_points(true);
}

// What is no curve yet becomes one of the same course.
void StrengthPlot::add_point(const Vec2& added) {
  if (curve_.count == Curve::kMostPoints) return;
  if (curve_.count == 0) {
    chosen_ = 0;
    return put_points(true);
  }
  int at = 0;
  while (at < to_be_.count && to_be_.points[at].x < added.x) ++at;
  for (int i = to_be_.count; i > at; --i) to_be_.points[i] = to_be_.points[i - 1];
  to_be_.points[at] = {plain_number(added.x, 0.01), plain_number(added.y, 0.01)};
  ++to_be_.count;
  chosen_ = at;
  put_points(true);
}

// On a point: it goes. Elsewhere another comes.
void StrengthPlot::mouseDoubleClickEvent(QMouseEvent* event) {
  dragged_.reset();
  if (!of_field_ || strength_ <= 0.0) return;
  const int point = point_at(event->position());
  point >= 0 ? remove_point(point) : add_point(at(event->position()));
}

// Halfway to the next one, or as far beyond the last as that is from the one before.
Vec2 StrengthPlot::beside_chosen() const {
  const int i = std::max(chosen_, 0);
  if (i + 1 < curve_.count) return 0.5 * (curve_.points[i] + curve_.points[i + 1]);
  const double way = i > 0 ? curve_.points[i].x - curve_.points[i - 1].x : 1.0;
  return curve_.count > 0 ? curve_.points[i] + Vec2(way, 0.0) : Vec2(0.0);
}

void StrengthPlot::choose_point(int point) {
  chosen_ = point;
  emit redraw_asked();
}

void StrengthPlot::keyPressEvent(QKeyEvent* event) {
  if (!of_field_ || strength_ <= 0.0) return QCustomPlot::keyPressEvent(event);
  const bool shift = event->modifiers() & Qt::ShiftModifier;
  const auto nudge = [&](double x, double y) {
    if (chosen_ >= 0 && chosen_ < curve_.count)
      move_point(chosen_, curve_.points[chosen_] + Vec2(x * kNudge, y * kShareNudge) * (shift ? 10.0 : 1.0),
                 !event->isAutoRepeat());
  };
  switch (event->key()) {
    case Qt::Key_Left:
      return nudge(-1, 0);
    case Qt::Key_Right:
      return nudge(1, 0);
    case Qt::Key_Up:
      return nudge(0, 1);
    case Qt::Key_Down:
      return nudge(0, -1);
    case Qt::Key_Space:
      if (curve_.count > 0) choose_point((chosen_ + (shift ? curve_.count - 1 : 1)) % curve_.count);
      return;
    case Qt::Key_Insert:
      return add_point(beside_chosen());
    case Qt::Key_Delete:
      if (chosen_ >= 0 && chosen_ < curve_.count) remove_point(chosen_);
      return;
    default:
      QCustomPlot::keyPressEvent(event);
  }
}

void StrengthPlot::focusInEvent(QFocusEvent* event) {
  QCustomPlot::focusInEvent(event);
  if (event->reason() != Qt::MouseFocusReason && chosen_ < 0 && curve_.count > 0) chosen_ = 0;
  emit redraw_asked();
}

void StrengthPlot::focusOutEvent(QFocusEvent* event) {
  QCustomPlot::focusOutEvent(event);
  emit redraw_asked();
}

void StrengthPlot::paintEvent(QPaintEvent* event) {
  QCustomPlot::paintEvent(event);
  QPainter painter(this);
  theme::paint_focus(painter, *this);
}

}  // namespace lagniappe::app
