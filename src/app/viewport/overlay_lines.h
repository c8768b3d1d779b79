// SPDX-License-Identifier: GPL-3.0-or-later
// The explaining lines in the view: capsule, contacts, probe, intent and velocity.
#pragma once

#include <optional>
#include <vector>

#include "session/drive_session.h"
#include "session/scene_mesh.h"

namespace lagniappe::app {

struct OverlayChoice {
  bool capsule = false;   // At the tick's position, not the drawn one.
  bool contacts = false;  // Points and normals of the last tick's sweeps.
  bool probe = false;     // The ground probe.
  bool arrows = false;    // Intent and velocity.
  bool operator==(const OverlayChoice&) const = default;
};

// What is pointed at: a line of the ledger under the playhead, a piece, or both.
struct Highlight {
  std::optional<std::size_t> entry;
  PieceId piece = kNoPiece;
  bool operator==(const Highlight&) const = default;
};

// Returns line pairs relative to `origin_C`.
std::vector<LineVertex> overlay_lines(const DriveSession& session, const OverlayChoice& choice,
                                      const Vec3& origin_C);
std::vector<LineVertex> highlight_lines(const DriveSession& session, const Highlight& highlight,
                                        const Vec3& origin_C);

}  // namespace lagniappe::app
