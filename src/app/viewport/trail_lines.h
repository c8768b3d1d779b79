// SPDX-License-Identifier: GPL-3.0-or-later
// The ways of the shown take and its ghosts around the playhead, and the figures of other ticks.
#pragma once

#include <QString>
#include <memory>
#include <optional>
#include <vector>

#include "session/drive_session.h"
#include "session/retaker.h"
#include "theme/theme.h"

namespace lagniappe::app {

struct TrailChoice {
  bool shown = true;
  double seconds = 6.0;  // Before and after the playhead.
  QString colour_by;     // "state", the key of a signal, or empty: one colour.
  int onion_skins = 0;   // A capsule every so many ticks; 0: none.
  bool operator==(const TrailChoice&) const = default;
};

// What the colours of the trail mean.
struct TrailLegend {
  struct Row {
    QColor colour;
    QString text;
  };
  QString title;
  std::vector<Row> rows;
};

using Ghosts = std::vector<std::shared_ptr<const Ghost>>;

// Kept until it would be another: the camera moves about it, and scrubbing is quick.
class Trail {
 public:
  // `lines`: pairs relative to `origin_C`; the way with a dot per tick, ghosts broken in their own patterns.
  struct Picture {
    std::vector<LineVertex> lines;
    TrailLegend legend;
  };
  const Picture& of(const DriveSession& session, const TrailChoice& choice, const Ghosts& ghosts,
                    const Vec3& origin_C);

 private:
  struct Of {
    std::uint64_t revision;
    std::size_t playhead, ticks;
    TrailChoice choice;
    Ghosts ghosts;
    Vec3 origin_C;
    theme::Light light;
    bool operator==(const Of&) const = default;
  };
  std::optional<Of> of_;
  Picture picture_;
};

// Returns the tick of a ghost at the time under the playhead.
std::size_t ghost_tick(const DriveSession& session, const Ghost& ghost);

}  // namespace lagniappe::app
