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
#include "motion/piece_velocity.h"
#include "motion/push_out.h"
#include "motion/stance.h"
#include "states/table_pass.h"
#include "world/neighbourhood.h"

namespace lagniappe {
namespace {

// A wish of less than this share turns nobody.
constexpr double kStandingShare = 0.02;
// s over which the ground's slope is averaged to tell a crest: a real body does not notice shorter bumps.
constexpr double kTrendTime = 0.1;
constexpr double kTimerSlack = 1e-5;  // s that timers in single precision may be off.

CharacterState put_home(const StepContext& context, const Profile& profile, const CharacterState& state,
                        bool out_of_limits) {
  context.note(entry::Reset{out_of_limits});
  CharacterState home = start_state(profile, state.home, context.world, context.now.time);
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
  state.penetration = static_cast<float>(out.depth);
  state.crushed = out.crushed;
}

void turn_body(const StepContext& context, const Wish& wish, bool flies, CharacterState& state) {
  using Facing = Profile::Ground::Facing;
  const Facing facing = context.profile.ground.facing;
  if (facing == Facing::TurnInPlace && !flies) return;
  if (facing != Facing::View && wish.share <= kStandingShare) return;
  const Vec3 direction_B = glm::conjugate(state.frame_CB) * wish.direction_C;
  const bool along_push = facing == Facing::Travel || facing == Facing::TurnInPlace;
  const double towards = along_push ? std::atan2(-direction_B.x, -direction_B.z) : state.yaw;
  const double turned = turn_towards(state.facing, towards, context.profile.ground.turn_rate, context.dt);
  if (state.lying()) return turn_lying(context, turned, state);
  state.facing = turned;
}

// Pushing sideways turns body and look. The wish goes by the middle of the turn, so that arcs are the same at
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

void remember_push(const StepContext& context, const Wish& wish, CharacterState& state) {
  state.since_push = wish.share > 0.0 ? 0.0f : state.since_push + static_cast<float>(context.dt);
  if (state.since_push > context.profile.ground.gather.grace + kTimerSlack) state.gathered = 0.0;
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
      slope_along(flat, Vec3(state.ground_trend_C), body.up_C) - slope_along(flat, normal_C, body.up_C);
  if (falls <= ground.crest_angle + kTouch) return false;
  context.note(entry::Crest{falls, ground.crest_angle, speed});
  return true;
}

// Of the piece that was found, where the foot would rest on it.
Vec3 velocity_of(const StepContext& context, const GroundFound& found) {
  return piece_velocity(context, found.ground.piece, found.foot_C);
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
                         : leaving(state, velocity_of(context, found), found.ground.normal_C);
  if (verdict == Verdict::None || away || (!touching && !bears)) {
    state.ground = Ground{};
    return;
  }
  state.ground = found.ground;
  if (!bears) return;
  state.foot_C = found.foot_C;
  if (!held) return;
  state.snapped = touching ? 0.0f : static_cast<float>(found.gap);
  state.eye_offset += found.gap;
  if (!touching) context.note(entry::Snap{found.gap});
}

// The drawn body and camera catch up with steps and snaps; never further off than a step.
void settle_eye(const StepContext& context, CharacterState& state) {
  const Profile::Ground& ground = context.profile.ground;
  const double step = std::max({ground.highest_step, ground.snap_distance, context.profile.air.highest_step});
  const double most = std::min(step, context.profile.smoothing.largest);
  const double height = std::clamp(state.eye_offset, -most, most);
  state.eye_offset = height * decay_share(context.profile.smoothing.time, context.dt);
}

// What the tick's end makes of the velocity: landing, going on, or leaving.
void land_or_leave(const StepContext& context, const Body& body, Verdict before, PieceId piece_before,
                   CharacterState& state) {
  const bool held = before == Verdict::Walkable || before == Verdict::Steep;
  if (state.ground.verdict == Verdict::None || state.ground.verdict == Verdict::Perched) {
    if (held) leave_ground(context, state);
    if (before != Verdict::Walkable && state.since_grounded < kLongAgo) state.since_grounded += context.dt;
    state.ground_trend_C = glm::vec3(0.0f);
    return;
  }
  // From one piece to another what they differ in shows across up; a fall ends here, whatever the piece does.
  // About a piece that turns one goes as about one at rest.
  const Vec3 of_piece = ground_velocity(context, state);
  const bool same_piece = held && state.ground.piece == piece_before;
  if (!same_piece) state.velocity_C += body.flat(state.ground_velocity_C - of_piece);
  state.ground_velocity_C = of_piece;
  const double share = decay_share(kTrendTime, context.dt);
  const Vec3 trend = state.ground_trend_C;
  const Vec3& normal = state.ground.normal_C;
  state.ground_trend_C = trend == Vec3(0.0) ? normal : normal + (trend - normal) * share;
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

void move_and_find_ground(const StepContext& context, const Body& body, const Wish& wish, Behaviour behaviour,
                          CharacterState& state) {
  const Verdict before = state.ground.verdict;
  const PieceId piece_before = state.ground.piece;
  const Vec3 normal_before = state.ground.normal_C;
  const CharacterState was = state;
  if (before == Verdict::Steep || (before == Verdict::Walkable && behaviour == Behaviour::Skid)) {
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
  land_or_leave(context, body, before, piece_before, state);
  settle_lying(context, was, state);
}

// Everything that one tick's questions can be about: the way that is asked for or that momentum and moving
// ground give, a step up, a snap down. What reaches beyond is asked of the world itself, so this only decides
// the cost.
Box neighbourhood_of(const StepContext& context, const CharacterState& state) {
  const Values& p = context.profile;
  const double fastest = std::max(
      {length(state.velocity_C), length(state.ground_velocity_C) + p.ground.sprint_speed, p.air.speed,
       take_off_speed(p.gravity, p.jump.height), p.ground.gather.growth > 0.0 ? p.ground.gather.highest : 0.0});
  const double way = fastest * context.dt + p.gravity * context.dt * context.dt;
  const double step = std::max({p.ground.highest_step, p.ground.snap_distance, p.air.highest_step});
  const double tread = p.capsule.radius + p.ground.shortest_tread;
  const Segment axis = capsule_axis(state, p.capsule.radius);
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
  state.state = state.came_from = chart_of(profile).fallback();
  return state;
}

namespace {

// A place on a slope or a stair is where its surface is; the round of the foot stands a little higher. Returns
// the lowest foot above `foot_C`, by no more than a step, where the capsule is free; that itself where there is
// none, or where far less aside would do: push-out sees to that.
Vec3 out_of_the_ground(const StepContext& context, const Body& body, const Vec3& foot_C) {
  constexpr int kTries = 8;
  constexpr double kFarLess = 0.5;
  const auto is_free = [&](const Vec3& foot) {
    std::array<WorldContact, 1> touched;
    return body.world.contacts(body.axis(foot), body.radius - body.margin, touched, body.now) == 0;
  };
  const double highest = std::max(context.profile.ground.highest_step, body.radius);
  for (int i = 0; i <= kTries; ++i) {
    const Vec3 lift = body.up_C * (highest * i / kTries);
    if (!is_free(foot_C + lift)) continue;
    const auto hit = i > 0 ? body.sweep(foot_C + lift, -lift) : std::nullopt;
    const Vec3 up = lift * (hit ? 1.0 - hit->hit.fraction : i > 0 ? 0.0 : 1.0);
    const PushedOut aside = push_out(context, body, foot_C);
    return !aside.crushed && length(aside.foot_C - foot_C) < kFarLess * length(up) ? foot_C : foot_C + up;
  }
  return foot_C;
}

}  // namespace

CharacterState start_state(const Profile& profile, const Home& home, const World& world, double time) {
  CharacterState state = start_state(profile, home);
  state.time = time;
  const InputFrame nothing;
  const StepContext context{nothing, profile, world, 0.0, nullptr, Moment{state.time}};
  state.foot_C = out_of_the_ground(context, Body(context, state), state.foot_C);
  const GroundFound found = probe_ground(context, Body(context, state), state.foot_C, kGroundTouch);
  if (found.ground.verdict != Verdict::Walkable) return state;
  state.ground = found.ground;
  state.ground_velocity_C = ground_velocity(context, state);
  state.velocity_C = state.ground_velocity_C;
  state.ground_trend_C = state.ground.normal_C;
  state.since_grounded = 0.0;
  state.state = fitting_state(chart_of(profile), "Stand", Behaviour::Ground);
  return state;
}

namespace {

// What the buttons did, for the signals of the ticks to come.
void count_buttons(const StepContext& context, CharacterState& state) {
  for (std::size_t i = 0; i < state.since_press.size(); ++i) {
    const bool pressed = context.input.pressed.has(static_cast<Action>(i));
    state.since_press[i] = pressed ? 0.0f : state.since_press[i] + static_cast<float>(context.dt);
  }
  if (state.since_jump_press < kLongAgo && !context.input.pressed.has(Action::Jump))
    state.since_jump_press += context.dt;
  state.held = context.input.held;
}

// What moves the character before it does so itself.
void be_moved(StepContext& context, CharacterState& state) {
  const Body body(context, state);
  Carried carried = carry(context, body, state);
  if (carried.by == kNoPiece) carried = accompany(context, body, state);
  context.pushes = take_pushes(context, body, carried, state);
  leave_overlap(context, body, state);
}

// The wish, with what a script asks for in place of the stick.
Wish wished(const StepContext& context, const std::optional<Vec2>& steer, const CharacterState& state) {
  if (!steer) return wish_on_ground(context, state);
  InputFrame steered = context.input;
  const double size = glm::length(*steer);
  steered.move = size > 1.0 ? *steer / size : *steer;
  // What a script asks for has no dead zone.
  Values values = context.profile;
  values.look.dead_zone = 0.0;
  return wish_on_ground({steered, values, context.world, context.dt, nullptr, context.now}, state);
}

void move(const StepContext& context, const Wish& wish, Behaviour behaviour, CharacterState& state) {
  const Body body(context, state);
  if (behaviour == Behaviour::Fly) {
    move_in_flight(context, body, state);
  } else {
    move_and_find_ground(context, body, wish, behaviour, state);
  }
}

}  // namespace

CharacterState step(const CharacterState& before, const InputFrame& input, const Profile& profile,
                    const World& world, double dt, Ledger* ledger) {
  assert(dt > 0.0 && dt <= 0.1 + kTouch);
  CharacterState state = before;
  Values values = chart_of(profile).values_in(state.state, profile);
  const Moment now{before.time + dt};
  const StepContext asking{input, values, world, dt, ledger, now};
  if (input.pressed.has(Action::Reset)) return put_home(asking, profile, before, false);

  const Neighbourhood near(world, neighbourhood_of(asking, state), now.time);
  StepContext context{input, values, near, dt, ledger, now};
  state.slides = 0;
  state.stepped = false;
  state.snapped = 0.0f;

  look(context, state);
  be_moved(context, state);
  TablePass table(profile, context, before, values, state);
  table.before_motion();
  const bool flies = table.present().behaviour == Behaviour::Fly;
  if (flies) {
    give_jumps_back(state);
    state.first_jump_used = true;
  } else if (!table.jumped()) {
    refuse_jump(context, Body(context, state), state);
  }
  const std::optional<Vec2> steer = table.run_script();
  cut_jump(context, state);
  take_stance(context, table.present().stance, state);
  if (!flies) turn_in_place(context, state);
  const Wish wish = wished(context, steer, state);
  turn_body(context, wish, flies, state);
  move(context, wish, table.present().behaviour, state);
  settle_eye(context, state);
  state.ground_time = state.grounded() && before.grounded() ? state.ground_time + static_cast<float>(dt) : 0.0f;
  table.after_motion();

  state.velocity_C += state.ground_velocity_C;
  remember_push(context, wish, state);
  count_buttons(context, state);
  state.state_time += dt;
  state.time = now.time;
  ++state.tick;
  if (!world.limits().contains(state.foot_C)) return put_home(asking, profile, before, true);
  return state;
}

}  // namespace lagniappe
