// SPDX-License-Identifier: MIT
// What the ways of moving have in common.
#pragma once

#include "motion/look.h"
#include "motion/slide.h"

namespace lagniappe {

// The velocity of the air at the body's middle, as the character feels it, so many s before the part's end.
Vec3 felt_air(const StepContext& context, const Body& body, const Vec3& foot_C, double before_end = 0.0);

// What of the wind the ground does not hold: the wind pushes with its speed over the wind's time, as it does in
// the air, and grip holds its share of gravity.
Vec3 blown_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C, double grip);

void take(const Slid& slid, CharacterState& state);

// What is wished while pushing along a wall that was there a tick ago: the way along it keeps the share of
// speed that goes with the angle of the push; the push into it stays, so that the wall's end and steps are
// found.
Vec3 along_known_wall(const StepContext& context, const Vec3& target_C, const Vec3& wall_C);

// Rise of the eye is taken back from the drawn place, and catches up from the instant of the step on.
void lift_eye(const StepContext& context, const Slid& slid, CharacterState& state);

// The share of a motion up to which what is met is gone along.
inline double stop_after(const StepContext& context) {
  return context.stop != nullptr ? context.stop->least / context.dt : 2.0;
}

// Notes when, within the part, a motion came to the contact that stopped it. `way_after`: from its beginning,
// after so many s.
template <typename WayAfter>
void note_stop(const StepContext& context, const Slid& slid, const Vec3& from_C, const WayAfter& way_after) {
  if (!slid.stopped) return;
  const double wanted = dot(slid.foot_C - from_C, slid.stop_normal_C);
  const auto beyond = [&](double seconds) { return dot(way_after(seconds), slid.stop_normal_C) - wanted; };
  double low = 0.0, high = context.dt;
  // A straight line in place of the arc is near; walls on the way may have kept the arc from ever getting
  // there.
  if (beyond(low) <= 0.0 || beyond(high) >= 0.0) {
    context.stop->at = slid.share * context.dt;
    return;
  }
  constexpr double kFound = 1e-10;
  while (high - low > kFound) {
    const double middle = 0.5 * (low + high);
    (beyond(middle) > 0.0 ? low : high) = middle;
  }
  context.stop->at = high;
}

}  // namespace lagniappe
