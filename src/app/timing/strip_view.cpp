// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/strip_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "theme/focus_ring.h"
#include "theme/theme.h"
#include "timing/badge.h"

namespace lagniappe::app {
namespace {

constexpr double kWords = 40.0, kBodies = 26.0, kSteps = 40.0, kLeft = 34.0, kFoot = 16.0;  // Pixels.
constexpr double kShift = 0.05;  // s of an arrow key.

QString cm(double metres) { return QObject::tr("%1 cm").arg(metres * 1e2, 0, 'f', 1); }

}  // namespace

StripView::StripView(TimingDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(420, 170);
  setAccessibleName(tr("A and B over a quarter of a second"));
  setAccessibleDescription(tr("Space replays both in slow motion; the arrow keys go on in time"));
  QElapsedTimer elapsed;
  elapsed.start();
  now_ = [elapsed] { return double(elapsed.nsecsElapsed()) * 1e-9; };
  frames_.setInterval(16);  // ms.
  connect(&frames_, &QTimer::timeout, this, qOverload<>(&QWidget::update));
  const auto anew = [this] { stale_ = true, update(); };
  connect(&desk, &TimingDesk::measured, this, anew);
  connect(&desk, &TimingDesk::chosen, this, anew);
}

void StripView::gather() {
  if (!std::exchange(stale_, false)) return;
  strips_ = {desk_.strip(desk_.a()), desk_.strip(desk_.b())};
}

void StripView::set_replaying(bool replaying) {
  if (replaying == replaying_) return;
  replaying_ = replaying;
  began_ = now_();
  replaying_ ? frames_.start() : frames_.stop();
  update();
  emit replay_changed(replaying);
}

double StripView::cursor() const {
  if (!replaying_) return pointed_.value_or(-1.0);
  return desk_.from() + std::fmod((now_() - began_) / kSlower, TimingDesk::kWindow);
}

const StripFrame* StripView::frame_at(const Strip& strip, double moment) const {
  const StripFrame* shown = nullptr;
  for (const StripFrame& frame : strip.frames) {
    if (frame.moment <= moment + 1e-9) shown = &frame;
  }
  return shown;
}

const StripFrame* StripView::shown_frame(int which) const {
  return replaying_ ? frame_at(strips_[std::size_t(which)], cursor()) : nullptr;
}

StripView::Axes StripView::axes_of(const Strip& strip, const QRectF& rect) const {
  Axes axes{};
  const QRectF inner = rect.adjusted(kLeft, kWords, -10.0, -kFoot);
  axes.bodies = QRectF(inner.left(), inner.top(), inner.width(), kBodies);
  axes.steps = QRectF(inner.left(), inner.bottom() - kSteps, inner.width(), kSteps);
  axes.way = QRectF(inner.left(), axes.bodies.bottom() + 4.0, inner.width(),
                    axes.steps.top() - axes.bodies.bottom() - 12.0);
  axes.from = strip.from;
  axes.seconds = strip.seconds;
  axes.most_step = 1e-3;
  // Both strips have the same scale, or they could not be compared.
  for (const Strip& each : strips_) {
    for (const StripPoint& p : each.exact)
      axes.low = std::min(axes.low, p.along), axes.high = std::max(axes.high, p.along);
    for (const StripFrame& f : each.frames) {
      axes.low = std::min(axes.low, f.along), axes.high = std::max(axes.high, f.along);
      axes.most_step = std::max(axes.most_step, f.step);
    }
  }
  const double room = std::max(0.04 * (axes.high - axes.low), 0.01);
  axes.low -= room, axes.high += room;
  return axes;
}

void StripView::paint_words(QPainter& painter, const QRectF& rect, int which) const {
  const TimingStudy& study = *desk_.study();
  const TimingCell cell = which == 0 ? desk_.a() : desk_.b();
  const TimingRow& row = study.row(cell);
  paint_badge(painter, {rect.left() + 6.0, rect.top() + 2.0, 16.0, 16.0}, which == 1);
  painter.setPen(theme::ink());
  painter.setFont(theme::text_font(13, true));
  const QRectF line(rect.left() + 28.0, rect.top(), rect.width() - 32.0, 19.0);
  QRectF taken;
  painter.drawText(line, Qt::AlignLeft | Qt::AlignVCenter, QString::fromStdString(word_of(row.drawing)),
                   &taken);
  painter.setFont(theme::text_font(12));
  painter.setPen(theme::ink2());
  const bool ticks = row.drawing.method != DrawMethod::InFrame;
  const QString rates = ticks ? tr("%1 ticks/s, %2 frames/s").arg(row.tick_rate).arg(row.draw_rate, 0, 'g', 4)
                              : tr("%1 frames/s, no ticks").arg(row.draw_rate, 0, 'g', 4);
  painter.drawText(line.adjusted(taken.width() + 8.0, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, rates);
  painter.setFont(theme::number_font(11));
  painter.setPen(theme::ink());
  painter.drawText(QRectF(rect.left() + 28.0, rect.top() + 19.0, rect.width() - 32.0, 18.0),
                   Qt::AlignLeft | Qt::AlignVCenter,
                   tr("lag %1 ms, at most %2  jitter %3 mm  pop %4 mm")
                       .arg(row.figures.body.lag * 1e3, 0, 'f', 1)
                       .arg(cm(row.figures.body.farthest))
                       .arg(row.figures.body.jitter * 1e3, 0, 'f', 1)
                       .arg(row.figures.body.pop * 1e3, 0, 'f', 0));
}

void StripView::paint_axes(QPainter& painter, const Axes& axes) const {
  painter.setFont(theme::number_font(10));
  painter.setPen(theme::ink2());
  for (int i = 0; i <= 5; ++i) {
    const double x = axes.steps.left() + axes.steps.width() * i / 5.0;
    const QRectF label(x - 30.0, axes.steps.bottom() + 1.0, 60.0, 14.0);
    painter.drawText(i == 5 ? label.translated(-14.0, 0.0) : label, Qt::AlignHCenter | Qt::AlignTop,
                     i == 5 ? tr("250 ms") : QString::number(50 * i));
  }
  painter.setPen(QPen(theme::rule(), 1));
  painter.drawLine(axes.steps.bottomLeft(), axes.steps.bottomRight());
  painter.drawLine(axes.way.bottomLeft(), axes.way.bottomRight());
  painter.setPen(theme::ink2());
  painter.drawText(QRectF(axes.way.left() + 4.0, axes.way.top(), 220.0, 14.0), Qt::AlignLeft | Qt::AlignTop,
                   tr("along the way, %1 m high").arg(axes.high - axes.low, 0, 'f', 2));
  painter.drawText(QRectF(axes.steps.left() + 4.0, axes.steps.top() - 8.0, 240.0, 14.0),
                   Qt::AlignLeft | Qt::AlignTop, tr("step, up to %1").arg(cm(axes.most_step)));
}

void StripView::paint_way(QPainter& painter, const Axes& axes, const Strip& strip, const QColor& colour) const {
  QPainterPath path;
  for (std::size_t i = 0; i < strip.exact.size(); ++i) {
    const QPointF p = axes.at(strip.exact[i].moment, strip.exact[i].along);
    i == 0 ? path.moveTo(p) : path.lineTo(p);
  }
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(theme::ink(), 1.4));
  painter.drawPath(path);
  for (const StripFrame& f : strip.frames) {
    const QPointF drawn = axes.at(f.moment, f.along), right = axes.at(f.moment, f.exact);
    painter.setPen(QPen(theme::ink2(), 1));
    painter.drawLine(drawn, right);
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawEllipse(drawn, 2.6, 2.6);
  }
  painter.setBrush(theme::sheet());
  painter.setPen(QPen(theme::ink(), 1.4));
  for (const StripPoint& tick : strip.ticks) painter.drawEllipse(axes.at(tick.moment, tick.along), 3.6, 3.6);
}

void StripView::paint_steps(QPainter& painter, const Axes& axes, const Strip& strip,
                            const QColor& colour) const {
  const double wide =
      std::clamp(axes.steps.width() / std::max(double(strip.frames.size()), 1.0) - 2.0, 1.0, 8.0);
  painter.setPen(Qt::NoPen);
  painter.setBrush(colour);
  for (const StripFrame& f : strip.frames) {
    const double x = axes.at(f.moment, 0.0).x(),
                 high = std::max((axes.steps.height() - 10.0) * f.step / axes.most_step, 1.0);
    painter.drawRect(QRectF(x - 0.5 * wide, axes.steps.bottom() - high, wide, high));
  }
}

void StripView::paint_moment(QPainter& painter, const Axes& axes, const Strip& strip) const {
  const double moment = cursor();
  const StripFrame* frame = moment < 0.0 ? nullptr : frame_at(strip, moment);
  if (frame == nullptr) return;
  const double x = axes.at(frame->moment, 0.0).x();
  painter.setPen(QPen(theme::brick(), 1.2));
  painter.drawLine(QPointF(x, axes.way.top()), QPointF(x, axes.steps.bottom()));
  painter.setFont(theme::number_font(11));
  const QString words =
      tr("frame at %1 ms: %2 off").arg((frame->moment - strip.from) * 1e3, 0, 'f', 1).arg(cm(frame->gap));
  const QRectF place(axes.steps.left(), axes.steps.top() - 8.0, axes.steps.width(), 14.0);
  painter.drawText(place, Qt::AlignRight | Qt::AlignTop, words);
}

// The body from above at this very frame, and where it ought to be by now: on a line that is the way.
void StripView::paint_bodies(QPainter& painter, const Axes& axes, const Strip& strip,
                             const QColor& colour) const {
  const double moment = cursor();
  const StripFrame* frame = moment < 0.0 ? nullptr : frame_at(strip, moment);
  const QRectF& lane = axes.bodies;
  painter.setPen(QPen(theme::rule(), 1));
  painter.drawLine(QPointF(lane.left(), lane.center().y()), QPointF(lane.right(), lane.center().y()));
  if (frame == nullptr) return;
  const double most = strip.exact.empty() ? 1.0 : std::max(axes.high - axes.low, 1e-3);
  const auto x = [&](double along) {
    return lane.left() + 12.0 + (lane.width() - 24.0) * (along - axes.low) / most;
  };
  // Time goes on also between frames: what is drawn stands still meanwhile.
  const auto now = std::upper_bound(strip.exact.begin(), strip.exact.end(), moment,
                                    [](double t, const StripPoint& p) { return t < p.moment; });
  const double right = now == strip.exact.begin() ? frame->exact : (now - 1)->along;
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(theme::ink(), 1.4));
  painter.drawEllipse(QPointF(x(right), lane.center().y()), 9.0, 9.0);
  painter.setPen(Qt::NoPen);
  QColor body = colour;
  body.setAlphaF(0.75f);
  painter.setBrush(body);
  painter.drawEllipse(QPointF(x(frame->along), lane.center().y()), 9.0, 9.0);
}

