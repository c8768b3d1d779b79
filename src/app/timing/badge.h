// SPDX-License-Identifier: GPL-3.0-or-later
// The marks of the two cells that are compared: A dashed, B filled, so that they are told apart without colour.
#pragma once

#include <QPainter>

#include "theme/theme.h"

namespace lagniappe::app {

inline void paint_badge(QPainter& painter, const QRectF& badge, bool is_b) {
  const QColor colour = is_b ? theme::teal() : theme::brick();
  painter.setPen(QPen(colour, 1.4, is_b ? Qt::SolidLine : Qt::DashLine));
  painter.setBrush(is_b ? colour : theme::sheet());
  painter.drawEllipse(badge);
  painter.setPen(is_b ? theme::sheet() : colour);
  painter.setFont(theme::text_font(11, true));
  painter.drawText(badge, Qt::AlignCenter, is_b ? "B" : "A");
}

}  // namespace lagniappe::app
