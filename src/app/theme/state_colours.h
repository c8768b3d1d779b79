// SPDX-License-Identifier: GPL-3.0-or-later
// The colours that states and runs have everywhere: in the view, on the tape, in tables.
#pragma once

#include <QColor>

#include "lagniappe/states.h"

namespace lagniappe::app::theme {

QColor state_colour(StateId state, const StateChart& chart);
// What is legible on it.
QColor ink_on(const QColor& colour);

// Of the shown take, and of the n-th ghost; told apart by the pattern of their lines too.
struct RunStyle {
  QColor colour;
  Qt::PenStyle pen;
};
RunStyle shown_style();
RunStyle ghost_style(std::size_t n);

// Of the n-th field of a course.
QColor field_colour(std::size_t n);

}  // namespace lagniappe::app::theme
