// SPDX-License-Identifier: MIT
#include "motion/hanging.h"

#include <algorithm>

#include "motion/climbing.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/piece_velocity.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

using Catch = Profile::Hang::Catch;
using Why = entry::LetGo::Why;

constexpr double kPushesAway = 0.3;  // Share of a full push, away from the wall, that is one.
constexpr double kMostAskew = radians(80.0);
constexpr double kUnderHands = 0.4;           // m that a wall's top may be below the hands that climb it.
constexpr double kSwings = 0.01;              // m beyond its way that a body is moved by at once.
constexpr double kStillWall = radians(30.0);  // What leans back farther is no wall: the rim has turned away.
constexpr double kFeet = 0.15;                // m over the foot and beyond the skin in which feet find a wall.
constexpr double kSameHeight = 0.1;           // m between rims that are one.
constexpr double kSamePlace = 1.0;            // m along it.

HangShape shape_of(const StepContext& context, const CharacterState& state) {
  const Values& p = context.profile;
  HangShape shape;
  shape.up_C = state.up_C();
  shape.radius = p.capsule.radius;
  shape.height = state.capsule_height;
  shape.margin = p.capsule.margin;
  shape.hands = p.hang.hands;
  shape.shortest_shelf = p.hang.shortest_shelf;
  shape.steepest_shelf = p.hang.steepest_shelf;
  shape.moment = context.now;
  return shape;
}

double rise_speed(const CharacterState& state) { return dot(state.velocity_C, state.up_C()); }

bool is_asked(const StepContext& context, const CharacterState& state) {
  if (climbs(state)) return climbs_out(context, state) && context.profile.hang.grasps != Catch::Never;
  const Profile::Hang& values = context.profile.hang;
  const Buttons &pressed = context.input.pressed, &held = context.input.held;
  if (held.has(Action::Crouch)) return false;
  const bool falls = rise_speed(state) <= values.rising;
  switch (values.grasps) {
    case Catch::Never:
      return false;
    case Catch::Button:
      return falls && (pressed.has(Action::Climb) || held.has(Action::Climb));
    case Catch::Falling:
      return falls;
    case Catch::Always:
      return true;
  }
  return false;
}

// The rim that is faced, within the angle, if the body gets there.
std::optional<RimGrip> grip_ahead(const StepContext& context, const CharacterState& state) {
  const Profile::Hang& values = context.profile.hang;
  const HangShape shape = shape_of(context, state);
  const Vec3 ahead = look_direction(state.frame_CB, state.facing, 0.0);
  // No fall is so fast that a rim passes between two ticks.
  const double fallen =
      std::max(2.0 * context.profile.gravity * context.dt - rise_speed(state), 0.0) * context.dt;
  const double below_hands = climbs(state) ? context.profile.climb.hands - kUnderHands : values.lowest;
  const double lowest = std::min({values.lowest, values.highest - fallen, below_hands});
  const auto grip = [&](const Vec3& towards_C, double reach) {
    return grip_from(context.world, shape, state.foot_C, towards_C, reach, lowest, values.highest).grip;
  };
  // Who comes askew has farther to go to the wall than it is away.
  const double askew = std::cos(std::min(values.facing, kMostAskew));
  auto found = grip(ahead, (values.reach + shape.radius) / askew - shape.radius);
  if (!found || context.world.ladder(found->piece, context.now)) return std::nullopt;  // That is climbed.
  if (dot(ahead, -found->normal_C) < std::cos(values.facing)) return std::nullopt;
  // Straight into the wall, so that one is pulled in and not along.
  if (const auto straight = grip(-found->normal_C, values.reach)) found = straight;
  if (dot(state.foot_C - found->rim_C, found->normal_C) > values.reach + shape.radius + kTouch)
    return std::nullopt;
  const Vec3 way = found->foot_C(shape) - state.foot_C;
  const Segment axis = capsule_axis(state, shape.radius);
  const auto hit = context.world.sweep(axis, shape.radius - shape.margin, way, context.now);
  return hit ? std::nullopt : found;
}

