// SPDX-License-Identifier: GPL-3.0-or-later
// Where the lines of a ledger lie in the course: for pointing from a sentence at the view, and back.
#pragma once

#include <vector>

#include "lagniappe/ledger.h"
#include "session/recording.h"

namespace lagniappe::app {

// The piece that an entry is about, or kNoPiece.
PieceId piece_of(const LedgerEntry& entry);

// Places that stand for the entry, most telling first; none where it has none.
std::vector<Vec3> places_of(const LedgerEntry& entry, const CharacterState& state);

// The edges of a piece, two points each, where it is at `time`. Edges between coplanar faces are left out.
std::vector<Vec3> outline_of(const Place& place, PieceId piece, double time);

}  // namespace lagniappe::app
