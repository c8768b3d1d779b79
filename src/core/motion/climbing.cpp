// SPDX-License-Identifier: MIT
#include "motion/climbing.h"

#include <algorithm>
#include <array>

#include "lagniappe/handling.h"
#include "lagniappe/ledge.h"
#include "ledges/follow_ladder.h"
#include "ledges/follow_wall.h"
#include "motion/climb_hold.h"
#include "motion/footing.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/piece_velocity.h"
#include "motion/stance.h"
#include "motion/step_aside.h"
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
constexpr double kUnderRim = 0.3;     // m under the foot, where a ladder is looked for behind a rim.
constexpr double kMostLift = 0.5;     // m that a ladder may end over the foot of who backs onto it.

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
  return wall_ahead(context.world, climb_shape(context, state), state.foot_C, towards,
                    context.profile.climb.reach);
}

// The wall below the rim that one would back over: where one is pushed, else behind the back.
struct Descent {
  WallGrip grip;
  Vec3 above_C, over_C;  // Of the foot: risen over what ends above it, and beyond the rim.
};

bool goes(const StepContext& context, const CharacterState& state, const Descent& descent) {
  const Values& p = context.profile;
  const auto free = [&](const Vec3& from, const Vec3& to) {
    const Segment axis = moved(capsule_axis(state, p.capsule.radius), from - state.foot_C);
    return !context.world.sweep(axis, p.capsule.radius - p.capsule.margin, to - from, context.now);
  };
  return free(state.foot_C, descent.above_C) && free(descent.above_C, descent.over_C) &&
         free(descent.over_C, descent.grip.foot_C);
}

// The ladder beyond a rim that one would back over, gripped as high as hands reach down to.
std::optional<Descent> ladder_below(const StepContext& context, const CharacterState& state,
                                    const Vec3& out_C) {
  const ClimbShape shape = climb_shape(context, state);
  const Vec3 up = shape.up_C, under = state.foot_C - up * kUnderRim;
  const Segment beyond{under + out_C * shape.radius,
                       under + out_C * (shape.radius + context.profile.climb.reach)};
  std::array<WorldContact, 64> touched;
  const std::size_t count = context.world.contacts(beyond, shape.radius, touched, context.now);
  for (std::size_t i = 0; i < count; ++i) {
    const auto ladder = context.world.ladder(touched[i].piece, context.now);
    if (!ladder) continue;
    const Vec3 side = dot(ladder->front_C, out_C) < 0.0 ? -ladder->front_C : ladder->front_C;
    const WallAnswer answer =
        grip_ladder(shape, *ladder, touched[i].piece, state.foot_C - up * shape.hands, side);
    if (!answer.grip || dot(side, out_C) < kTowards) continue;
    const double lift = std::max(dot(upper_end(*ladder, up) - state.foot_C, up) + kOverFloor, 0.0);
    if (lift > kMostLift) continue;
    const Vec3 above = state.foot_C + up * lift;
    const Descent descent{*answer.grip, above, answer.grip->foot_C + up * dot(above - answer.grip->foot_C, up)};
    if (goes(context, state, descent)) return descent;
  }
  return std::nullopt;
}

std::optional<Descent> wall_below(const StepContext& context, const CharacterState& state,
                                  const Intent& intent) {
  if (!state.grounded() || !context.input.pressed.has(Action::Climb)) return std::nullopt;
  const Values& p = context.profile;
  const ClimbShape shape = climb_shape(context, state);
  const Vec3 out = intent.share > 0.0 ? intent.direction_C : -facing_of(state), up = shape.up_C;
  if (const auto ladder = ladder_below(context, state, out)) return ladder;
  if (intent.share == 0.0) {
    if (const auto ladder = ladder_below(context, state, -out)) return ladder;  // Seen ahead, it is turned to.
  }
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
  const Descent descent{*wall.grip, state.foot_C, wall.grip->foot_C - down};
  return goes(context, state, descent) ? std::optional(descent) : std::nullopt;
}

bool is_last(const StepContext& context, const CharacterState& state, PieceId piece) {
  const bool pauses = state.hold.seconds > 0.0f && !context.input.pressed.has(Action::Climb);
  return pauses && (state.hold.piece == kNoPiece || state.hold.piece == piece);
}

