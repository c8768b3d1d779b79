// SPDX-License-Identifier: MIT
#include "motion/jumping.h"

#include "lagniappe/handling.h"
#include "motion/climbing.h"
#include "motion/flight_ahead.h"
#include "motion/hanging.h"
#include "motion/holding.h"
#include "motion/moving.h"
#include "motion/upright_way.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

using From = entry::Jump::From;
using Why = entry::JumpRefused::Why;

// m that must be free above the head for a jump.
constexpr double kLeastHeadRoom = 0.02;
// Walls whose normals are closer than this are one wall to jump off.
constexpr double kSameWall = radians(45.0);

double wall_yaw(const CharacterState& state) {
  const Vec3 normal_B = glm::conjugate(state.frame_CB) * state.wall_normal_C;
  return std::atan2(-normal_B.x, -normal_B.z);
}

void take_off(const StepContext& context, const Values& flight, const JumpChoice& choice,
              CharacterState& state) {
  const Profile::Jump& values = context.profile.jump;
  const Vec3 up = context.up_of(state);
  const double height = jump_height(context.profile, choice.jump);
  const double speed = take_off_speed(flight, height);
  const bool off_ground = choice.from == From::Ground;
  const double late_by = off_ground ? state.since_grounded : 0.0;
  const bool fresh = context.input.pressed.has(Action::Jump) || !state.jump_waits;
  context.note(
      entry::Jump{choice.from, choice.jump, speed, height, late_by, fresh ? 0.0 : state.since_jump_press});
  // From the ground a jump goes straight up, on top of what a rising piece gives; one in the air replaces the
  // rise speed, so it is as high as it is set.
  VelocityLog log(context, state);
  state.velocity_C = across(state.velocity_C, up) + up * speed;
  if (choice.from == From::Rim || choice.from == From::Climb) {
    const Vec3 away = climbs(state) ? jumps_towards(context, state) : away_from_rim(context, state);
    state.velocity_C = across(state.velocity_C, away) + away * values.wall_push;
  }
  if (choice.from == From::Wall) {
    state.velocity_C = across(state.velocity_C, state.wall_normal_C) + state.wall_normal_C * values.wall_push;
    state.jumped_wall = static_cast<float>(wall_yaw(state));
  }
  log.rest_is(entry::Change::Why::Jump);
  if (state.ground.verdict != Verdict::None) leave_ground(context, state);
  state.jump_waits = state.may_jump_late = false;
  if (choice.jump > 0) state.air_jumps_used = static_cast<std::int16_t>(choice.jump);
  if (choice.from != From::Wall) state.first_jump_used = true;
  state.flight_of = static_cast<std::int16_t>(choice.jump);
  state.jump_cut = false;
  state.ground = Ground{};
}

bool has_head_room(const StepContext& context, const Body& body, const CharacterState& state) {
  return upright_way(context, body, state.foot_C, body.up_C, kLeastHeadRoom).gone >= kLeastHeadRoom - kTouch;
}

bool was_jumped_off(const CharacterState& state) {
  return state.jumped_wall < kLongAgo && std::abs(wrap_angle(wall_yaw(state) - state.jumped_wall)) < kSameWall;
}

// What lets a jump happen, or what refuses it.
std::optional<JumpChoice> choose(const StepContext& context, const CharacterState& state, Why& why) {
  const Profile::Jump& values = context.profile.jump;
  const bool pressed = context.input.pressed.has(Action::Jump);
  if (state.ground.verdict == Verdict::Steep) {
    why = Why::Skidding;
    return values.from_skid ? std::optional(JumpChoice{From::Skid, 0}) : std::nullopt;
  }
  if (climbs(state)) return JumpChoice{From::Climb, 0};
  if (hangs(state)) {
    why = Why::State;
    return pushes_away(context, state) ? std::optional(JumpChoice{From::Rim, 0}) : std::nullopt;
  }
  const bool late =
      values.coyote_time > 0.0 && state.may_jump_late && state.since_grounded <= values.coyote_time + kTouch;
  if (state.grounded() || late) return JumpChoice{From::Ground, 0};
  const bool at_wall = values.from_wall && state.wall_normal_C != Vec3(0.0);
  if (at_wall && !was_jumped_off(state)) return JumpChoice{From::Wall, 0};
  // A press that is only remembered is meant for the landing.
  if (pressed && !values.edge_uses_first && !state.first_jump_used) return JumpChoice{From::Air, 0};
  if (pressed && state.air_jumps_used < values.air_jumps)
    return JumpChoice{From::Air, state.air_jumps_used + 1};
  why = at_wall ? Why::SameWall : values.air_jumps > 0 ? Why::AirJumpsUsed : Why::NoGround;
  return std::nullopt;
}

