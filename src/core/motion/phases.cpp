// SPDX-License-Identifier: MIT
#include "motion/phases.h"

#include <algorithm>

#include "lagniappe/handling.h"
#include "math/integrators.h"
#include "motion/behaviours.h"
#include "motion/climbing.h"
#include "motion/eye.h"
#include "motion/footing_change.h"
#include "motion/hanging.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/mantling.h"
#include "motion/moving.h"
#include "motion/push_out.h"
#include "motion/stance.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

// An intent of less than this share turns nobody.
constexpr double kStandingShare = 0.02;
constexpr double kTimerSlack = 1e-5;  // s that timers in single precision may be off.

void leave_overlap(const StepContext& context, const Body& body, CharacterState& state) {
  const PushedOut out = push_out(context, body, state.foot_C);
  state.foot_C = out.foot_C;
  state.penetration = std::max(state.penetration, static_cast<float>(out.depth));
  state.crushed = out.crushed;
}

Carried carry_along(const StepContext& context, const Body& body, CharacterState& state) {
  if (state.holding()) return go_with_hold(context, body, state);
  const Carried carried = carry(context, body, state);
  return carried.by != kNoPiece ? carried : accompany(context, body, state);
}

void turn_body(const StepContext& context, const Intent& intent, bool flies, CharacterState& state) {
  using Facing = Profile::Ground::Facing;
  const Facing facing = context.profile.ground.facing;
  if (facing == Facing::TurnInPlace && !flies) return;
  if (facing != Facing::View && intent.share <= kStandingShare) return;
  const Vec3 direction_B = glm::conjugate(state.frame_CB) * intent.direction_C;
  const bool along_push = facing == Facing::Travel || facing == Facing::TurnInPlace;
  const double towards = along_push ? std::atan2(-direction_B.x, -direction_B.z) : state.yaw;
  const double turned = turn_towards(state.facing, towards, context.profile.ground.turn_rate, context.dt);
  if (state.lying()) return turn_lying(context, turned, state);
  state.facing = turned;
}

// Pushing sideways turns body and look. The intent goes by the middle of the turn, so that arcs are the same at
// any tick rate, to second order.
void turn_in_place(const StepContext& context, CharacterState& state) {
  const Values& profile = context.profile;
  if (profile.ground.facing != Profile::Ground::Facing::TurnInPlace) return;
  const double push = shaped_stick(context.input.move, profile.look.dead_zone).x;
  double turned = -push * profile.ground.turn_rate * context.dt;
  const double from = state.facing;
  state.facing = wrap_angle(state.facing + turned);
  if (state.lying()) {
    state.facing = from;
    turn_lying(context, wrap_angle(from + turned), state);
    turned = wrap_angle(state.facing - from);
  }
  state.yaw = wrap_angle(state.yaw + turned);
  state.carried_yaw += static_cast<float>(turned);
}

// The intent, with what a script asks for in place of the stick.
Intent intent_of(const StepContext& context, const std::optional<Vec2>& steer, const CharacterState& state) {
  if (!steer) return ground_intent(context, state);
  InputFrame steered = context.input;
  const double size = glm::length(*steer);
  steered.move = size > 1.0 ? *steer / size : *steer;
  // What a script asks for has no dead zone.
  Values values = context.profile;
  values.look.dead_zone = 0.0;
  StepContext asking{steered, values, context.world, context.dt, nullptr, context.now};
  asking.look_back = context.look_back;
  asking.felt = context.felt;
  return ground_intent(asking, state);
}

void remember_push(const StepContext& context, const Intent& intent, CharacterState& state) {
  state.since_push = intent.share > 0.0 ? 0.0f : state.since_push + static_cast<float>(context.dt);
  if (state.since_push > context.profile.ground.gather.grace + kTimerSlack) state.gathered = 0.0;
}

void count_time(const StepContext& context, bool stood, CharacterState& state) {
  state.ground_time = state.grounded() && stood ? state.ground_time + static_cast<float>(context.dt) : 0.0f;
  if (state.jump_waits) state.since_jump_press += context.dt;
  state.state_time += context.dt;
  state.zones.since_throw += static_cast<float>(context.dt);
  if (held_by_ground(state) || state.holding()) state.zones.aimed = false;
  state.time = context.now.time;
}

}  // namespace

void turn_look(StepContext& context, CharacterState& state) {
  const Vec2 turn = context.input.look_delta * context.share + context.input.turn_rate * context.dt;
  const Vec2 turned = turned_look(Vec2(state.yaw, state.pitch), turn, context.profile.look);
  context.look_back = {0.5 * turn.x, 0.5 * (turned.y - state.pitch)};
  state.yaw = turned.x;
  state.pitch = turned.y;
}

void be_moved(StepContext& context, CharacterState& state) {
  using Why = entry::Change::Why;
  const Body body(context, state);
  VelocityLog log(context, state);
  const Carried carried = carry_along(context, body, state);
  log.rest_is(Why::Carrier);
  context.pushes = take_pushes(context, body, carried, state);
  leave_overlap(context, body, state);
  log.rest_is(Why::Contact);
}

void settle_mantle(const StepContext& context, Behaviour behaviour, bool used_press,
                   const CharacterState& state) {
  if ((facts_of(behaviour).held_by_world || hangs(state) || climbs(state)) && !used_press) {
    refuse_mantle(context, state);
    refuse_climb(context, state);
  }
}

void settle_jumps(const StepContext& context, Behaviour behaviour, bool used_press, CharacterState& state) {
  if (!facts_of(behaviour).held_by_world) {
    give_jumps_back(state);
    state.first_jump_used = true;
    if ((climbs(state) || (hangs(state) && pushes_away(context, state))) && !used_press)
      refuse_jump(context, Body(context, state), state);
  } else if (!used_press) {
    refuse_jump(context, Body(context, state), state);
  }
}

void move_by_itself(const StepContext& context, const Manner& manner, CharacterState& state) {
  const bool stood = state.grounded(), held = facts_of(manner.behaviour).held_by_world;
  cut_jump(context, state);
  if (!state.holding() || hangs(state) || climbs(state)) take_stance(context, manner.stance, state);
  if (held) turn_in_place(context, state);
  const Intent intent = intent_of(context, manner.steer, state);
  state.holding() ? face_hold(context, state) : turn_body(context, intent, !held, state);
  row_of(manner.behaviour).move(context, Body(context, state), intent, state);
  settle_eye(context, state);
  remember_push(context, intent, state);
  count_time(context, stood, state);
  count_pause(context, state);
}

}  // namespace lagniappe
