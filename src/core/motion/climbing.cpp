// SPDX-License-Identifier: MIT
#include "motion/climbing.h"

#include <algorithm>

#include "lagniappe/handling.h"
#include "lagniappe/ledge.h"
#include "ledges/follow_wall.h"
#include "motion/footing.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/piece_velocity.h"
#include "motion/stance.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

using Grip = Profile::Climb::Grip;
using Why = entry::LetGo::Why;

constexpr double kPushed = 0.5;       // Share of a full push that asks for it.
constexpr double kTowards = 0.7071;   // Cosine between the push and the way into the wall.
constexpr double kSameLevel = 0.15;   // m between the foot and the rim that is backed over.
constexpr double kOverFloor = 0.005;  // m at most, of the foot that has come down.
constexpr double kBeforeWall = 0.02;  // m.

ClimbShape shape_of(const StepContext& context, const CharacterState& state) {
  const Values& p = context.profile;
  ClimbShape shape;
  shape.up_C = state.up_C();
  shape.radius = p.capsule.radius;
  shape.height = state.capsule_height;
  shape.margin = p.capsule.margin;
  shape.gap = p.climb.gap;
  shape.hands = p.climb.hands;
  shape.most_back = p.climb.most_back;
  shape.most_over = p.climb.most_over;
  shape.steepest_floor = p.ground.steepest_walkable;
  shape.moment = context.now;
  return shape;
}

Vec3 facing_of(const CharacterState& state) { return look_direction(state.frame_CB, state.facing, 0.0); }

bool is_asked(const StepContext& context, const CharacterState& state, const Intent& intent) {
  const Buttons &pressed = context.input.pressed, &held = context.input.held;
  if (held.has(Action::Crouch)) return false;
  switch (context.profile.climb.grip) {
    case Grip::Never:
      return false;
    case Grip::Button:
      return pressed.has(Action::Climb) || held.has(Action::Climb);
    case Grip::Stick:
      return intent.share >= kPushed;
    case Grip::Always:
      return !state.grounded() || intent.share >= kPushed;
  }
  return false;
}

WallAnswer wall_before(const StepContext& context, const CharacterState& state, const Intent& intent) {
  const Vec3 towards = intent.share > 0.0 ? intent.direction_C : facing_of(state);
  return wall_ahead(context.world, shape_of(context, state), state.foot_C, towards,
                    context.profile.climb.reach);
}

// The wall below the rim that one would back over: where one is pushed, else behind the back.
struct Descent {
  WallGrip grip;
  Vec3 over_C;  // Of the foot, beyond the rim.
};
std::optional<Descent> wall_below(const StepContext& context, const CharacterState& state,
                                  const Intent& intent) {
  if (!state.grounded() || !context.input.pressed.has(Action::Climb)) return std::nullopt;
  const Values& p = context.profile;
  const ClimbShape shape = shape_of(context, state);
  const Vec3 out = intent.share > 0.0 ? intent.direction_C : -facing_of(state), up = shape.up_C;
  LedgeQuery query;
  query.up_C = up;
  query.towards_C = -out;
  query.radius = shape.radius;
  query.reach = p.climb.reach + 2.0 * shape.radius;
  query.foot_C = state.foot_C + out * (p.climb.reach + 3.0 * shape.radius) - up * shape.hands;
  query.lowest = shape.hands - kSameLevel;
  query.highest = shape.hands + kSameLevel;
  query.crouched = query.standing = 0.0;
  query.most_over = p.climb.most_over;
  query.moment = context.now;
  const LedgeAnswer answer = find_ledge(context.world, query);
  if (!answer.ledge) return std::nullopt;
  const Ledge& ledge = *answer.ledge;
  if (dot(ledge.rim_C - state.foot_C, out) > p.climb.reach + shape.radius) return std::nullopt;
  const Vec3 away = unit_or(across(ledge.wall_normal_C, up), out);
  const Vec3 before = ledge.rim_C - up * shape.hands + away * (shape.reach() + kBeforeWall);
  const WallAnswer wall = wall_ahead(context.world, shape, before, -away, p.climb.reach);
  if (!wall.grip) return std::nullopt;
  const Vec3 down = up * dot(wall.grip->foot_C - state.foot_C, up);
  const Descent descent{*wall.grip, wall.grip->foot_C - down};
  const auto free = [&](const Vec3& from, const Vec3& motion) {
    Segment axis = capsule_axis(state, shape.radius);
    axis.a_C += from - state.foot_C;
    axis.b_C += from - state.foot_C;
    return !context.world.sweep(axis, shape.radius - shape.margin, motion, context.now);
  };
  const bool goes = free(state.foot_C, descent.over_C - state.foot_C) && free(descent.over_C, down);
  return goes ? std::optional(descent) : std::nullopt;
}

bool is_last(const StepContext& context, const CharacterState& state, PieceId piece) {
  const bool pauses = state.hold.seconds > 0.0f && !context.input.pressed.has(Action::Climb);
  return pauses && (state.hold.piece == kNoPiece || state.hold.piece == piece);
}