// The flight that a jump begins, with the stick held as it is.
FlightEnd flight_of_jump(const StepContext& context, const JumpChoice& choice, CharacterState state,
                         double deepest) {
  StepContext silent = context;
  silent.ledger = nullptr;
  take_off(silent, context.profile, choice, state);
  return flight_end(silent, ground_intent(silent, state), state, deepest);
}

// Whether a guard lets it happen: it lands no lower than ground may drop away.
bool may_land(const StepContext& context, const JumpChoice& choice, const CharacterState& state) {
  const Profile::Ledge& ledge = context.profile.ledge;
  if (ledge.guard != Profile::Ledge::Guard::WalkAndJump) return true;
  if (!state.grounded()) return true;  // Who falls already may save himself.
  const FlightEnd end = flight_of_jump(context, choice, state, ledge.deepest_drop);
  return end.lands && end.drop <= ledge.deepest_drop;
}

void tell_no_landing(const StepContext& context, const CharacterState& state) {
  if (context.ledger == nullptr) return;
  constexpr double kFarthestTold = 100.0;  // m.
  Why why{};
  const auto choice = choose(context, state, why);
  if (!choice) return;
  const FlightEnd end = flight_of_jump(context, *choice, state, kFarthestTold);
  context.note(entry::JumpWouldFall{end.foot_C, end.lands, end.drop, end.seconds, end.piece});
}

}  // namespace

void leave_ground(const StepContext& context, CharacterState& state) {
  VelocityLog log(context, state);
  const Vec3 inherited = inherited_velocity(context, state.ground_velocity_C, context.up_of(state));
  state.velocity_C += inherited;
  state.ground_velocity_C = Vec3(0.0);
  state.run_up_speed = length(across(state.velocity_C, context.up_of(state)));
  log.rest_is(entry::Change::Why::Carrier);
  context.note(entry::LeftGround{state.run_up_speed, inherited});
}

void lift_off(const StepContext& context, CharacterState& state) {
  if (state.ground.verdict != Verdict::None) leave_ground(context, state);
  state.ground = Ground{};
  state.may_jump_late = false;
}

// The buffer and the coyote time include their last instant; the touch keeps rounding in sums of dt from
// deciding. Both count from the instant.
JumpJudgement judge_jump(const StepContext& context, const Body& body, const CharacterState& state) {
  const Profile::Jump& values = context.profile.jump;
  JumpJudgement judgement;
  const bool pressed = context.input.pressed.has(Action::Jump);
  const bool remembered =
      values.buffer > 0.0 && state.jump_waits && state.since_jump_press <= values.buffer + kTouch;
  const bool repeats = values.held_repeats && state.grounded() && context.input.held.has(Action::Jump) &&
                       state.held.has(Action::Jump);
  if (!pressed && !remembered && !repeats) return judgement;
  judgement.why = Why::State;
  if (state.lying()) return judgement;
  judgement.choice = choose(context, state, judgement.why);
  if (!judgement.choice) return judgement;
  const bool room = has_head_room(context, body, state);
  if (room && may_land(context, *judgement.choice, state)) return judgement;
  judgement.choice.reset();
  judgement.why = room ? Why::NoLanding : Why::NoHeadRoom;
  return judgement;
}

void jump(const StepContext& context, const Body& body, const Values& flight, CharacterState& state) {
  const JumpJudgement judgement = judge_jump(context, body, state);
  take_off(context, flight, judgement.choice.value_or(JumpChoice{From::Ground, 0}), state);
}

void refuse_jump(const StepContext& context, const Body& body, CharacterState& state) {
  if (!context.input.pressed.has(Action::Jump)) return;
  const Profile::Jump& values = context.profile.jump;
  const JumpJudgement judgement = judge_jump(context, body, state);
  const Why why = judgement.choice ? Why::State : judgement.why;
  const bool remember = values.buffer > 0.0 && (why != Why::Skidding || values.remember_on_skid);
  state.jump_waits = remember;
  state.since_jump_press = 0.0;
  const double left_for = state.may_jump_late || state.grounded() ? state.since_grounded : kLongAgo;
  context.note(entry::JumpRefused{why, left_for, remember ? values.buffer : 0.0});
  if (why == Why::NoLanding) tell_no_landing(context, state);
}

void cut_jump(const StepContext& context, CharacterState& state) {
  const double rise = dot(state.velocity_C, context.up_of(state));
  if (state.flight_of < 0 || state.jump_cut || rise <= 0.0 || context.profile.jump.lowest_share >= 1.0) return;
  if (context.input.held.has(Action::Jump)) return;
  state.jump_cut = true;
  context.note(entry::JumpCut{rise, cut_factor(context.profile, state.flight_of)});
}

void give_jumps_back(CharacterState& state) {
  state.air_jumps_used = 0;
  state.flight_of = -1;
  state.first_jump_used = state.jump_cut = false;
  state.jumped_wall = static_cast<float>(kLongAgo);
}

}  // namespace lagniappe
