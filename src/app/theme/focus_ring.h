// SPDX-License-Identifier: GPL-3.0-or-later
// What a widget that paints itself shows while the keyboard is its own.
#pragma once

#include <QPainter>
#include <QWidget>

#include "theme/theme.h"

namespace lagniappe::app::theme {

inline void paint_focus(QPainter& painter, const QWidget& widget) {
  if (!widget.hasFocus()) return;
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(teal(), 1));
  painter.drawRect(widget.rect().adjusted(0, 0, -1, -1));
}

}  // namespace lagniappe::app::theme