// Stick and touch ask for a wall that is pushed into.
bool leads_in(const StepContext& context, const CharacterState& state, const Intent& intent,
              const Vec3& normal_C) {
  const Grip grip = context.profile.climb.grip;
  if (grip != Grip::Stick && !(grip == Grip::Always && state.grounded())) return true;
  return -dot(intent.direction_C, unit_or(across(normal_C, state.up_C()), Vec3(0.0))) >= kTowards;
}

void keep(const StepContext& context, const WallGrip& grip, const ClimbHold& before, CharacterState& state) {
  Hold& hold = state.hold;
  const RigidPose frame = hold_frame(context, grip.piece);
  hold.piece = grip.piece;
  hold.at_P = frame.back(grip.foot_C);
  ClimbHold kept = before;
  kept.normal_P = glm::vec3(glm::conjugate(frame.rotation_CP) * grip.normal_C);
  kept.hands_P = glm::vec3(frame.back(grip.hands_C) - hold.at_P);
  hold.set(kept);
}

WallGrip grip_of(const StepContext& context, const CharacterState& state) {
  const Hold& hold = state.hold;
  const ClimbHold wall = hold.wall();
  const RigidPose frame = hold_frame(context, hold.piece);
  WallGrip grip;
  grip.foot_C = frame.point(hold.at_P);
  grip.normal_C = unit_or(frame.rotation_CP * Vec3(wall.normal_P), Vec3(0.0));
  grip.hands_C = frame.point(hold.at_P + Vec3(wall.hands_P));
  grip.piece = hold.piece;
  return grip;
}

entry::ClimbRefused::Why refusal_of(WallFault fault) {
  using Refused = entry::ClimbRefused::Why;
  switch (fault) {
    case WallFault::NotClimbable:
      return Refused::NotClimbable;
    case WallFault::LeansBack:
      return Refused::LeansBack;
    case WallFault::LeansOver:
      return Refused::LeansOver;
    case WallFault::NoRoom:
      return Refused::NoRoom;
    default:
      return Refused::Ends;
  }
}

entry::LetGo why_lost(const WallAnswer& answer, PieceId held) {
  switch (answer.fault) {
    case WallFault::LeansBack:
    case WallFault::LeansOver:
      return {Why::Leans, answer.found, answer.allowed, answer.piece};
    case WallFault::NotClimbable:
      return {Why::PushedOff, 0.0, 0.0, answer.piece};
    default:
      return {Why::NoWall, 0.0, 0.0, held};
  }
}

// m/s to the right along the wall and up.
Vec2 wished(const StepContext& context, const Intent& intent, const Vec3& normal_C, const Vec3& up_C) {
  const Profile::Climb& values = context.profile.climb;
  Vec2 stick = shaped_stick(context.input.move, context.profile.look.dead_zone);
  if (values.axes == Profile::Climb::Axes::View) {
    const Vec3 level = unit_or(across(normal_C, up_C), Vec3(0.0));
    stick = Vec2(dot(intent.direction_C, cross(up_C, level)), -dot(intent.direction_C, level)) * intent.share;
  }
  return {stick.x * values.side_speed, stick.y * (stick.y < 0.0 ? values.down_speed : values.up_speed)};
}

void note_grip(const StepContext& context, const WallGrip& grip, bool from_above) {
  context.note(entry::Gripped{grip.hands_C, grip.foot_C, from_above, grip.piece});
}

void begin_descent(const StepContext& context, const Descent& descent, CharacterState& state) {
  Hold& hold = state.hold;
  hold.kind = Hold::Kind::Descent;
  hold.piece = descent.grip.piece;
  const RigidPose frame = hold_frame(context, hold.piece);
  hold.at_P = frame.back(state.foot_C);
  const auto in_piece = [&](const Vec3& p_C) { return glm::vec3(frame.back(p_C) - hold.at_P); };
  MantleWay way;
  way.over_P = in_piece(descent.over_C);
  way.to_P = in_piece(descent.grip.foot_C);
  way.rim_P = in_piece(descent.grip.hands_C);
  way.first_height = way.least_height = static_cast<float>(state.capsule_height);
  hold.set(way);
  const double size = length(descent.over_C - state.foot_C) + length(descent.grip.foot_C - descent.over_C);
  const Profile::Mantle& pace = context.profile.mantle;
  hold.seconds = static_cast<float>(std::max(pace.time_per_metre * size, pace.least_time));
}

void step_off(const StepContext& context, CharacterState& state) {
  VelocityLog log(context, state);
  state.velocity_C = piece_velocity(context, state.hold.piece, state.foot_C);
  state.hold = Hold{};
  log.rest_is(entry::Change::Why::Hold);
  const Body body(context, state);
  const Vec3 down = body.up_C * -kOverFloor;
  if (const auto hit = body.sweep(state.foot_C, down)) state.foot_C += down * hit->hit.fraction;
  come_to_rest(context, body, Vec3(0.0), state);
}

}  // namespace

