// SPDX-License-Identifier: MIT
// How a velocity follows what is wished for, exactly at any tick rate.
#pragma once

#include "lagniappe/profile.h"
#include "math/integrators.h"

namespace lagniappe {

// What is headed for: a velocity that grows evenly along itself, or turns evenly.
struct Target {
  Vec3 velocity;               // At the begin.
  Vec3 growth;                 // m/s2, along `velocity`; zero for most.
  Vec3 turning_C = Vec3(0.0);  // rad/s about it, across `velocity`; zero for what grows.

  // After so many s, without the growth.
  Vec3 turned(double seconds) const;
};

// Follows `target` for dt. `wished`: something is asked for. Four regimes have values of their own: speeding
// up; slowing down, where nothing is wished, or (but for Smooth) the velocity is faster along the target than
// it; turning round, until what goes against the intent is brought to a stand, to the instant; and steering, as
// speeding up. `grip` divides times and multiplies accelerations; the target is reached whatever it is.
// REQUIRES: velocity, acceleration and target lie in one plane; grip > 0.
MovedSmooth respond(const Response& response, const Vec3& velocity, const Vec3& acceleration,
                    const Target& target, bool wished, double grip, double dt);

}  // namespace lagniappe
