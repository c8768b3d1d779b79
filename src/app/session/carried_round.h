// SPDX-License-Identifier: GPL-3.0-or-later
// What a closed way turned the look by: on round worlds a look that nobody turned does not come back as it was.
#pragma once

#include <optional>

#include "session/drive_session.h"

namespace lagniappe::app {

struct CarriedRound {
  std::size_t since;  // The tick at which one was here before.
  double angle;       // rad about up, positive to the left: what is not by the hand, nor by what one stood on.
};

// Of the playhead's tick, where the way comes back to where it was, after it had been away.
std::optional<CarriedRound> carried_round(const DriveSession& session);

}  // namespace lagniappe::app