Vec3 away_from_wall(const StepContext& context, const CharacterState& state) {
  return unit_or(across(grip_of(context, state).normal_C, state.up_C()), Vec3(0.0));
}

bool climbs_out(const StepContext& context, const CharacterState& state) {
  if (state.hold.wall().top < 0.5f) return false;
  const Intent intent = ground_intent(context, state);
  return wished(context, intent, grip_of(context, state).normal_C, state.up_C()).y >=
         kPushed * context.profile.climb.up_speed;
}

bool climb_may_begin(const StepContext& context, const CharacterState& state) {
  if (state.lying() || state.holding() || state.crushed) return false;
  const Intent intent = ground_intent(context, state);
  if (!is_asked(context, state, intent)) return false;
  const WallAnswer wall = wall_before(context, state, intent);
  if (wall.grip && state.grounded() && !context.input.pressed.has(Action::Climb) &&
      wished(context, intent, wall.grip->normal_C, state.up_C()).y < 0.0)
    return false;  // Down from the floor: who has come down does not take hold again.
  if (wall.grip)
    return !is_last(context, state, wall.grip->piece) && leads_in(context, state, intent, wall.grip->normal_C);
  return wall_below(context, state, intent).has_value();
}

void begin_climb(const StepContext& context, CharacterState& state) {
  if (climbs(state) || state.hold.kind == Hold::Kind::Descent) return;  // From one such state to another.
  const Intent intent = ground_intent(context, state);
  const WallAnswer wall = wall_before(context, state, intent);
  const auto below = wall.grip ? std::nullopt : wall_below(context, state, intent);
  state.hold = Hold{};
  if (below) {
    begin_descent(context, *below, state);
    lift_off(context, state);
    return note_grip(context, below->grip, true);
  }
  if (!wall.grip) return;
  state.hold.kind = Hold::Kind::Climb;
  state.hold.seconds = static_cast<float>(std::max(context.profile.climb.take_time, 1e-3));
  const RigidPose frame = hold_frame(context, wall.grip->piece);
  ClimbHold kept;
  kept.pull_P = glm::vec3(glm::conjugate(frame.rotation_CP) * (state.foot_C - wall.grip->foot_C));
  keep(context, *wall.grip, kept, state);
  lift_off(context, state);
  note_grip(context, *wall.grip, false);
}

void end_descent(const StepContext& context, CharacterState& state) {
  const Vec3 out = hold_frame(context, state.hold.piece).rotation_CP * Vec3(state.hold.way().over_P);
  const WallAnswer wall = wall_ahead(context.world, shape_of(context, state), state.foot_C, -out,
                                     context.profile.climb.gap + kBeforeWall);
  if (!wall.grip)
    return throw_off(context, why_lost(wall, state.hold.piece), context.profile.climb.pause, state);
  state.hold = Hold{};
  state.hold.kind = Hold::Kind::Climb;
  keep(context, *wall.grip, ClimbHold{}, state);
}

void refuse_climb(const StepContext& context, const CharacterState& state) {
  if (context.ledger == nullptr || state.holding() || state.lying()) return;
  const bool by_press = context.input.pressed.has(Action::Climb);
  if (!by_press || context.profile.climb.grip != Grip::Button) return;
  const WallAnswer wall = wall_before(context, state, ground_intent(context, state));
  if (wall.grip || wall.fault == WallFault::NothingThere) return;
  context.note(entry::ClimbRefused{refusal_of(wall.fault), false, wall.found, wall.allowed, wall.piece});
}

void climb(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  const ClimbShape shape = shape_of(context, state);
  const WallGrip before = grip_of(context, state);
  const WallAnswer now = wall_now(context.world, shape, before);
  if (!now.grip) return throw_off(context, why_lost(now, before.piece), context.profile.climb.pause, state);
  const Vec2 speed = wished(context, intent, now.grip->normal_C, shape.up_C);
  WallWay way;
  way.grip = *now.grip;
  if (length(speed) > kTouch) way = follow_wall(context.world, shape, *now.grip, speed * context.dt);
  const bool lands = way.stop == WallFault::Floor && speed.y < 0.0;
  if (way.stop != WallFault::None && !lands)
    context.note(entry::ClimbRefused{refusal_of(way.stop), true, way.found, way.allowed, way.piece});
  Hold& hold = state.hold;
  hold.gone = std::min(hold.gone + static_cast<float>(context.dt), hold.seconds);
  ClimbHold kept = hold.wall();
  kept.top = way.stop == WallFault::NothingThere && speed.y > 0.0 ? 1.0f : 0.0f;
  keep(context, way.grip, kept, state);
  const Vec3 pull = hold_frame(context, hold.piece).rotation_CP * Vec3(kept.pull_P) * (1.0 - hold.phase());
  stay_with_hold(context, body, way.grip.foot_C + pull, context.profile.climb.pause, state);
  if (lands && state.holding()) step_off(context, state);
}

}  // namespace lagniappe
