// SPDX-License-Identifier: MIT
// The order of one tick. Each phase is a function; what it decides is in its ledger entries.
#include "lagniappe/step.h"

#include <algorithm>
#include <cassert>

#include "math/integrators.h"
#include "motion/behaviours.h"
#include "motion/ground.h"
#include "motion/push_out.h"

namespace lagniappe {
namespace {

constexpr double kLongAgo = 1e9;
// A wish of less than this share is standing; only names the state.
constexpr double kStandingShare = 0.02;

void enter(const StepContext& context, CharacterState& state, StateId next) {
  if (state.state == next) return;
  context.note(entry::StateChange{state.state, next});
  state.state = next;
  state.state_time = 0.0;
}

CharacterState put_home(const StepContext& context, const CharacterState& state, bool out_of_limits) {
  context.note(entry::Reset{out_of_limits});
  CharacterState home = start_state(context.profile, state.home, context.world);
  home.tick = state.tick + 1;
  home.times_put_home = state.times_put_home + 1;
  home.held = context.input.held;
  return home;
}

void look(const StepContext& context, CharacterState& state) {
  const Vec2 turned =
      turned_look(Vec2(state.yaw, state.pitch), context.input, context.profile.look, context.dt);
  state.yaw = turned.x;
  state.pitch = turned.y;
}

void leave_overlap(const StepContext& context, const Body& body, CharacterState& state) {
  const PushedOut out = push_out(context, body, state.foot_C);
  state.foot_C = out.foot_C;
  state.penetration = out.depth;
  state.crushed = out.crushed;
}

// Leaves the ground, at the speed that it was left with.
void leave_ground(const StepContext& context, CharacterState& state) {
  state.run_up_speed = length(across(state.velocity_C, state.up_C()));
  context.note(entry::LeftGround{state.run_up_speed});
}

void jump(const StepContext& context, CharacterState& state, bool in_air) {
  const Vec3 up = state.up_C();
  const double speed = take_off_speed(context.profile.gravity, context.profile.jump.height);
  context.note(entry::Jump{speed, in_air, in_air ? 0.0 : state.since_grounded});
  if (state.grounded()) leave_ground(context, state);
  // From the ground a jump goes straight up; one in the air replaces the rise speed, so it is as high as it is
  // set.
  state.velocity_C = across(state.velocity_C, up) + up * speed;
  state.since_jump_press = kLongAgo;
  state.since_grounded = kLongAgo;
  if (in_air) ++state.air_jumps_used;
  state.ground = Ground{};
  enter(context, state, StateId::Rise);
}

// The buffer and the coyote time include their last instant; the touch keeps rounding in sums of dt from
// deciding.
void try_to_jump(const StepContext& context, CharacterState& state) {
  const Profile::Jump& values = context.profile.jump;
  const bool pressed = context.input.pressed.has(Action::Jump);
  if (pressed) state.since_jump_press = 0.0;
  const bool asked = state.since_jump_press <= values.buffer + kTouch || pressed;
  if (!asked) return;
  const bool late =
      state.since_grounded <= values.coyote_time + kTouch && state.ground.verdict != Verdict::Steep;
  if (state.grounded() || late) {
    jump(context, state, false);
  } else if (pressed && state.air_jumps_used < values.air_jumps) {
    jump(context, state, true);
  }
}

void choose_state(const StepContext& context, CharacterState& state) {
  if (context.input.pressed.has(Action::Fly)) {
    if (state.state != StateId::Fly && state.grounded()) leave_ground(context, state);
    enter(context, state, state.state == StateId::Fly ? StateId::Fall : StateId::Fly);
    state.ground = Ground{};
    state.since_grounded = kLongAgo;
  }
  if (state.state != StateId::Fly) try_to_jump(context, state);
}

void turn_body(const StepContext& context, const Wish& wish, CharacterState& state) {
  if (wish.share <= kStandingShare) return;
  const Vec3 direction_B = glm::conjugate(state.frame_CB) * wish.direction_C;
  const double towards = std::atan2(-direction_B.x, -direction_B.z);
  state.facing = turn_towards(state.facing, towards, context.profile.ground.turn_rate, context.dt);
}

// The state that fits what is underfoot and what is wished.
StateId fitting_state(const StepContext& context, const CharacterState& state, const Wish& wish) {
  if (state.grounded()) {
    if (wish.share <= kStandingShare) return StateId::Stand;
    return context.input.held.has(Action::Sprint) ? StateId::Sprint : StateId::Walk;
  }
  if (state.ground.verdict == Verdict::Steep) return StateId::Skid;
  return dot(state.velocity_C, state.up_C()) > 0.0 ? StateId::Rise : StateId::Fall;
}

bool leaving(const CharacterState& state, const Vec3& normal_C) {
  return dot(state.velocity_C, normal_C) > kLeavingSpeed;
}

// Probes, judges and snaps. `was_grounded`: at the start of the tick, and no jump since.
void find_ground(const StepContext& context, const Body& body, bool was_grounded, CharacterState& state) {
  const double reach =
      was_grounded ? std::max(context.profile.ground.snap_distance, kGroundTouch) : kGroundTouch;
  const GroundFound found = probe_ground(context, body, state.foot_C, reach);
  const bool touching = found.gap <= kGroundTouch;
  const bool flies_off = !was_grounded && leaving(state, found.ground.normal_C);
  if (found.ground.verdict == Verdict::None || flies_off ||
      (!touching && found.ground.verdict != Verdict::Walkable)) {
    state.ground = Ground{};
    return;
  }
  state.ground = found.ground;
  if (!state.grounded()) return;
  state.foot_C -= body.up_C * found.gap;
  if (!was_grounded) return;
  state.snapped = touching ? 0.0 : found.gap;
  state.eye_offset_C += body.up_C * found.gap;
  if (!touching) context.note(entry::Snap{found.gap});
}

// The drawn body and camera catch up with steps and snaps; never further off than a step.
void settle_eye(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Ground& ground = context.profile.ground;
  const double most = std::max(ground.highest_step, ground.snap_distance);
  const double height = std::clamp(dot(state.eye_offset_C, body.up_C), -most, most);
  state.eye_offset_C = body.up_C * (height * decay_share(context.profile.smoothing.time, context.dt));
}

void land_or_leave(const StepContext& context, const Body& body, bool was_grounded, CharacterState& state) {
  if (state.grounded()) {
    // Landing takes the fall away; along the ground the speed is kept as it is laid on the face.
    const Vec3 flat = was_grounded ? flattened(state.velocity_C, body.up_C) : body.flat(state.velocity_C);
    state.velocity_C = laid_on(flat, state.ground.normal_C, body.up_C);
    state.since_grounded = 0.0;
    state.air_jumps_used = 0;
    return;
  }
  if (was_grounded) leave_ground(context, state);
  if (state.since_grounded < kLongAgo) state.since_grounded += context.dt;
}

void move_and_find_ground(const StepContext& context, const Body& body, const Wish& wish,
                          CharacterState& state) {
  const bool was_grounded = state.grounded();
  const Vec3 normal_before = state.ground.normal_C;
  if (was_grounded) {
    move_on_ground(context, body, wish, state);
    find_ground(context, body, true, state);
    // Off the ground the velocity goes on along the face that was left.
    if (!state.grounded()) state.velocity_C = laid_on(state.velocity_C, normal_before, body.up_C);
  } else {
    move_in_air(context, body, wish, state);
    find_ground(context, body, false, state);
  }
  land_or_leave(context, body, was_grounded, state);
  enter(context, state, fitting_state(context, state, wish));
}

}  // namespace

CharacterState start_state(const Profile& profile, const Home& home) {
  CharacterState state;
  state.foot_C = home.foot_C;
  state.frame_CB = home.frame_CB;
  state.yaw = state.facing = home.yaw;
  state.capsule_height = profile.capsule.height;
  state.home = home;
  return state;
}

CharacterState start_state(const Profile& profile, const Home& home, const World& world) {
  CharacterState state = start_state(profile, home);
  const InputFrame nothing;
  const StepContext context{nothing, profile, world, 0.0, nullptr};
  const GroundFound found = probe_ground(context, Body(context, state), state.foot_C, kGroundTouch);
  if (found.ground.verdict != Verdict::Walkable) return state;
  state.ground = found.ground;
  state.since_grounded = 0.0;
  state.state = StateId::Stand;
  return state;
}

CharacterState step(const CharacterState& before, const InputFrame& input, const Profile& profile,
                    const World& world, double dt, Ledger* ledger) {
  assert(dt > 0.0 && dt <= 0.1 + kTouch);
  const StepContext context{input, profile, world, dt, ledger};
  if (input.pressed.has(Action::Reset)) return put_home(context, before, false);

  CharacterState state = before;
  state.slides = 0;
  state.stepped = false;
  state.snapped = 0.0;
  state.capsule_height = profile.capsule.height;
  const Body body(context, state);

  look(context, state);
  leave_overlap(context, body, state);
  choose_state(context, state);
  const Wish wish = wish_on_ground(context, state);
  turn_body(context, wish, state);
  if (state.state == StateId::Fly) {
    move_in_flight(context, body, state);
  } else {
    move_and_find_ground(context, body, wish, state);
  }
  settle_eye(context, body, state);

  state.since_jump_press += state.since_jump_press < kLongAgo ? dt : 0.0;
  state.state_time += dt;
  state.held = input.held;
  ++state.tick;
  if (!world.limits().contains(state.foot_C)) return put_home(context, before, true);
  return state;
}

}  // namespace lagniappe
