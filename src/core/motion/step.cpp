// SPDX-License-Identifier: MIT
// The order of one tick. Each phase is a function; what it decides is in its ledger entries.
#include "lagniappe/step.h"

#include <algorithm>
#include <cassert>

#include "lagniappe/handling.h"
#include "math/integrators.h"
#include "motion/behaviours.h"
#include "motion/ground.h"
#include "motion/jumping.h"
#include "motion/moving.h"
#include "motion/push_out.h"
#include "world/neighbourhood.h"

namespace lagniappe {
namespace {

// A wish of less than this share is standing; only names the state.
constexpr double kStandingShare = 0.02;
// s over which the ground's slope is averaged to tell a crest: a real body does not notice shorter bumps.
constexpr double kTrendTime = 0.1;

CharacterState put_home(const StepContext& context, const CharacterState& state, bool out_of_limits) {
  context.note(entry::Reset{out_of_limits});
  CharacterState home = start_state(context.profile, state.home, context.world, context.now.time);
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

void choose_state(const StepContext& context, const Body& body, CharacterState& state) {
  if (context.input.pressed.has(Action::Fly)) {
    if (state.state != StateId::Fly && state.ground.verdict != Verdict::None) leave_ground(context, state);
    enter_state(context, state, state.state == StateId::Fly ? StateId::Fall : StateId::Fly);
    state.ground = Ground{};
    state.since_grounded = kLongAgo;
  }
  if (state.state == StateId::Fly) {
    give_jumps_back(state);
    state.first_jump_used = true;
  } else {
    try_to_jump(context, body, state);
    cut_jump(context, state);
  }
}

void turn_body(const StepContext& context, const Wish& wish, CharacterState& state) {
  using Facing = Profile::Ground::Facing;
  const Facing facing = context.profile.ground.facing;
  if (facing == Facing::TurnInPlace && state.state != StateId::Fly) return;
  if (facing != Facing::View && wish.share <= kStandingShare) return;
  const Vec3 direction_B = glm::conjugate(state.frame_CB) * wish.direction_C;
  const bool along_push = facing == Facing::Travel || facing == Facing::TurnInPlace;
  const double towards = along_push ? std::atan2(-direction_B.x, -direction_B.z) : state.yaw;
  state.facing = turn_towards(state.facing, towards, context.profile.ground.turn_rate, context.dt);
}

// Pushing sideways turns body and look. The wish goes by the middle of the turn, so that arcs are the same at
// any tick rate, to second order.
void turn_in_place(const StepContext& context, CharacterState& state) {
  const Profile& profile = context.profile;
  if (profile.ground.facing != Profile::Ground::Facing::TurnInPlace || state.state == StateId::Fly) return;
  const double push = shaped_stick(context.input.move, profile.look.dead_zone).x;
  const double turned = -push * profile.ground.turn_rate * context.dt;
  state.facing = wrap_angle(state.facing + turned);
  state.yaw = wrap_angle(state.yaw + turned);
  state.carried_yaw += turned;
}

void remember_push(const StepContext& context, const Wish& wish, CharacterState& state) {
  state.since_push = wish.share > 0.0 ? 0.0 : std::min(state.since_push + context.dt, kLongAgo);
  if (state.since_push > context.profile.ground.gather.grace + kTouch) state.gathered = 0.0;
}

// Whether a skid that reached walkable ground still runs out.
bool still_running_out(const StepContext& context, const CharacterState& state) {
  if (state.state != StateId::Skid || !state.grounded()) return false;
  const double lowest = context.profile.skid.lowest_speed;
  return length(state.velocity_C) > (lowest > 0.0 ? lowest : full_ground_speed(context));
}

// The state that fits what is underfoot and what is wished.
StateId fitting_state(const StepContext& context, const CharacterState& state, const Wish& wish) {
  if (still_running_out(context, state)) return StateId::Skid;
  if (state.grounded()) {
    if (wish.share <= kStandingShare) return StateId::Stand;
    return context.input.held.has(Action::Sprint) ? StateId::Sprint : StateId::Walk;
  }
  if (state.ground.verdict == Verdict::Steep) return StateId::Skid;
  return dot(state.velocity_C, state.up_C()) > 0.0 ? StateId::Rise : StateId::Fall;
}

bool leaving(const CharacterState& state, const Vec3& velocity_C, const Vec3& normal_C) {
  return dot(state.velocity_C - velocity_C, normal_C) > kLeavingSpeed;
}

// Whether the ground falls away under the character more sharply than it can follow at its speed.
bool flies_over_crest(const StepContext& context, const Body& body, const CharacterState& state,
                      const Vec3& normal_C) {
  const Profile::Ground& ground = context.profile.ground;
  const Vec3 flat = body.flat(state.velocity_C);
  const double speed = length(state.velocity_C);
  if (speed <= ground.crest_speed) return false;
  const double falls =
      slope_along(flat, state.ground_trend_C, body.up_C) - slope_along(flat, normal_C, body.up_C);
  if (falls <= ground.crest_angle + kTouch) return false;
  context.note(entry::Crest{falls, ground.crest_angle, speed});
  return true;
}

// Probes, judges and snaps. `before`: what the tick began on; None after a jump.
void find_ground(const StepContext& context, const Body& body, Verdict before, CharacterState& state) {
  const bool held = before == Verdict::Walkable || before == Verdict::Steep;
  const double reach = held ? std::max(context.profile.ground.snap_distance, kGroundTouch) : kGroundTouch;
  const GroundFound found = probe_ground(context, body, state.foot_C, reach);
  const Verdict verdict = found.ground.verdict;
  const bool touching = found.gap <= kGroundTouch;
  const bool bears = verdict == Verdict::Walkable || (verdict == Verdict::Steep && before == Verdict::Steep);
  const bool away = held ? !touching && flies_over_crest(context, body, state, found.ground.normal_C)
                         : leaving(state, ground_velocity(context, found.ground), found.ground.normal_C);
  if (verdict == Verdict::None || away || (!touching && !bears)) {
    state.ground = Ground{};
    return;
  }
  state.ground = found.ground;
  if (!bears) return;
  state.foot_C -= body.up_C * found.gap;
  if (!held) return;
  state.snapped = touching ? 0.0 : found.gap;
  state.eye_offset_C += body.up_C * found.gap;
  if (!touching) context.note(entry::Snap{found.gap});
}

// The drawn body and camera catch up with steps and snaps; never further off than a step.
void settle_eye(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Ground& ground = context.profile.ground;
  const double step = std::max({ground.highest_step, ground.snap_distance, context.profile.air.highest_step});
  const double most = std::min(step, context.profile.smoothing.largest);
  const double height = std::clamp(dot(state.eye_offset_C, body.up_C), -most, most);
  state.eye_offset_C = body.up_C * (height * decay_share(context.profile.smoothing.time, context.dt));
}

// What the tick's end makes of the velocity: landing, going on, or leaving.
void land_or_leave(const StepContext& context, const Body& body, Verdict before, CharacterState& state) {
  const bool held = before == Verdict::Walkable || before == Verdict::Steep;
  if (state.ground.verdict == Verdict::None || state.ground.verdict == Verdict::Perched) {
    if (held) leave_ground(context, state);
    if (before != Verdict::Walkable && state.since_grounded < kLongAgo) state.since_grounded += context.dt;
    state.ground_trend_C = Vec3(0.0);
    return;
  }
  // From one piece to another what they differ in shows across up; a fall ends here, whatever the piece does.
  const Vec3 of_piece = ground_velocity(context, state.ground);
  state.velocity_C += body.flat(state.ground_velocity_C - of_piece);
  state.ground_velocity_C = of_piece;
  const double share = decay_share(kTrendTime, context.dt);
  const bool fresh = state.ground_trend_C == Vec3(0.0);
  state.ground_trend_C = fresh ? state.ground.normal_C
                               : state.ground.normal_C + (state.ground_trend_C - state.ground.normal_C) * share;
  if (!state.grounded()) {
    if (before != Verdict::Walkable && state.since_grounded < kLongAgo) state.since_grounded += context.dt;
    return;
  }
  // Landing takes the fall away; along the ground the speed is kept as it is laid on the face.
  const SpeedOnSlopes measure = context.profile.ground.speed_on_slopes;
  const Vec3 flat = held ? flattened(state.velocity_C, body.up_C, measure) : body.flat(state.velocity_C);
  state.velocity_C = laid_on(flat, state.ground.normal_C, body.up_C, measure);
  state.since_grounded = 0.0;
  give_jumps_back(state);
}

void move_and_find_ground(const StepContext& context, const Body& body, const Wish& wish,
                          CharacterState& state) {
  const Verdict before = state.ground.verdict;
  const Vec3 normal_before = state.ground.normal_C;
  if (before == Verdict::Steep || still_running_out(context, state)) {
    move_skidding(context, body, wish, state);
  } else if (before == Verdict::Walkable) {
    move_on_ground(context, body, wish, state);
  } else {
    move_in_air(context, body, wish, state);
  }
  find_ground(context, body, before, state);
  // Off the ground the velocity goes on along the face that was left.
  if (before == Verdict::Walkable && !state.grounded()) {
    state.velocity_C =
        laid_on(state.velocity_C, normal_before, body.up_C, context.profile.ground.speed_on_slopes);
  }
  land_or_leave(context, body, before, state);
  enter_state(context, state, fitting_state(context, state, wish));
}

// Everything that one tick's questions can be about: the way that is asked for or that momentum and moving
// ground give, a step up, a snap down. What reaches beyond is asked of the world itself, so this only decides
// the cost.
Box neighbourhood_of(const StepContext& context, const CharacterState& state) {
  const Profile& p = context.profile;
  const double fastest = std::max(
      {length(state.velocity_C), length(state.ground_velocity_C) + p.ground.sprint_speed, p.air.speed,
       take_off_speed(p.gravity, p.jump.height), p.ground.gather.growth > 0.0 ? p.ground.gather.highest : 0.0});
  const double way = fastest * context.dt + p.gravity * context.dt * context.dt;
  const double step = std::max({p.ground.highest_step, p.ground.snap_distance, p.air.highest_step});
  const double tread = p.capsule.radius + p.ground.shortest_tread;
  const Segment axis = capsule_axis(state.foot_C, state.up_C(), p.capsule.radius, state.capsule_height);
  return bounds(axis).grown(p.capsule.radius + way + std::max(step, tread) + 4.0 * kGroundTouch);
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

CharacterState start_state(const Profile& profile, const Home& home, const World& world, double time) {
  CharacterState state = start_state(profile, home);
  state.time = time;
  const InputFrame nothing;
  const StepContext context{nothing, profile, world, 0.0, nullptr, Moment{state.time}};
  const GroundFound found = probe_ground(context, Body(context, state), state.foot_C, kGroundTouch);
  if (found.ground.verdict != Verdict::Walkable) return state;
  state.ground = found.ground;
  state.ground_velocity_C = ground_velocity(context, state.ground);
  state.velocity_C = state.ground_velocity_C;
  state.ground_trend_C = state.ground.normal_C;
  state.since_grounded = 0.0;
  state.state = StateId::Stand;
  return state;
}

CharacterState step(const CharacterState& before, const InputFrame& input, const Profile& profile,
                    const World& world, double dt, Ledger* ledger) {
  assert(dt > 0.0 && dt <= 0.1 + kTouch);
  CharacterState state = before;
  state.capsule_height = profile.capsule.height;
  const Moment now{before.time + dt};
  const StepContext asking{input, profile, world, dt, ledger, now};
  if (input.pressed.has(Action::Reset)) return put_home(asking, before, false);

  const Neighbourhood near(world, neighbourhood_of(asking, state), now.time);
  const StepContext context{input, profile, near, dt, ledger, now};
  state.slides = 0;
  state.stepped = false;
  state.snapped = 0.0;
  const Body body(context, state);

  look(context, state);
  carry(context, body, state);
  take_pushes(context, body, state);
  leave_overlap(context, body, state);
  choose_state(context, body, state);
  turn_in_place(context, state);
  const Wish wish = wish_on_ground(context, state);
  turn_body(context, wish, state);
  if (state.state == StateId::Fly) {
    move_in_flight(context, body, state);
  } else {
    move_and_find_ground(context, body, wish, state);
  }
  settle_eye(context, body, state);

  state.velocity_C += state.ground_velocity_C;
  remember_push(context, wish, state);
  if (state.since_jump_press < kLongAgo && !input.pressed.has(Action::Jump)) state.since_jump_press += dt;
  state.state_time += dt;
  state.held = input.held;
  state.time = now.time;
  ++state.tick;
  if (!world.limits().contains(state.foot_C)) return put_home(asking, before, true);
  return state;
}

}  // namespace lagniappe
