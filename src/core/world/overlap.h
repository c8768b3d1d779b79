// SPDX-License-Identifier: MIT
// How deep a capsule is in what is solid.
#pragma once

#include <algorithm>
#include <array>

#include "lagniappe/world.h"

namespace lagniappe {

// m, into the deepest of the nearest faces; 0 where it is free.
inline double deepest_overlap(const World& world, const Segment& axis, double radius, double time) {
  std::array<WorldContact, 8> found;
  Moment moment;
  moment.time = time;
  const std::size_t count = world.contacts(axis, radius, found, moment);
  double deepest = 0.0;
  for (std::size_t i = 0; i < count; ++i)
    deepest = std::max(deepest, push_out_depth(found[i].closest, axis, radius));
  return deepest;
}

}  // namespace lagniappe
