// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/sketch.h"

#include <QFontMetricsF>
#include <algorithm>

#include "theme/state_colours.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kTick = 3.5;   // Half of a dimension line's tick, pixels.
constexpr double kApart = 4.0;  // Between a label and what it is about.
constexpr int kRings = 7;       // How far off a label is tried.

QPen pen_of(Sketch::Ink ink) {
  using Ink = Sketch::Ink;
  switch (ink) {
    case Ink::Now:
      return QPen(theme::teal(), 2.0, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
    case Ink::Reference:
      return QPen(theme::gold().darker(115), 1.4, Qt::DashLine);
    case Ink::Solid:
      return QPen(theme::ink(), 1.4, Qt::SolidLine, Qt::SquareCap, Qt::MiterJoin);
    case Ink::Dimension:
      return QPen(theme::ink2(), 1.0);
    case Ink::Faint:
      return QPen(theme::rule().darker(112), 1.0, Qt::DotLine);
    case Ink::Warning:
      return QPen(theme::brick(), 1.4, Qt::DashDotLine);
    case Ink::Early:
      break;
  }
  return QPen(theme::sky(), 4.0, Qt::SolidLine, Qt::FlatCap);
}

// Whether the segment comes into the box. Clips it by the four sides.
bool meets(const QRectF& box, const QPointF& a, const QPointF& b) {
  double from = 0.0, to = 1.0;
  const QPointF d = b - a;
  const auto side = [&](double step, double room) {
    if (step == 0.0) return room >= 0.0;
    const double t = room / step;
    (step < 0.0 ? from : to) = step < 0.0 ? std::max(from, t) : std::min(to, t);
    return from <= to;
  };
  return side(-d.x(), a.x() - box.left()) && side(d.x(), box.right() - a.x()) &&
         side(-d.y(), a.y() - box.top()) && side(d.y(), box.bottom() - a.y());
}

// The first free place around a point, ring by ring; nothing where there is none near.
template <typename IsFree>
std::optional<QRectF> free_place(const QPointF& anchor, const QSizeF& size, const IsFree& is_free) {
  constexpr QPointF kSides[] = {{1, -0.5}, {-1, -0.5}, {1, -1}, {-1, -1}, {0, -1},
                                {0, 1},    {1, 1},     {-1, 1}, {1, 0.5}, {-1, 0.5}};
  for (int ring = 0; ring < kRings; ++ring) {
    const double off = kApart + 7.0 * ring;
    for (const QPointF& side : kSides) {
      const QPointF centre =
          anchor + QPointF(side.x() * (off + 0.5 * size.width()), side.y() * (off + 0.5 * size.height()));
      const QRectF box(centre - QPointF(0.5 * size.width(), 0.5 * size.height()), size);
      if (is_free(box)) return box;
    }
  }
  return std::nullopt;
}

}  // namespace

QFont label_font() { return theme::number_font(10); }

Sketch::Sketch(const Extent& extent, const QRectF& area, double footer) : area_(area), footer_(footer) {
  const double width = std::max(extent.right - extent.left, 1e-9),
               height = std::max(extent.top - extent.bottom, 1e-9);
  scale_ = Vec2(area.width() / width, area.height() / height);
  if (extent.to_scale) scale_ = Vec2(std::min(scale_.x, scale_.y));
  const double left = area.left() + 0.5 * (area.width() - width * scale_.x);
  origin_ = QPointF(left - extent.left * scale_.x, area.bottom() + extent.bottom * scale_.y);
}

void Sketch::line(const std::vector<Vec2>& points, Ink ink) {
  QPolygonF polygon;
  for (const Vec2& p : points) polygon.append(at(p));
  strokes_.push_back({polygon, ink, false});
}

void Sketch::area(const std::vector<Vec2>& points, Ink ink) {
  line(points, ink);
  strokes_.back().filled = true;
}

void Sketch::dimension(const Vec2& a, const Vec2& b, const QString& text) {
  const Vec2 way = (b - a) * scale_;
  const double size = std::max(glm::length(way), 1e-9);
  const Vec2 tick = Vec2(-way.y, way.x) * (kTick / size) / scale_;
  line({a, b}, Ink::Dimension);
  line({a - tick, a + tick}, Ink::Dimension);
  line({b - tick, b + tick}, Ink::Dimension);
  label(0.5 * (a + b), text);
}

