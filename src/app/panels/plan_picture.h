// SPDX-License-Identifier: GPL-3.0-or-later
// A drawing of the ways over the course, from above and from the side, to scale.
#pragma once

#include <QPainter>

#include "session/retaker.h"

namespace lagniappe::app {

// Paints plan (from above, -Z upwards) and elevation (seen along -Z) of what lies around the ways.
void paint_plan(QPainter& painter, const QSize& size, const Recording& shown,
                const std::vector<std::shared_ptr<const Ghost>>& ghosts);

}  // namespace lagniappe::app