// m from the body's axis to the wall before its feet; 0 without one.
double wall_at_feet(const StepContext& context, const HangShape& shape, const RimGrip& grip) {
  const Vec3 from = grip.foot_C(shape) + shape.up_C * kFeet;
  const auto hit = context.world.cast_ray(from, -grip.normal_C * (grip.away + kFeet), context.now);
  return hit ? hit->hit.fraction * (grip.away + kFeet) : 0.0;
}

// Whether it is the rim that was let go last.
bool is_last(const StepContext& context, const CharacterState& state, const RimGrip& grip) {
  const Hold& last = state.hold;
  if (last.piece == kNoPiece) return true;
  const Vec3 off = grip.rim_C - hold_frame(context, last.piece).point(last.at_P);
  return std::abs(dot(off, state.up_C())) < kSameHeight && length(off) < kSamePlace;
}

void keep(const StepContext& context, const RimGrip& grip, const Vec3& pull_P, CharacterState& state) {
  Hold& hold = state.hold;
  const RigidPose frame = hold_frame(context, grip.piece);
  const auto in_piece = [&](const Vec3& v_C) { return glm::vec3(glm::conjugate(frame.rotation_CP) * v_C); };
  hold.piece = grip.piece;
  hold.at_P = frame.back(grip.rim_C);
  RimHold rim;
  rim.normal_P = in_piece(grip.normal_C);
  rim.along_P = in_piece(grip.along_C);
  rim.pull_P = glm::vec3(pull_P);
  rim.away = static_cast<float>(grip.away);
  rim.turn_left = static_cast<float>(grip.turn_left);
  rim.turn_right = static_cast<float>(grip.turn_right);
  rim.gap_left = static_cast<float>(grip.gap_left);
  rim.gap_right = static_cast<float>(grip.gap_right);
  rim.inner = grip.inner ? 1.0f : 0.0f;
  rim.wall = static_cast<float>(wall_at_feet(context, shape_of(context, state), grip));
  hold.set(rim);
}

RimGrip grip_of(const StepContext& context, const CharacterState& state) {
  const Hold& hold = state.hold;
  const RimHold rim = hold.rim();
  const RigidPose frame = hold_frame(context, hold.piece);
  RimGrip grip;
  grip.rim_C = frame.point(hold.at_P);
  grip.normal_C = unit_or(across(frame.rotation_CP * Vec3(rim.normal_P), state.up_C()), Vec3(0.0));
  grip.along_C = unit_or(frame.rotation_CP * Vec3(rim.along_P), Vec3(0.0));
  grip.away = rim.away;
  grip.piece = hold.piece;
  grip.turn_left = rim.turn_left;
  grip.turn_right = rim.turn_right;
  grip.gap_left = rim.gap_left;
  grip.gap_right = rim.gap_right;
  grip.inner = rim.inner > 0.5f;
  return grip;
}

// What has come where the hands are.
PieceId on_hands(const StepContext& context, const RimGrip& grip, const Vec3& up_C) {
  constexpr double kHand = 0.04;  // m.
  const Vec3 hand = grip.rim_C + up_C * (1.25 * kHand);
  std::array<WorldContact, 8> touched;
  const Vec3 shelf = grip.normal_C * -context.profile.hang.shortest_shelf;
  const std::size_t count = context.world.contacts({hand, hand + shelf}, kHand, touched, context.now);
  for (std::size_t i = 0; i < count; ++i) {
    if (touched[i].piece != grip.piece) return touched[i].piece;
  }
  return kNoPiece;
}

entry::LetGo why_lost(const StepContext& context, const RimGrip& before, const HangShape& shape,
                      const GripAnswer& answer) {
  const double most_back = shape.most_back();
  if (answer.in_the_way != kNoPiece) return {Why::PushedOff, 0.0, 0.0, answer.in_the_way};
  const LedgeAnswer& ledge = answer.ledge;
  if (answer.leans_back > 0.0 && answer.leans_back < kStillWall)
    return {Why::Leans, answer.leans_back, most_back, ledge.ledge ? ledge.ledge->wall_piece : before.piece};
  if (ledge.fault == LedgeFault::ShelfTooSteep) return {Why::TooSteep, ledge.found, ledge.allowed, ledge.piece};
  if (const PieceId piece = on_hands(context, before, shape.up_C); piece != kNoPiece)
    return {Why::NoRoom, ledge.found, ledge.allowed, piece};
  return {Why::NoRim, ledge.found, ledge.allowed, ledge.piece};
}

