// SPDX-License-Identifier: MIT
#include "motion/stance.h"

#include <algorithm>

#include "motion/jumping.h"

namespace lagniappe {
namespace {

constexpr double kSteepestLie = radians(60.0);  // Pitch of a lying body.
constexpr double kLieTurn = radians(240.0);     // Per second, of its pitch.
constexpr int kTurnHalvings = 5;

// Whether the core of the capsule is free of solids.
bool is_free(const StepContext& context, const CharacterState& state) {
  const Body body(context, state);
  std::array<WorldContact, 1> touched;
  return body.world.contacts(body.axis(state.foot_C), body.radius - body.margin, touched, body.now) == 0;
}

double hang_reach(const StepContext& context) {
  return std::max(context.profile.ground.snap_distance, context.profile.ground.highest_step);
}

// The height of the ground under a ball there, against the ball's own rest; nothing if there is none in reach.
std::optional<double> ground_under(const StepContext& context, const Body& body, const Vec3& centre_C,
                                   double lift, double reach) {
  const Segment ball{centre_C + body.up_C * lift, centre_C + body.up_C * lift};
  const auto hit = context.world.sweep(ball, body.radius, -body.up_C * (lift + reach), context.now);
  if (!hit) return std::nullopt;
  return lift - hit->hit.fraction * (lift + reach);
}

// Of a body that lies along the ground underfoot.
float pitch_of_ground(const CharacterState& state) {
  if (state.ground.verdict == Verdict::None) return 0.0f;
  const Vec3 ahead = look_direction(state.frame_CB, state.facing, 0.0);
  const double slope = slope_along(ahead, state.ground.normal_C, state.up_C());
  return static_cast<float>(std::clamp(slope, -kSteepestLie, kSteepestLie));
}

bool ends_are_held(const StepContext& context, const CharacterState& state) {
  if (state.ground.verdict == Verdict::None) return true;
  const Body body(context, state);
  const double reach = hang_reach(context);
  for (const Vec3& end : {body.low_C, body.high_C}) {
    if (!body.cast_ray(state.foot_C + end, -body.up_C * (body.radius + reach))) return false;
  }
  return true;
}

// What stands against the lying capsule of a state; nothing if it fits.
std::optional<entry::LieHeld::Why> against_lying(const StepContext& context, const CharacterState& state) {
  if (!is_free(context, state)) return entry::LieHeld::Why::Wall;
  if (!ends_are_held(context, state)) return entry::LieHeld::Why::Drop;
  return std::nullopt;
}

// The heights and lengths of a profile's stances, and how fast one becomes the other.
struct Shapes {
  double ball, crouched, standing, lying;  // m; lying: beyond the ball.
  double crouch_rate, lie_rate;            // m/s.

  explicit Shapes(const Values& values)
      : ball(2.0 * values.capsule.radius),
        crouched(std::clamp(values.stances.crouched_height, ball, values.capsule.height)),
        standing(values.capsule.height),
        lying(std::max(values.stances.lying_length - ball, 0.0)) {
    const auto rate = [](double way, double time) { return time > 0.0 ? way / time : 1e9; };
    crouch_rate = std::max(rate(standing - crouched, values.stances.crouch_time), 1e-3);
    lie_rate = std::max(rate(crouched - ball + lying, values.stances.lie_time), 1e-3);
  }
};

// One change of the tick: how much of its time is left after it, or that it was stopped.
struct Growth {
  const StepContext& context;
  CharacterState& state;
  double seconds;  // Still to be used.

  bool in_air() const { return state.ground.verdict == Verdict::None; }
  bool lifts_feet() const {
    return in_air() && context.profile.stances.in_air == Values::Stances::InAir::LiftFeet;
  }

  // Down to a height: always possible.
  void shrink(double to, double rate) {
    const double by = std::min(state.capsule_height - to, rate * seconds);
    if (by <= 0.0) return;
    state.capsule_height -= by;
    seconds -= by / rate;
    if (lifts_feet()) state.foot_C += state.up_C() * by;
  }

  // Up to a height, or to what is overhead; in the air also down to what is below.
  bool grow(double to, double rate) {
    double by = std::min(to - state.capsule_height, rate * seconds);
    if (by <= 0.0) return true;
    seconds -= by / rate;
    if (lifts_feet()) {
      const double down = room(-1.0, by);
      state.foot_C -= state.up_C() * down;
      state.capsule_height += down;
      by -= down;
    }
    const double up = room(1.0, by);
    state.capsule_height += up;
    return up >= by - kTouch || blocked(to);
  }

  bool blocked(double wanted) const {
    const Body body(context, state);
    const auto hit = body.sweep(state.foot_C, body.up_C * (wanted - state.capsule_height));
    context.note(entry::StanceWaits{entry::StanceWaits::Why::Ceiling, wanted, state.capsule_height,
                                    hit ? hit->piece : kNoPiece});
    return false;
  }

  double room(double way, double most) const {
    const Body body(context, state);
    const auto hit = body.sweep(state.foot_C, body.up_C * (way * most));
    const bool stops = hit && dot(hit->hit.normal_C, body.up_C) * way < -kUpright;
    return stops ? std::max(hit->hit.fraction * most - kTouch, 0.0) : most;
  }

