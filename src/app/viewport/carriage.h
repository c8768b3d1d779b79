// SPDX-License-Identifier: GPL-3.0-or-later
// How the figure holds itself at the playhead.
#pragma once

#include "session/drive_session.h"
#include "viewport/figure.h"

namespace lagniappe::app {

Carriage drawn_carriage(const DriveSession& session, const Pose& pose);

// Of a run beside the shown one, after a tick of its own.
Carriage carriage_at(const Recording& recording, const World& world, std::size_t tick, const Pose& pose);

}  // namespace lagniappe::app