// Stick and touch ask for a wall that is pushed into, or for a ladder that is pushed towards.
bool leads_in(const StepContext& context, const CharacterState& state, const Intent& intent,
              const WallGrip& wall) {
  const Grip grip = context.profile.climb.grip;
  if (grip != Grip::Stick && !(grip == Grip::Always && state.grounded())) return true;
  const Vec3 up = state.up_C();
  const auto towards = [&](const Vec3& way_C) {
    return dot(intent.direction_C, unit_or(across(way_C, up), Vec3(0.0))) >= kTowards;
  };
  return towards(-wall.normal_C) || (wall.on_ladder() && towards(wall.foot_C - state.foot_C));
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

void begin_descent(const StepContext& context, const Descent& descent, CharacterState& state) {
  Hold& hold = state.hold;
  hold.kind = Hold::Kind::Descent;
  hold.piece = descent.grip.piece;
  const RigidPose frame = hold_frame(context, hold.piece);
  hold.at_P = frame.back(state.foot_C);
  const auto in_piece = [&](const Vec3& p_C) { return glm::vec3(frame.back(p_C) - hold.at_P); };
  MantleWay way;
  way.above_P = in_piece(descent.above_C);
  way.over_P = in_piece(descent.over_C);
  way.to_P = in_piece(descent.grip.foot_C);
  way.rim_P = in_piece(descent.grip.hands_C);
  way.first_height = way.least_height = static_cast<float>(state.capsule_height);
  hold.set(way);
  const double size = length(descent.above_C - state.foot_C) + length(descent.over_C - descent.above_C) +
                      length(descent.grip.foot_C - descent.over_C);
  const Profile::Mantle& pace = context.profile.mantle;
  hold.seconds = static_cast<float>(std::max(pace.time_per_metre * size, pace.least_time));
}

// Beside a ladder, to the side that is pushed: onto a floor, a wall or another ladder there.
bool leaves_aside(const StepContext& context, const Body& body, const ClimbShape& shape, const WallGrip& grip,
                  const Vec2& speed, CharacterState& state) {
  const bool pushed =
      std::abs(speed.x) >= kPushed * context.profile.climb.side_speed && std::abs(speed.x) > std::abs(speed.y);
  const auto ladder = pushed ? context.world.ladder(grip.piece, context.now) : std::nullopt;
  if (!ladder || state.hold.phase() < 1.0) return false;
  const Vec3 right = unit_or(cross(shape.up_C, grip.normal_C), Vec3(0.0));
  const Vec3 side = right * ((speed.x > 0.0 ? 1.0 : -1.0) * (0.5 * ladder->width + shape.reach()));
  if (begin_step_aside(context, body, grip.foot_C, side, state)) return true;
  if (context.world.sweep(shape.axis(grip.foot_C), shape.radius - shape.margin, side, shape.moment))
    return false;
  const WallAnswer wall = wall_ahead(context.world, shape, grip.foot_C + side, -grip.normal_C,
                                     context.profile.climb.reach + ladder->depth);
  if (!wall.grip || wall.grip->piece == grip.piece) return false;
  take_grip(context, *wall.grip, grip.foot_C, -1.0f, state);
  return true;
}

// From a wall onto the ladder that stops the way along it.
bool takes_ladder(const StepContext& context, const ClimbShape& shape, const WallWay& way, const Vec2& speed,
                  CharacterState& state) {
  if (way.stop != WallFault::NoRoom || !context.world.ladder(way.piece, context.now)) return false;
  const Vec3 right = unit_or(cross(shape.up_C, way.grip.normal_C), Vec3(0.0));
  const WallAnswer ladder =
      wall_ahead(context.world, shape, way.grip.foot_C, right * speed.x, context.profile.climb.reach);
  if (!ladder.grip || ladder.grip->piece != way.piece) return false;
  take_grip(context, *ladder.grip, way.grip.foot_C, 1.0f, state);
  return true;
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

void come_to_gap(const StepContext& context, CharacterState& state) {
  if (!climbs(state) || state.hold.phase() < 1.0) return;
  const ClimbShape shape = climb_shape(context, state);
  const WallAnswer now = wall_after_turn(context.world, shape, grip_of(context, state));
  if (!now.grip) return;  // It is let go of in the next part, which says why.
  const Vec3 way = now.grip->foot_C - state.foot_C;
  if (context.world.sweep(shape.axis(state.foot_C), shape.radius - shape.margin, way, shape.moment)) return;
  state.foot_C = now.grip->foot_C;
  keep_grip(context, *now.grip, state.hold.wall(), state);
}

Vec3 away_from_wall(const StepContext& context, const CharacterState& state) {
  return unit_or(across(grip_of(context, state).normal_C, state.up_C()), Vec3(0.0));
}

double gap_to_wall(const StepContext& context, const CharacterState& state) {
  constexpr double kFarthest = 1.0;  // m.
  const double radius = context.profile.capsule.radius;
  const Segment axis = capsule_axis(state, radius);
  if (const auto ladder = context.world.ladder(state.hold.piece, context.now)) {
    const Vec3 out = grip_of(context, state).normal_C;
    const double nearest = std::min(dot(axis.a_C - ladder->base_C, out), dot(axis.b_C - ladder->base_C, out));
    return nearest - 0.5 * ladder->depth - radius;
  }
  std::array<WorldContact, 64> touched;
  const std::size_t count = context.world.contacts(axis, radius + kFarthest, touched, context.now);
  for (std::size_t i = 0; i < count; ++i) {
    if (touched[i].piece == state.hold.piece) return touched[i].closest.distance - radius;
  }
  return kFarthest;
}

Vec3 jumps_towards(const StepContext& context, const CharacterState& state) {
  const WallGrip grip = grip_of(context, state);
  const Vec3 up = state.up_C(), away = away_from_wall(context, state);
  if (!grip.on_ladder()) return away;
  const Vec2 speed = wished(context, ground_intent(context, state), grip.normal_C, up);
  const double aside = std::clamp(speed.x / std::max(context.profile.climb.side_speed, kTouch), -1.0, 1.0);
  return unit_or(away * (1.0 - std::abs(aside)) + cross(up, away) * aside, away);
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
    return !is_last(context, state, wall.grip->piece) && leads_in(context, state, intent, *wall.grip);
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
  take_grip(context, *wall.grip, state.foot_C, wall.grip->on_ladder() ? 1.0f : 0.0f, state);
  lift_off(context, state);
}

void end_descent(const StepContext& context, CharacterState& state) {
  const MantleWay way = state.hold.way();
  const Vec3 out = hold_frame(context, state.hold.piece).rotation_CP * Vec3(way.over_P - way.above_P);
  const WallAnswer wall = wall_ahead(context.world, climb_shape(context, state), state.foot_C, -out,
                                     context.profile.climb.gap + kBeforeWall);
  if (!wall.grip)
    return throw_off(context, why_lost(wall, state.hold.piece), context.profile.climb.pause, state);
  state.hold = Hold{};
  state.hold.kind = Hold::Kind::Climb;
  keep_grip(context, *wall.grip, ClimbHold{}, state);
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
  const ClimbShape shape = climb_shape(context, state);
  const WallGrip before = grip_of(context, state);
  const WallAnswer now = wall_now(context.world, shape, before);
  if (!now.grip) return throw_off(context, why_lost(now, before.piece), context.profile.climb.pause, state);
  const Vec2 speed = wished(context, intent, now.grip->normal_C, shape.up_C);
  if (leaves_aside(context, body, shape, *now.grip, speed, state))
    return stay_with_hold(context, body, now.grip->foot_C, context.profile.climb.pause, state);
  WallWay way;
  way.grip = *now.grip;
  if (length(speed) > kTouch) way = follow_wall(context.world, shape, *now.grip, speed * context.dt);
  if (takes_ladder(context, shape, way, speed, state))
    return stay_with_hold(context, body, way.grip.foot_C, context.profile.climb.pause, state);
  const bool lands = way.stop == WallFault::Floor && speed.y < 0.0;
  if (way.stop != WallFault::None && !lands)
    context.note(entry::ClimbRefused{refusal_of(way.stop), true, way.found, way.allowed, way.piece});
  Hold& hold = state.hold;
  hold.gone = std::min(hold.gone + static_cast<float>(context.dt), hold.seconds);
  ClimbHold kept = hold.wall();
  kept.top = way.stop == WallFault::NothingThere && speed.y > 0.0 ? 1.0f : 0.0f;
  keep_grip(context, way.grip, kept, state);
  stay_with_hold(context, body, way.grip.foot_C + pull_left(context, state), context.profile.climb.pause,
                 state);
  if (lands && state.holding()) step_off(context, state);
}

}  // namespace lagniappe
