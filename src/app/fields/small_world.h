// SPDX-License-Identifier: GPL-3.0-or-later
// What a small world is to who runs round it.
#pragma once

#include <optional>

#include "lagniappe/field.h"
#include "lagniappe/profile.h"

namespace lagniappe::app {

struct SmallWorld {
  double round;          // m once round on its surface.
  double leaving_speed;  // m/s at which its surface falls away faster than what pulls: sqrt(pull radius).
};

// Of fields that are round somewhere and pull inwards; of a ring and a path the way round the tube.
std::optional<SmallWorld> small_world(const Field& field, const Profile& profile);

}  // namespace lagniappe::app
