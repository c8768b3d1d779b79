// SPDX-License-Identifier: MIT
#include "motion/stance.h"

#include <algorithm>

#include "motion/contact_kind.h"
#include "motion/jumping.h"
#include "motion/upright_way.h"

namespace lagniappe {
namespace {

constexpr double kSteepestLie = radians(60.0);  // Pitch of a lying body.
constexpr double kLieTurn = radians(240.0);     // Per second, of its pitch.
constexpr int kTurnHalvings = 5;
constexpr double kDropSpacing = 0.1;  // m between the places where a body that lies looks for a drop.

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

// Whether the ground goes on from under the middle to under an end: nowhere more steeply than is walked, nor
// down by more than a step.
bool end_is_held(const StepContext& context, const Body& body, const CharacterState& state, const Vec3& end_C) {
  const Vec3 middle = 0.5 * (body.low_C + body.high_C);
  const int parts = std::max(static_cast<int>(std::ceil(length(end_C - middle) / kDropSpacing)), 1);
  const double slope = std::tan(context.profile.ground.steepest_walkable);
  const double fall = length(body.flat(end_C - middle)) / parts * slope + hang_reach(context);
  // Across the foot of a slope the middle may be over the ground by as much as the slope rises to an end.
  double lowest = dot(state.foot_C, body.up_C);
  const double bridged = body.radius + hang_reach(context) + length(body.flat(end_C - middle)) * slope;
  if (const auto under = body.cast_ray(state.foot_C + middle, -body.up_C * bridged))
    lowest = dot(under->hit.point_C, body.up_C);
  for (int i = 1; i <= parts; ++i) {
    const Vec3 from = state.foot_C + middle + (end_C - middle) * (static_cast<double>(i) / parts);
    const double reach = dot(from, body.up_C) - lowest + fall;
    if (reach <= 0.0) continue;
    const auto hit = body.cast_ray(from, -body.up_C * reach);
    if (!hit) return false;
    lowest = dot(hit->hit.point_C, body.up_C);
  }
  return true;
}

bool ends_are_held(const StepContext& context, const CharacterState& state) {
  if (state.ground.verdict == Verdict::None) return true;
  const Body body(context, state);
  return end_is_held(context, body, state, body.low_C) && end_is_held(context, body, state, body.high_C);
}

// Takes a body that lies out of what it entered by less than the margin, so that its motion begins at the
// surface and not in it.
void leave_margin(const StepContext& context, CharacterState& state) {
  const Body body(context, state);
  for (int round = 0; round < kMostPlanes; ++round) {
    std::array<WorldContact, 1> deepest;
    if (body.world.contacts(body.axis(state.foot_C), body.radius - kTouch, deepest, body.now) == 0) return;
    state.foot_C += deepest[0].closest.normal_C * (body.radius - deepest[0].closest.distance);
  }
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
        crouched(crouched_height(values)),
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
    if (lifts_feet()) by -= lengthen_upright(-1.0, by);
    return lengthen_upright(1.0, by) >= by - kTouch || blocked(to);
  }

  // Lengthens the upright capsule up or down by as much of `most` as there is room for; walls that lean move it
  // aside. Returns how much.
  double lengthen_upright(double way, double most) {
    const Body body(context, state);
    const Vec3 along = body.up_C * way;
    const UprightWay moved = upright_way(context, body, state.foot_C, along, most);
    const double by = moved.stop ? std::max(moved.gone - kTouch, 0.0) : moved.gone;
    CharacterState grown = state;
    grown.capsule_height += by;
    grown.foot_C += body.flat(moved.foot_C - state.foot_C);
    if (way < 0.0) grown.foot_C += along * by;
    if (grown.foot_C != state.foot_C && !is_free(context, grown)) return straight(along, most);
    state = grown;
    return by;
  }

  // The same without moving aside.
  double straight(const Vec3& along_C, double most) {
    const Body body(context, state);
    const auto hit = body.sweep(state.foot_C, along_C * most);
    const double by = hit ? std::max(hit->hit.fraction * most - kTouch, 0.0) : most;
    state.capsule_height += by;
    if (dot(along_C, body.up_C) < 0.0) state.foot_C += along_C * by;
    return by;
  }

  bool blocked(double wanted) const {
    const Body body(context, state);
    const auto hit = body.sweep(state.foot_C, body.up_C * (wanted - state.capsule_height));
    context.note(entry::StanceWaits{entry::StanceWaits::Why::Ceiling, wanted, state.capsule_height,
                                    hit ? hit->piece : kNoPiece});
    return false;
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

double head_room(const StepContext& context, const Body& body, const Vec3& foot_C, double most) {
  return upright_way(context, body, foot_C, body.up_C, most).gone;
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

namespace {

// Whether something has come into the capsule that a crouched one would be clear of.
bool ducking_helps(const StepContext& context, const Shapes& shapes, const CharacterState& state) {
  if (!state.crushed || state.lying()) return false;
  CharacterState low = state;
  low.capsule_height = std::min(shapes.crouched, state.capsule_height);
  return !is_free(context, state) && is_free(context, low);
}

}  // namespace

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
  if (height <= state.capsule_height + kTouch) return !ducking_helps(context, shapes, state);
  CharacterState grown = state;
  grown.lie_length = 0.0f;
  const double wanted = height - grown.capsule_height;
  return Growth{context, grown, context.dt}.lengthen_upright(1.0, wanted) >= wanted - kTouch;
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
  leave_margin(context, state);
  if (why) context.note(entry::LieHeld{*why});
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
  leave_margin(context, state);
}

}  // namespace

void settle_lying(const StepContext& context, CharacterState& state) {
  if (!state.lying()) return;
  if (state.ground.verdict == Verdict::None) return;
  align(context, state);
}

}  // namespace lagniappe
