// SPDX-License-Identifier: GPL-3.0-or-later
#include "panels/intent_picture.h"

#include <QPainter>
#include <cmath>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kPlan = 200, kSlope = 110, kLine = 17, kAside = 14;  // Pixels.

void paint_arrow(QPainter& painter, const QPointF& from, const QPointF& to, const QPen& pen) {
  const QPointF way = to - from;
  const double size = std::hypot(way.x(), way.y());
  if (size < 2.0) return;
  const QPointF along = way / size, side(-along.y(), along.x());
  painter.setPen(pen);
  painter.drawLine(from, to);
  painter.setPen(QPen(pen.color(), pen.widthF()));
  painter.setBrush(pen.color());
  painter.drawPolygon(QPolygonF({to, to - along * 8.0 + side * 3.5, to - along * 8.0 - side * 3.5}));
}

QString text_of(const Vec3& v) {
  return QString("%1, %2, %3").arg(v.x, 0, 'f', 2).arg(v.y, 0, 'f', 2).arg(v.z, 0, 'f', 2);
}

double angle_between(const Vec3& a, const Vec3& b) {
  return degrees(std::atan2(length(cross(a, b)), dot(a, b)));
}

}  // namespace

IntentPicture::IntentPicture(const DriveSession& session, QWidget* parent)
    : QWidget(parent), session_(session) {
  setMinimumHeight(kPlan + kSlope + 12 * kLine);
  setAccessibleName(tr("From the stick to the ground"));
  tell();
}

void IntentPicture::refresh() {
  if (revision_ == session_.revision() && playhead_ == session_.playhead()) return;
  revision_ = session_.revision();
  playhead_ = session_.playhead();
  facts_ = intent_facts(session_);
  tell();
  update();
}

void IntentPicture::tell() {
  lines_.clear();
  if (!facts_) {
    lines_ += tr("The start: no stick has been held yet.");
    return setAccessibleDescription(lines_.front());
  }
  const IntentFacts& f = *facts_;
  lines_ += tr("camera ahead %1").arg(text_of(f.eye.forward_C));
  lines_ += tr("camera right %1").arg(text_of(f.eye.right_C()));
  lines_ += tr("up of the ground's plane %1").arg(text_of(f.up_C));
  lines_ +=
      tr("stick %1, %2: %3 long").arg(f.raw.x, 0, 'f', 2).arg(f.raw.y, 0, 'f', 2).arg(f.unlimited(), 0, 'f', 2);
  const double limited = length(f.stick);
  lines_ += f.unlimited() > 1.0 + 1e-9 ? tr("limited to %1, else %2 % faster")
                                             .arg(limited, 0, 'f', 2)
                                             .arg(100.0 * (f.unlimited() - 1.0), 0, 'f', 0)
                                       : tr("without its dead zone %1 long").arg(limited, 0, 'f', 2);
  lines_ += tr("laid onto the ground %1").arg(text_of(f.laid_C));
  const auto method = [&](const QString& name, const std::optional<Vec3>& way) {
    if (limited <= 0.0) return;
    lines_ += way ? tr("%1: %2\u00b0 off that").arg(name).arg(angle_between(*way, f.laid_C), 0, 'f', 1)
                  : tr("%1: has no direction here").arg(name);
  };
  method(tr("axes projected"), f.projected_C);
  method(tr("cross products with up"), f.crossed_C);
  if (f.asked_C)
    lines_ += tr("asked for %1 m/s: %2").arg(length(*f.asked_C), 0, 'f', 2).arg(text_of(*f.asked_C));
  if (f.normal_C) {
    lines_ += tr("ground's normal %1, %2\u00b0 off up")
                  .arg(text_of(*f.normal_C))
                  .arg(angle_between(*f.normal_C, f.up_C), 0, 'f', 1);
    if (limited > 0.0)
      lines_ += tr("projected onto it %1 of %2 long; one goes the whole")
                    .arg(length(f.on_slope_C()), 0, 'f', 3)
                    .arg(limited, 0, 'f', 3);
  } else {
    lines_ += tr("in the air: no slope");
  }
  setAccessibleDescription(lines_.join("; "));
}

void IntentPicture::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), theme::sheet());
  double y = 8.0;
  if (facts_) {
    paint_plan(painter, QRectF(0.0, y, width(), kPlan));
    paint_slope(painter, QRectF(0.0, y + kPlan, width(), kSlope));
    y += kPlan + kSlope;
  }
  painter.setFont(theme::number_font(11));
  painter.setPen(theme::ink());
  for (const QString& line : lines_)
    painter.drawText(QRectF(kAside, y, width() - kAside, kLine), Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(line, Qt::ElideRight, width() - 2 * kAside)),
        y += kLine;
}