void StripView::paint_strip(QPainter& painter, const QRectF& rect, int which) const {
  const Strip& strip = strips_[std::size_t(which)];
  const QColor colour = which == 1 ? theme::teal() : theme::gold();
  const Axes axes = axes_of(strip, rect);
  paint_words(painter, rect, which);
  paint_axes(painter, axes);
  paint_way(painter, axes, strip, colour);
  paint_steps(painter, axes, strip, colour);
  paint_bodies(painter, axes, strip, colour);
  paint_moment(painter, axes, strip);
}

void StripView::paint(QPainter& painter, const QSizeF& size) const {
  if (desk_.study() == nullptr) return;
  painter.setRenderHint(QPainter::Antialiasing);
  const double half = 0.5 * size.width();
  for (const int which : {0, 1}) paint_strip(painter, {which * half, 0.0, half, size.height()}, which);
}

void StripView::paintEvent(QPaintEvent*) {
  gather();
  QPainter painter(this);
  paint(painter, size());
  theme::paint_focus(painter, *this);
}

void StripView::mousePressEvent(QMouseEvent* event) {
  setFocus(Qt::MouseFocusReason);
  grip_ = event->position().x();
}

void StripView::mouseMoveEvent(QMouseEvent* event) {
  if (desk_.study() == nullptr) return;
  const double half = 0.5 * width(), wide = half - kLeft - 10.0;
  if (event->buttons() & Qt::LeftButton) {
    // The strip is dragged along in time.
    const double by = event->position().x() - grip_;
    grip_ = event->position().x();
    return desk_.set_from(desk_.from() - by / wide * TimingDesk::kWindow);
  }
  const double x = std::fmod(event->position().x(), half) - kLeft;
  pointed_ = x < 0.0 || x > wide ? std::nullopt : std::optional(desk_.from() + x / wide * TimingDesk::kWindow);
  update();
}

void StripView::wheelEvent(QWheelEvent* event) {
  desk_.set_from(desk_.from() - event->angleDelta().y() / 120.0 * kShift);
}

void StripView::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
    case Qt::Key_Left:
      return desk_.set_from(desk_.from() - kShift);
    case Qt::Key_Right:
      return desk_.set_from(desk_.from() + kShift);
    case Qt::Key_Space:
      return set_replaying(!replaying_);
    default:
      QWidget::keyPressEvent(event);
  }
}

}  // namespace lagniappe::app
