// SPDX-License-Identifier: MIT
#include "motion/flight_ahead.h"

#include "motion/behaviours/ways.h"
#include "motion/footing.h"

namespace lagniappe {
namespace {

constexpr double kTick = 1.0 / 60.0;     // s: of the flight ahead, whatever the tick is.
constexpr int kMostTicks = 300;          // 5 s.
constexpr double kFarthestDown = 100.0;  // m.

}  // namespace

FlightEnd flight_end(const StepContext& context, const Intent& now, CharacterState state, double deepest) {
  const Intent intent{now.direction_C, now.share};
  Values values = context.profile;
  values.ledge.guard = Profile::Ledge::Guard::None;
  const Vec3 from = state.foot_C, up = state.up_C();
  const auto drop = [&] { return dot(from - state.foot_C, up); };
  int ticks = 0;
  while (ticks < kMostTicks && drop() <= deepest) {
    ++ticks;
    Moment then = context.now;
    // A world that knows nothing of what comes stays as it is.
    if (context.world.knows_ahead()) then.time += kTick * ticks;
    const StepContext ahead{context.input, values, context.world, kTick, nullptr, then};
    move_and_find_ground(ahead, Body(ahead, state), intent, walk, state);
    if (state.grounded()) return {state.foot_C, true, drop(), kTick * ticks, state.ground.piece};
  }
  return {state.foot_C, false, drop(), kTick * ticks, kNoPiece};
}

Intent guarded_steering(const StepContext& context, const Intent& intent, const CharacterState& state) {
  const Profile::Ledge& ledge = context.profile.ledge;
  if (ledge.guard != Profile::Ledge::Guard::WalkAndJump || intent.share <= 0.0) return intent;
  const Intent none{Vec3(0.0), 0.0};
  const FlightEnd by_itself = flight_end(context, none, state, kFarthestDown);
  if (!by_itself.lands) return intent;
  const double deepest = by_itself.drop + ledge.deepest_drop;
  const FlightEnd steered = flight_end(context, intent, state, deepest);
  return steered.lands && steered.drop <= deepest ? intent : none;
}

}  // namespace lagniappe
