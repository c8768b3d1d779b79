// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/stick_picture.h"

#include <cmath>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

QPointF at(const QPointF& middle, double radius, const Vec2& stick) {
  return middle + QPointF(stick.x, -stick.y) * radius;
}

}  // namespace

void paint_stick(QPainter& painter, const QPointF& middle, double radius, const StickDrawn& stick) {
  painter.setPen(QPen(theme::ink2(), 1.2));
  painter.setBrush(Qt::NoBrush);
  painter.drawEllipse(middle, radius, radius);
  painter.setPen(QPen(theme::rule(), 1.0));
  painter.drawLine(at(middle, radius, {-1.0, 0.0}), at(middle, radius, {1.0, 0.0}));
  painter.drawLine(at(middle, radius, {0.0, -1.0}), at(middle, radius, {0.0, 1.0}));
  painter.setPen(QPen(theme::ink2(), 1.0, Qt::DotLine));
  painter.setBrush(theme::colours().field);
  painter.drawEllipse(middle, radius * stick.dead_zone, radius * stick.dead_zone);
  const QPointF raw = at(middle, radius, stick.raw), shaped = at(middle, radius, stick.shaped);
  painter.setPen(QPen(theme::gold(), 1.5));
  painter.drawLine(raw, shaped);
  painter.setBrush(Qt::NoBrush);
  painter.drawEllipse(raw, 5.0, 5.0);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme::teal());
  painter.drawEllipse(shaped, 4.0, 4.0);
}

double turn_share(const Profile::Look& look, const Vec2& raw) {
  return std::pow(stick_push(raw, look.dead_zone), look.stick_power);
}

void paint_turn_curve(QPainter& painter, const QRectF& area, const Profile::Look& look, const Vec2& raw) {
  const auto point = [&](double push) {
    return QPointF(area.left() + push * area.width(),
                   area.bottom() - turn_share(look, {push, 0.0}) * area.height());
  };
  painter.setPen(QPen(theme::rule(), 1.0));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(area);
  QPolygonF curve;
  constexpr int kSteps = 48;
  for (int i = 0; i <= kSteps; ++i) curve.append(point(double(i) / kSteps));
  painter.setPen(QPen(theme::teal(), 1.5));
  painter.drawPolyline(curve);
  painter.setPen(QPen(theme::gold(), 1.5));
  painter.drawEllipse(point(std::min(length(raw), 1.0)), 4.0, 4.0);
}

void paint_trigger(QPainter& painter, const QRectF& area, double pulled, double pressed_from) {
  const double mark = area.bottom() - pressed_from * area.height();
  painter.setPen(QPen(theme::ink2(), 1.2));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(area);
  QRectF full = area;
  full.setTop(area.bottom() - pulled * area.height());
  painter.setPen(Qt::NoPen);
  painter.setBrush(pulled >= pressed_from ? theme::teal() : theme::gold());
  painter.drawRect(full.adjusted(1.5, 0.0, -1.5, -1.0));
  painter.setPen(QPen(theme::ink(), 1.2, Qt::DotLine));
  painter.drawLine(QPointF(area.left() - 3.0, mark), QPointF(area.right() + 3.0, mark));
}

}  // namespace lagniappe::app