  // Lies down longer, or gets up shorter, towards a length beyond the ball.
  bool lengthen(double to, double rate) {
    const double was = state.lie_length, by = std::clamp(to - was, -rate * seconds, rate * seconds);
    if (by == 0.0) return true;
    seconds -= std::abs(by) / rate;
    state.lie_length = static_cast<float>(was + by);
    if (was == 0.0) state.lie_pitch = pitch_of_ground(state);
    if (by < 0.0) {
      if (state.lie_length <= 0.0f) state.lie_pitch = state.lie_length = 0.0f;
      return true;
    }
    const auto why = against_lying(context, state);
    if (!why) return true;
    state.lie_length = static_cast<float>(was);
    const auto waits =
        *why == entry::LieHeld::Why::Wall ? entry::StanceWaits::Why::Wall : entry::StanceWaits::Why::Drop;
    const double ball = 2.0 * context.profile.capsule.radius;
    context.note(entry::StanceWaits{waits, ball + to, ball + was, kNoPiece});
    return false;
  }
};

}  // namespace

double head_room(const Body& body, const Vec3& foot_C, double most) {
  const auto hit = body.sweep(foot_C, body.up_C * most);
  const bool stops = hit && dot(hit->hit.normal_C, body.up_C) < -kUpright;
  return stops ? hit->hit.fraction * most : most;
}

void take_stance(const StepContext& context, Stance stance, CharacterState& state) {
  const Shapes shapes(context.profile);
  Growth growth{context, state, context.dt};
  state.capsule_height = std::max(state.capsule_height, shapes.ball);
  if (stance == Stance::Lying) {
    growth.shrink(std::max(shapes.crouched, shapes.ball), shapes.crouch_rate);
    growth.shrink(shapes.ball, shapes.lie_rate);
    if (growth.seconds > 0.0 && state.capsule_height <= shapes.ball + kTouch)
      growth.lengthen(shapes.lying, shapes.lie_rate);
    return;
  }
  if (state.lying()) growth.lengthen(0.0, shapes.lie_rate);
  if (state.lying() || growth.seconds <= 0.0) return;
  const double height = stance == Stance::Crouched ? shapes.crouched : shapes.standing;
  growth.shrink(height, shapes.crouch_rate);
  if (!growth.grow(std::min(height, shapes.crouched), shapes.lie_rate)) return;
  growth.grow(height, shapes.crouch_rate);
}

bool has_room(const StepContext& context, const CharacterState& state, Stance stance) {
  const Shapes shapes(context.profile);
  if (stance == Stance::Lying) {
    CharacterState lying = state;
    lying.capsule_height = shapes.ball;
    lying.lie_length = static_cast<float>(shapes.lying);
    lying.lie_pitch = 0.0f;
    if (!against_lying(context, lying)) return true;
    // On a slope only the one that is aligned to it fits.
    lying.lie_pitch = pitch_of_ground(state);
    return !against_lying(context, lying);
  }
  const double height = stance == Stance::Crouched ? shapes.crouched : shapes.standing;
  if (height <= state.capsule_height + kTouch) return true;
  CharacterState ball = state;
  ball.lie_length = 0.0f;
  const double wanted = height - ball.capsule_height;
  return head_room(Body(context, ball), state.foot_C, wanted) >= wanted - kTouch;
}

void turn_lying(const StepContext& context, double facing, CharacterState& state) {
  const double from = state.facing, by = wrap_angle(facing - from);
  if (by == 0.0) return;
  const auto held_before = against_lying(context, state);
  double share = 1.0;
  std::optional<entry::LieHeld::Why> why;
  for (int i = 0; i <= kTurnHalvings; ++i, share *= 0.5) {
    state.facing = wrap_angle(from + by * share);
    const auto against = against_lying(context, state);
    if (!against || (held_before && *against == *held_before)) break;
    why = against;
    state.facing = from;
  }
  if (why) context.note(entry::LieHeld{*why, true});
}

namespace {

// Follows the ground under both ends, at a limited rate; not into a solid.
void align(const StepContext& context, CharacterState& state) {
  const Body body(context, state);
  const double half = 0.5 * static_cast<double>(state.lie_length);
  const Vec3 ahead = look_direction(state.frame_CB, state.facing, 0.0) * half;
  const Vec3 middle = state.foot_C + body.up_C * body.radius;
  const double lift = hang_reach(context);
  const auto head = ground_under(context, body, middle + ahead, lift, lift + half);
  const auto feet = ground_under(context, body, middle - ahead, lift, lift + half);
  if (!head || !feet || half <= 0.0) return;
  const double wanted = std::clamp(std::atan2(*head - *feet, 2.0 * half), -kSteepestLie, kSteepestLie);
  const double most = kLieTurn * context.dt, was = state.lie_pitch;
  state.lie_pitch = static_cast<float>(was + std::clamp(wanted - was, -most, most));
  if (!is_free(context, state)) state.lie_pitch = static_cast<float>(was);
}

}  // namespace

void settle_lying(const StepContext& context, const CharacterState& before, CharacterState& state) {
  if (!state.lying()) return;
  if (state.ground.verdict == Verdict::None) return;
  if (before.ground.verdict != Verdict::None && !ends_are_held(context, state) &&
      ends_are_held(context, before)) {
    context.note(entry::LieHeld{entry::LieHeld::Why::Drop, false});
    state.foot_C = before.foot_C;
    state.ground = before.ground;
    state.velocity_C = Vec3(0.0);
    return;
  }
  align(context, state);
}

}  // namespace lagniappe
