// SPDX-License-Identifier: GPL-3.0-or-later
// The explaining lines in the view: capsule, contacts, probe, wish and velocity.
#pragma once

#include <vector>

#include "session/drive_session.h"
#include "session/scene_mesh.h"

namespace lagniappe::app {

struct OverlayChoice {
  bool capsule = false;   // At the tick's position, not the drawn one.
  bool contacts = false;  // Points and normals of the last tick's sweeps.
  bool probe = false;     // The ground probe.
  bool arrows = false;    // Wish and velocity.
};

// Returns line pairs relative to `origin_C`.
std::vector<LineVertex> overlay_lines(const DriveSession& session, const OverlayChoice& choice,
                                      const Vec3& origin_C);

}  // namespace lagniappe::app
