// SPDX-License-Identifier: MIT
// Where the ground ends, around a place on it. By rays and sweeps down: whatever the pieces below are made of.
#pragma once

#include <span>

#include "motion/context.h"

namespace lagniappe {

// A place of a rim that is nearer than its neighbours.
struct Rim {
  Vec3 point_C;
  Vec3 inward_C;    // Unit, across up: from there to the place that was asked about.
  double distance;  // m across up; negative where that place is beyond the rim.
  bool corner;      // The rim bends there: a little aside, another direction leads from it.
  PieceId piece;    // What ends there.
};

inline constexpr std::size_t kMostRims = 4;

// Writes the rims within `within` m of `place_C` that lie ahead: whose inward direction has a part against
// `ahead_C` (unit, across up), or next to none along it. Returns how many; nothing is looked for behind.
//
// Ground goes on from one place to the next where its face is walked on, up by no more than a step and down by
// no more than the deepest drop. It ends where it does so for farther than a body's longest overhang to both
// sides bridges, measured across the rim: narrower gaps are crossed. Where something stands in the way between
// the ground's end and the drop, there is no rim. A place that is beyond the ground's end has one rim, where it
// is borne: at `bearing_C`.
std::size_t rims_ahead(const StepContext& context, const Body& body, const Vec3& place_C, const Vec3& ahead_C,
                       double within, const Vec3& bearing_C, std::span<Rim, kMostRims> out);

// Whether ground that is walked on lies under a place, no farther than it may drop away.
bool is_on_ground(const StepContext& context, const Body& body, const Vec3& place_C);

// The share of a way (across up) for which a rim goes on beside it as it began.
double share_along_rim(const StepContext& context, const Body& body, const Rim& rim, const Vec3& way_C);

}  // namespace lagniappe
