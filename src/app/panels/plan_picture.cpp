// SPDX-License-Identifier: GPL-3.0-or-later
#include "panels/plan_picture.h"

#include <cmath>

#include "theme/state_colours.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kMargin = 40.0, kAround = 4.0;  // Pixels; m of course shown around the ways.
constexpr double kPlanShare = 0.62;              // Of the height.

// How a place of the course lies on one of the two drawings, in metres, y downwards.
using Project = QPointF (*)(const Vec3&);
QPointF from_above(const Vec3& p) { return {p.x, p.z}; }
QPointF from_side(const Vec3& p) { return {p.x, -p.y}; }

struct Sheet {
  QRectF area;
  QTransform to_pixels;
  double scale;
  Project project;
  QPointF at(const Vec3& p) const { return to_pixels.map(project(p)); }
};

QRectF reach_of(const Run& run, Project project) {
  QPolygonF points;
  const std::size_t by = std::max<std::size_t>(1, run.ticks() / 4000);
  for (std::size_t t = 0; t <= run.ticks(); t += by) points.append(project(run.state(t).foot_C));
  return points.boundingRect();
}

Sheet sheet_for(const QRectF& area, const QRectF& metres, Project project) {
  const QRectF wanted = metres.adjusted(-kAround, -kAround, kAround, kAround);
  const double scale = std::min(area.width() / wanted.width(), area.height() / wanted.height());
  QTransform fit;
  fit.translate(area.center().x(), area.center().y());
  fit.scale(scale, scale);
  fit.translate(-wanted.center().x(), -wanted.center().y());
  return {area, fit, scale, project};
}

void paint_course(QPainter& painter, const Sheet& sheet, const Place& place) {
  painter.setPen(QPen(theme::ink2(), 0.6));
  const auto point = [&](const LineVertex& v) {
    return sheet.at(place.drawn.origin_C + Vec3(v.position[0], v.position[1], v.position[2]));
  };
  const auto& creases = place.drawn.creases;
  for (std::size_t i = 0; i + 1 < creases.size(); i += 2) {
    const QLineF line(point(creases[i]), point(creases[i + 1]));
    if (QRectF(line.p1(), line.p2()).normalized().adjusted(0, 0, 1, 1).intersects(sheet.area))
      painter.drawLine(line);
  }
}

void paint_way(QPainter& painter, const Sheet& sheet, const Run& run, const theme::RunStyle& style) {
  QPolygonF way;
  const auto flush = [&] {
    painter.drawPolyline(way);
    way.clear();
  };
  painter.setPen(QPen(style.colour, 2.0, style.pen));
  painter.setBrush(Qt::NoBrush);
  for (std::size_t t = 0; t <= run.ticks(); ++t) {
    if (t > 0 && run.state(t).times_put_home != run.state(t - 1).times_put_home) flush();
    const QPointF p = sheet.at(run.state(t).foot_C);
    if (way.isEmpty() || QLineF(way.last(), p).length() > 0.4 || t == run.ticks()) way.append(p);
  }
  flush();
  painter.setPen(Qt::NoPen);
  painter.setBrush(style.colour);
  painter.drawEllipse(sheet.at(run.state(0).foot_C), 4, 4);
  painter.drawRect(QRectF(sheet.at(run.last().foot_C) - QPointF(4, 4), QSizeF(8, 8)));
}

// A length that is a round number of metres.
void paint_scale(QPainter& painter, const Sheet& sheet) {
  double metres = 1.0;
  for (const double next : {2.0, 5.0, 10.0, 20.0, 50.0, 100.0}) {
    if (metres * sheet.scale < 70.0) metres = next;
  }
  const QPointF from(sheet.area.left() + 8, sheet.area.bottom() - 8),
      to = from + QPointF(metres * sheet.scale, 0);
  painter.setPen(QPen(theme::ink(), 1.5));
  painter.drawLine(from, to);
  for (const QPointF& end : {from, to}) painter.drawLine(end - QPointF(0, 4), end + QPointF(0, 4));
  painter.setFont(theme::number_font(11));
  painter.drawText(to + QPointF(8, 4), QString("%1 m").arg(metres));
}

void paint_sheet(QPainter& painter, const Sheet& sheet, const QString& title, const Recording& shown,
                 const std::vector<std::shared_ptr<const Ghost>>& ghosts) {
  painter.save();
  painter.setPen(QPen(theme::rule(), 1));
  painter.setBrush(theme::sheet());
  painter.drawRect(sheet.area);
  painter.setClipRect(sheet.area);
  paint_course(painter, sheet, *shown.place);
  for (std::size_t g = ghosts.size(); g-- > 0;)
    paint_way(painter, sheet, ghosts[g]->recording->run, theme::ghost_style(g));
  paint_way(painter, sheet, shown.run, theme::shown_style());
  paint_scale(painter, sheet);
  painter.setFont(theme::text_font(12, true));
  painter.setPen(theme::ink());
  painter.drawText(sheet.area.adjusted(8, 6, 0, 0), Qt::AlignTop | Qt::AlignLeft, title);
  painter.restore();
}

}  // namespace

void paint_plan(QPainter& painter, const QSize& size, const Recording& shown,
                const std::vector<std::shared_ptr<const Ghost>>& ghosts) {
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(QRect(QPoint(), size), theme::paper());
  QRectF above = reach_of(shown.run, from_above), side = reach_of(shown.run, from_side);
  for (const auto& ghost : ghosts) {
    above = above.united(reach_of(ghost->recording->run, from_above));
    side = side.united(reach_of(ghost->recording->run, from_side));
  }
  const QRectF all = QRectF(QPointF(), size).adjusted(kMargin / 2, kMargin, -kMargin / 2, -kMargin / 2);
  QRectF plan = all, elevation = all;
  plan.setHeight(all.height() * kPlanShare);
  elevation.setTop(plan.bottom() + 10.0);
  painter.setFont(theme::text_font(14, true));
  painter.setPen(theme::ink());
  QString title = QString::fromStdString(shown.place->course.name + ", " + shown.take.profile.name);
  if (!shown.take.about.name.empty()) title += ": " + QString::fromStdString(shown.take.about.name);
  painter.drawText(QRectF(all.left(), 0, all.width(), kMargin), Qt::AlignVCenter | Qt::AlignLeft, title);
  paint_sheet(painter, sheet_for(plan, above, from_above), "Plan, from above", shown, ghosts);
  paint_sheet(painter, sheet_for(elevation, side, from_side), "Elevation, along -Z", shown, ghosts);
}

}  // namespace lagniappe::app
