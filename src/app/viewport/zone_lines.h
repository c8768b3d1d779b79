// SPDX-License-Identifier: GPL-3.0-or-later
// The zones of the course in the view: outlines, and what each does.
#pragma once

#include <QColor>
#include <vector>

#include "session/drive_session.h"
#include "session/scene_mesh.h"

namespace lagniappe::app {

// Where a launch leads who touches it now: places of the foot, and whether something solid, or terminal speed,
// is in its way. Empty for zones that throw nobody.
struct ThrowPreview {
  std::vector<Vec3> foot_C;
  bool blocked = false, terminal = false;
};
ThrowPreview throw_preview(const DriveSession& session, ZoneId zone);
// The same for a zone of another world, whose pieces do not count: those of the session's place are in the way.
ThrowPreview throw_preview(const DriveSession& session, const TriangleWorld& zones, ZoneId zone);

// It goes with what the zone does.
QColor zone_colour(const ZoneEffect& effect);

// Returns line pairs relative to `origin_C`, of all zones where they are at the playhead.
std::vector<LineVertex> zone_lines(const DriveSession& session, const Vec3& origin_C);

}  // namespace lagniappe::app
