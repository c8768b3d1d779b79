// SPDX-License-Identifier: GPL-3.0-or-later
// A stick as it is and as it counts, drawn: within its rim the dead zone, a ring where it really stands, and a
// dot where it counts as standing.
#pragma once

#include <QPainter>

#include "lagniappe/lagniappe.h"

namespace lagniappe::app {

struct StickDrawn {
  Vec2 raw, shaped;  // Each no longer than 1, or a corner of the square.
  double dead_zone;
};
void paint_stick(QPainter& painter, const QPointF& middle, double radius, const StickDrawn& stick);

// How far the look stick turns for how far it is pushed, with where it is now.
void paint_turn_curve(QPainter& painter, const QRectF& area, const Profile::Look& look, const Vec2& raw);

// A trigger's way, with the mark from which on it is pressed.
void paint_trigger(QPainter& painter, const QRectF& area, double pulled, double pressed_from);

// Returns the share of its full rate at which a look stick turns.
double turn_share(const Profile::Look& look, const Vec2& raw);

}  // namespace lagniappe::app
