// SPDX-License-Identifier: GPL-3.0-or-later
// How a stick becomes a way on the ground, in numbers: for the picture of intent.
#pragma once

#include <optional>

#include "session/drive_session.h"

namespace lagniappe::app {

struct IntentFacts {
  Eye eye;                    // Whose picture the stick is meant in: the look at the tick's end.
  Vec3 up_C;                  // Of the ground's plane: against the pull.
  Vec2 raw{0.0}, stick{0.0};  // As it is held; with the dead zone cut out, never longer than 1.
  // Where it leads, as long as it: laid onto the ground by the smallest rotation, by the eye's axes projected
  // onto it, and by cross products with up. The latter two are none where they have no direction.
  Vec3 laid_C{0.0};
  std::optional<Vec3> projected_C = {}, crossed_C = {};
  std::optional<Vec3> asked_C = {};   // m/s: what the tick made of it.
  std::optional<Vec3> normal_C = {};  // Of the ground underfoot.

  // The stick's way along the ground's slope; zero without ground or stick.
  Vec3 on_slope_C() const;
  double unlimited() const { return length(raw); }
};

// Of the tick under the playhead; nothing at the start.
std::optional<IntentFacts> intent_facts(const DriveSession& session);

}  // namespace lagniappe::app
