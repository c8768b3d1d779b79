// SPDX-License-Identifier: GPL-3.0-or-later
// The shapes that stand for events on the tape: each is told by its shape, and by its colour too.
#pragma once

#include <QPainter>
#include <QString>
#include <span>

#include "lagniappe/run.h"
#include "theme/theme.h"

namespace lagniappe::app {

enum class MarkShape { Rise, Cross, Drop, Bar, Roof, Diamond, Arrow, Hop, Rest, Corner, Barred, Hands, Lift };

struct EventMark {
  Event event;
  int row;  // Of the contacts lane, from the top.
  MarkShape shape;
  QColor theme::Colours::*colour;
  const char* text;
};

inline constexpr int kContactRows = 3;
std::span<const EventMark> event_marks();

// Paints the shape around `at`, about `size` high.
void paint_mark(QPainter& painter, MarkShape shape, const QColor& colour, const QPointF& at, double size);

}  // namespace lagniappe::app
