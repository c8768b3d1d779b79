// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/pointer_turn.h"

namespace lagniappe::app {
namespace {

constexpr double kFarthestMove =
    80.0;                  // Device pixels; at first, what is farther is where the pointer was before.
constexpr int kExact = 4;  // At scales of quarters these logical pixels are whole device pixels.

}  // namespace

QPoint PointerTurn::exact(const QPoint& middle) {
  return {middle.x() / kExact * kExact, middle.y() / kExact * kExact};
}

void PointerTurn::begin(const QPoint& middle, double scale) {
  scale_ = scale;
  last_ = middle_ = QPointF(middle) * scale;
  arriving_ = true;
}

QPointF PointerTurn::seen(const QPointF& at) {
  const QPointF here = at * scale_;
  const QPointF moved = here - (only_follows_ ? last_ : middle_);
  last_ = here;
  if (arriving_ && moved.manhattanLength() > kFarthestMove) return {};
  arriving_ = false;
  return moved;
}

}  // namespace lagniappe::app