void Sketch::label(const Vec2& where, const QString& text, Ink ink, const std::optional<Vec2>& or_there) {
  wanted_.push_back({{at(where)}, text, ink});
  if (or_there) wanted_.back().at.push_back(at(*or_there));
}

void Sketch::note(const QString& text, Ink ink, bool right) {
  const QFontMetricsF metrics(label_font());
  const QSizeF size(metrics.horizontalAdvance(text) + 2.0, metrics.height());
  QPointF at(right ? area_.right() - size.width() + 8.0 : area_.left() - 8.0,
             area_.bottom() + footer_ - size.height() + 4.0);
  for (const Placed& other : notes_) {
    if (other.box.intersects(QRectF(at, size))) at.ry() -= size.height();
  }
  notes_.push_back({QRectF(at, size), text, ink, true});
}

void Sketch::capsule(const Vec2& foot, double radius, double height, Ink ink) {
  std::vector<Vec2> points;
  for (int i = 0; i <= 48; ++i) {
    const double angle = kPi * i / 24.0;
    const double end = i <= 24 ? height - radius : radius;
    points.emplace_back(foot.x + radius * std::cos(angle), foot.y + end + radius * std::sin(angle));
  }
  points.push_back(points.front());
  line(points, ink);
}

void Sketch::keep_clear(const Vec2& where, double pixels) {
  clear_.push_back(QRectF(at(where) - QPointF(pixels, pixels), QSizeF(2 * pixels, 2 * pixels)));
}

bool Sketch::covers_lines(const QRectF& box) const {
  for (const Stroke& stroke : strokes_) {
    if (stroke.filled && stroke.points.containsPoint(box.center(), Qt::OddEvenFill)) return true;
    if (stroke.ink == Ink::Faint) continue;
    for (int i = 1; i < stroke.points.size(); ++i) {
      if (meets(box, stroke.points[i - 1], stroke.points[i])) return true;
    }
  }
  return false;
}

// Labels are few and the area is small: every place around the point, ring by ring, until one is free.
void Sketch::settle() const {
  if (std::exchange(settled_, true)) return;
  const QFontMetricsF metrics(label_font());
  placed_ = notes_;
  for (const Wanted& w : wanted_) {
    const QSizeF size(metrics.horizontalAdvance(w.text) + 2.0, metrics.height());
    const auto is_free = [&](const QRectF& box) {
      const auto meets_box = [&](const QRectF& other) { return other.intersects(box); };
      return area_.adjusted(-11, -7, 11, 7).contains(box) &&
             std::none_of(clear_.begin(), clear_.end(), meets_box) &&
             std::none_of(placed_.begin(), placed_.end(),
                          [&](const Placed& p) { return p.box.intersects(box); }) &&
             !covers_lines(box);
    };
    std::optional<QRectF> found;
    for (const QPointF& anchor : w.at) {
      if (!found) found = free_place(anchor, size, is_free);
    }
    const QRectF beside(w.at.front() + QPointF(kApart, -size.height()), size);
    placed_.push_back({found.value_or(beside), w.text, w.ink, found.has_value()});
  }
}

const std::vector<Sketch::Placed>& Sketch::labels() const {
  settle();
  return placed_;
}

void Sketch::paint(QPainter& painter) const {
  for (const Stroke& stroke : strokes_) {
    if (stroke.filled) {
      QColor fill = pen_of(stroke.ink).color();
      fill.setAlpha(38);
      painter.setPen(Qt::NoPen);
      painter.setBrush(fill);
      painter.drawPolygon(stroke.points);
      continue;
    }
    painter.setPen(pen_of(stroke.ink));
    painter.setBrush(Qt::NoBrush);
    painter.save();
    painter.setClipRect(area_.adjusted(-3, -3, 3, 3));
    painter.drawPolyline(stroke.points);
    painter.restore();
  }
  painter.setFont(label_font());
  for (const Placed& p : labels()) {
    if (!p.clear) continue;  // Its number stands below the drawing too.
    painter.setPen(p.ink == Ink::Warning ? theme::brick()
                   : p.ink == Ink::Early ? theme::sky().darker(130)
                                         : theme::ink());
    painter.drawText(p.box, Qt::AlignCenter, p.text);
  }
}

}  // namespace lagniappe::app
