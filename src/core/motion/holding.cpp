// SPDX-License-Identifier: MIT
#include "motion/holding.h"

#include "motion/piece_velocity.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

constexpr double kInside = 1e-7;  // m by which the margin is not used up, for rounding.

}  // namespace

void throw_off(const StepContext& context, const entry::LetGo& why, double pause, CharacterState& state) {
  VelocityLog log(context, state);
  context.note(why);
  state.velocity_C = piece_velocity(context, state.hold.piece, state.foot_C);
  let_go(state, pause);
  state.hold.piece = kNoPiece;  // It would do so again, whatever one took hold of.
  log.rest_is(entry::Change::Why::Hold);
}

std::optional<WorldHit> go_holding(const StepContext& context, const Body& body, const Vec3& target_C,
                                   CharacterState& state) {
  const Vec3 motion = target_C - state.foot_C;
  const double size = length(motion);
  const Segment axis = capsule_axis(state, body.radius);
  const auto hit =
      size > 0.0 ? body.world.sweep(axis, body.radius - body.margin + kInside, motion, body.now) : std::nullopt;
  const bool stops = hit && (1.0 - hit->hit.fraction) * size > kGroundTouch;
  context.note(entry::Sweep{state.foot_C, motion, hit ? hit->hit.fraction : 1.0, hit.has_value(),
                            hit ? hit->piece : kNoPiece, hit ? hit->hit.point_C : Vec3(0.0),
                            hit ? hit->hit.normal_C : Vec3(0.0), hit ? hit->hit.feature : Feature{}});
  state.foot_C = hit ? state.foot_C + motion * hit->hit.fraction : target_C;
  return stops ? hit : std::nullopt;
}

void stay_with_hold(const StepContext& context, const Body& body, const Vec3& target_C, double pause,
                    CharacterState& state) {
  VelocityLog log(context, state);
  const Vec3 came_from = state.foot_C;
  if (const auto hit = go_holding(context, body, target_C, state))
    return throw_off(context, {entry::LetGo::Why::PushedOff, 0.0, 0.0, hit->piece}, pause, state);
  state.velocity_C =
      piece_velocity(context, state.hold.piece, state.foot_C) + (target_C - came_from) * (1.0 / context.dt);
  state.acceleration_C = Vec3(0.0);
  state.since_grounded += context.dt;
  log.rest_is(entry::Change::Why::Hold);
}

}  // namespace lagniappe