// Seen along up, with what is ahead of the laid picture at the top.
void IntentPicture::paint_plan(QPainter& painter, const QRectF& area) const {
  const IntentFacts& f = *facts_;
  const StickAxes axes = stick_axes(f.eye, f.up_C);
  const double unit = 0.31 * area.height();
  const QPointF middle = area.center() + QPointF(-40.0, 0.0);
  const auto at = [&](const Vec3& v) {
    return middle + QPointF(dot(v, axes.right_C), -dot(v, axes.away_C)) * unit;
  };
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(theme::rule(), 1));
  painter.drawRect(QRectF(middle - QPointF(unit, unit), QSizeF(2.0 * unit, 2.0 * unit)));
  painter.setPen(QPen(theme::ink2(), 1.2));
  painter.drawEllipse(middle, unit, unit);
  // The camera's axes as they lie over the plane: short where they point along up.
  const QPen camera(theme::ink2(), 1.2);
  paint_arrow(painter, middle, at(f.eye.forward_C * 1.25), camera);
  paint_arrow(painter, middle, at(f.eye.right_C() * 1.25), camera);
  const Vec3 unlimited = axes.right_C * f.raw.x + axes.away_C * f.raw.y;
  if (length(unlimited) > 1.0 + 1e-9)
    paint_arrow(painter, middle, at(unlimited), QPen(theme::brick(), 1.4, Qt::DotLine));
  if (f.projected_C) paint_arrow(painter, middle, at(*f.projected_C), QPen(theme::plum(), 3.0, Qt::DashLine));
  if (f.crossed_C) paint_arrow(painter, middle, at(*f.crossed_C), QPen(theme::sky(), 3.0, Qt::DashDotLine));
  paint_arrow(painter, middle, at(f.laid_C), QPen(theme::gold(), 2.2));
  painter.setFont(theme::text_font(11));
  const std::pair<QString, QPen> legend[] = {{tr("camera"), camera},
                                             {tr("laid (ours)"), QPen(theme::gold(), 2.2)},
                                             {tr("projected"), QPen(theme::plum(), 3.0, Qt::DashLine)},
                                             {tr("crossed"), QPen(theme::sky(), 3.0, Qt::DashDotLine)},
                                             {tr("not limited"), QPen(theme::brick(), 1.4, Qt::DotLine)}};
  double y = area.top() + 24.0;
  const double x = middle.x() + unit + 30.0;
  for (const auto& [name, pen] : legend) {
    painter.setPen(pen);
    painter.drawLine(QPointF(x, y), QPointF(x + 22.0, y));
    painter.setPen(theme::ink());
    painter.drawText(QPointF(x + 28.0, y + 4.0), name);
    y += 19.0;
  }
}

// From the side, across the way that is asked for: it rises to the right, or falls.
void IntentPicture::paint_slope(QPainter& painter, const QRectF& area) const {
  const IntentFacts& f = *facts_;
  const Vec3 ahead = unit_or(f.laid_C, unit_or(across(f.eye.forward_C, f.up_C), Vec3(0.0)));
  if (!f.normal_C || ahead == Vec3(0.0)) return;
  const double unit = 0.55 * area.height();
  const QPointF foot(area.center().x() - 20.0, area.center().y() + 14.0);
  const auto at = [&](const Vec3& v) { return foot + QPointF(dot(v, ahead), -dot(v, f.up_C)) * unit; };
  const Vec3 slope = unit_or(ahead - *f.normal_C * dot(ahead, *f.normal_C), ahead);
  painter.setPen(QPen(theme::rule(), 1, Qt::DashLine));
  painter.drawLine(at(ahead * -1.6), at(ahead * 1.9));
  painter.setPen(QPen(theme::ink(), 2));
  painter.drawLine(at(slope * -1.6), at(slope * 1.9));
  paint_arrow(painter, foot, at(*f.normal_C * 0.7), QPen(theme::moss(), 1.6));
  painter.setFont(theme::text_font(11));
  painter.setPen(theme::ink());
  painter.drawText(at(*f.normal_C * 0.7) + QPointF(5.0, 2.0), tr("normal"));
  if (length(f.laid_C) <= 0.0) return;
  paint_arrow(painter, foot, at(f.laid_C), QPen(theme::gold(), 2.2));
  const Vec3 on_slope = f.on_slope_C();
  paint_arrow(painter, foot, at(on_slope), QPen(theme::teal(), 2.2));
  painter.setPen(QPen(theme::ink2(), 1, Qt::DotLine));
  painter.drawLine(at(f.laid_C), at(on_slope));
}

}  // namespace lagniappe::app
