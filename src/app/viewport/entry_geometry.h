// SPDX-License-Identifier: GPL-3.0-or-later
// The outlines of pieces, for pointing from a sentence of the ledger at the view.
#pragma once

#include <vector>

#include "lagniappe/ledger_facts.h"
#include "session/recording.h"

namespace lagniappe::app {

// The edges of a piece, two points each, where it is at `time`. Edges between coplanar faces are left out.
std::vector<Vec3> outline_of(const Place& place, PieceId piece, double time);

}  // namespace lagniappe::app
