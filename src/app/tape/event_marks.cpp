// SPDX-License-Identifier: GPL-3.0-or-later
#include "tape/event_marks.h"

#include "theme/theme.h"

namespace lagniappe::app {

std::span<const EventMark> event_marks() {
  using theme::Colours;
  static const EventMark marks[] = {
      {Event::Jump, 0, MarkShape::Hop, &Colours::sky, "jump"},
      {Event::JumpRefused, 0, MarkShape::Cross, &Colours::brick, "refused jump"},
      {Event::Landing, 0, MarkShape::Rest, &Colours::plum, "landing"},
      {Event::Thrown, 0, MarkShape::Lift, &Colours::gold, "thrown by a zone"},
      {Event::Step, 1, MarkShape::Rise, &Colours::gold, "step"},
      {Event::StepRefused, 1, MarkShape::Cross, &Colours::brick, "refused step"},
      {Event::Snap, 1, MarkShape::Drop, &Colours::ink2, "snap"},
      {Event::Mantle, 1, MarkShape::Corner, &Colours::teal, "mantle"},
      {Event::MantleRefused, 1, MarkShape::Barred, &Colours::brick, "refused mantle"},
      {Event::Caught, 1, MarkShape::Hands, &Colours::teal, "taking hold of a rim or a wall"},
      {Event::LetGo, 1, MarkShape::Barred, &Colours::plum, "letting go"},
      {Event::Wall, 2, MarkShape::Bar, &Colours::plum, "wall"},
      {Event::Ceiling, 2, MarkShape::Roof, &Colours::sky, "ceiling"},
      {Event::PushOut, 2, MarkShape::Diamond, &Colours::brick, "push-out"},
      {Event::Pushed, 2, MarkShape::Arrow, &Colours::gold, "pushed by a piece"},
  };
  return marks;
}

void paint_mark(QPainter& painter, MarkShape shape, const QColor& colour, const QPointF& at, double size) {
  const double h = size / 2.0;
  const auto fill = [&](const QPolygonF& polygon) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawPolygon(polygon);
  };
  const auto stroke = [&](const QPointF& from, const QPointF& to) { painter.drawLine(at + from, at + to); };
  painter.setPen(QPen(colour, 1.6));
  switch (shape) {
    case MarkShape::Rise:
      return fill({at + QPointF(-h, h), at + QPointF(h, h), at + QPointF(0, -h)});
    case MarkShape::Drop:
      return fill({at + QPointF(-h, -h), at + QPointF(h, -h), at + QPointF(0, h)});
    case MarkShape::Diamond:
      return fill({at + QPointF(-h, 0), at + QPointF(0, -h), at + QPointF(h, 0), at + QPointF(0, h)});
    case MarkShape::Arrow:
      return fill({at + QPointF(-h, -h), at + QPointF(h, 0), at + QPointF(-h, h)});
    case MarkShape::Bar:
      return fill({at + QPointF(-1.5, -h), at + QPointF(1.5, -h), at + QPointF(1.5, h), at + QPointF(-1.5, h)});
    case MarkShape::Cross:
      stroke({-h, -h}, {h, h});
      stroke({-h, h}, {h, -h});
      return;
    case MarkShape::Roof:
      stroke({-h, -h}, {h, -h});
      stroke({0, -h}, {0, h});
      return;
    case MarkShape::Hop:
      stroke({-h, h}, {0, -h});
      stroke({0, -h}, {h, h});
      return;
    case MarkShape::Lift:
      stroke({0, h}, {0, -h});
      stroke({-h, 0}, {0, -h});
      stroke({h, 0}, {0, -h});
      return;
    case MarkShape::Corner:
      stroke({-h, h}, {-h, -h});
      stroke({-h, -h}, {h, -h});
      return;
    case MarkShape::Hands:
      stroke({-h, -h}, {h, -h});
      stroke({-0.5 * h, -h}, {-0.5 * h, h});
      stroke({0.5 * h, -h}, {0.5 * h, h});
      return;
    case MarkShape::Barred:
      painter.setBrush(Qt::NoBrush);
      painter.drawRect(QRectF(at.x() - h, at.y() - h, size, size));
      stroke({-h, h}, {h, -h});
      return;
    case MarkShape::Rest:
      stroke({-h, -h}, {0, h});
      stroke({0, h}, {h, -h});
      return;
  }
}

}  // namespace lagniappe::app
