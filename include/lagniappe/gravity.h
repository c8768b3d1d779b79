// SPDX-License-Identifier: MIT
// What pulls at a point.
#pragma once

#include "lagniappe/vector.h"

namespace lagniappe {

struct Gravity {
  Vec3 share_C = Vec3(0.0);         // Times the gravity of the profile.
  Vec3 acceleration_C = Vec3(0.0);  // m/s2, whatever the profile.

  Vec3 of(double gravity) const { return share_C * gravity + acceleration_C; }
};

}  // namespace lagniappe