// As it is now, where the piece has turned or something came.
std::optional<RimGrip> held_now(const StepContext& context, const HangShape& shape, CharacterState& state) {
  const RimGrip before = grip_of(context, state);
  if (before.in_corner() || before.over_gap()) return before;
  const GripAnswer now = renewed(context.world, shape, before);
  if (!now.grip) throw_off(context, why_lost(context, before, shape, now), context.profile.hang.pause, state);
  return now.grip;
}

}  // namespace

Vec3 away_from_rim(const StepContext& context, const CharacterState& state) {
  return grip_of(context, state).normal_C;
}

bool pushes_away(const StepContext& context, const CharacterState& state) {
  const Intent intent = ground_intent(context, state);
  return dot(intent.direction_C, away_from_rim(context, state)) * intent.share > kPushesAway;
}

bool hang_may_begin(const StepContext& context, const CharacterState& state) {
  if (state.lying() || (state.holding() && !climbs(state)) || state.crushed || state.grounded()) return false;
  if (!is_asked(context, state)) return false;
  const auto grip = grip_ahead(context, state);
  const bool pauses =
      !state.holding() && state.hold.seconds > 0.0f && !context.input.pressed.has(Action::Climb);
  return grip && !(pauses && is_last(context, state, *grip));
}

void begin_hang(const StepContext& context, CharacterState& state) {
  if (hangs(state)) return;  // From one such state to another.
  const auto grip = grip_ahead(context, state);
  state.hold = Hold{};
  if (!grip) return;
  const HangShape shape = shape_of(context, state);
  const Vec3 foot = grip->foot_C(shape);
  const Vec3 own =
      state.velocity_C + state.ground_velocity_C - piece_velocity(context, grip->piece, state.foot_C);
  const double height = dot(grip->rim_C - state.foot_C, shape.up_C);
  state.hold.kind = Hold::Kind::Hang;
  const RigidPose frame = hold_frame(context, grip->piece);
  keep(context, *grip, glm::conjugate(frame.rotation_CP) * (state.foot_C - foot), state);
  state.hold.seconds = static_cast<float>(std::max(context.profile.hang.catch_time, 1e-3));
  lift_off(context, state);
  context.note(entry::Caught{grip->rim_C, foot, height, length(own), grip->piece});
}

void hang(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  const HangShape shape = shape_of(context, state);
  auto grip = held_now(context, shape, state);
  if (!grip) return;
  const double wished = dot(intent.direction_C, grip->along_C) * intent.share * context.profile.hang.speed;
  RimWay way;
  way.grip = *grip;
  if (std::abs(wished) > kTouch) way = follow_rim(context.world, shape, *grip, wished * context.dt);
  if (way.stop != RimStop::None)
    context.note(entry::RimEnds{way.stop == RimStop::Blocked, way.grip.rim_C, way.piece});
  Hold& hold = state.hold;
  Vec3 pull_P(hold.rim().pull_P);
  hold.gone = std::min(hold.gone + static_cast<float>(context.dt), hold.seconds);
  // Where the wall below the rim begins to lean otherwise, the body comes to its place in time.
  const Vec3 swung = grip->foot_C(shape) - way.grip.foot_C(shape);
  if (length(swung) > 1.1 * std::abs(way.gone) + kSwings) {
    pull_P =
        glm::conjugate(hold_frame(context, way.grip.piece).rotation_CP) * swung + pull_P * (1.0 - hold.phase());
    hold.gone = 0.0f;
    hold.seconds = static_cast<float>(std::max(context.profile.hang.catch_time, 1e-3));
  }
  keep(context, way.grip, pull_P, state);
  const Vec3 pull = hold_frame(context, hold.piece).rotation_CP * pull_P * (1.0 - hold.phase());
  stay_with_hold(context, body, way.grip.foot_C(shape) + pull, context.profile.hang.pause, state);
}

}  // namespace lagniappe
