// SPDX-License-Identifier: GPL-3.0-or-later
// What a drawn frame shows of the session, whoever looks at it from wherever.
#pragma once

#include <functional>

#include "viewport/overlay_lines.h"
#include "viewport/renderer.h"
#include "viewport/trail_lines.h"

namespace lagniappe::app {

class LinePen;

// What is shown besides the place and the figure.
struct FrameExtras {
  const OverlayChoice& overlays;
  const Trail::Picture& trail;
  const Ghosts& ghosts;
  const Highlight& highlight;
  bool grid;
  const std::function<void(LinePen&)>& besides;  // Draws more; may be empty.
};

struct LookedFrom {
  Eye eye;
  double field;      // rad, vertical.
  bool with_figure;  // Not from within its head.
};

DrawnFrame session_frame(const DriveSession& session, const LookedFrom& from, const FrameExtras& extras,
                         const QSize& pixels, bool flipped);

}  // namespace lagniappe::app
