// SPDX-License-Identifier: MIT
#include "motion/mantling.h"

#include <algorithm>

#include "ledges/follow_ladder.h"
#include "math/integrators.h"
#include "motion/climbing.h"
#include "motion/footing.h"
#include "motion/hanging.h"
#include "motion/holding.h"
#include "motion/jumping.h"
#include "motion/piece_velocity.h"
#include "motion/stance.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

using Start = Profile::Mantle::Start;
using Why = entry::MantleRefused::Why;

constexpr double kPushed = 0.5;        // Share of a full push that asks for it.
constexpr double kTowards = 0.7071;    // Cosine between the push and the way into the wall.
constexpr double kNarrowest = 0.02;    // m of a shelf: of a rail.
constexpr double kOverHands = 0.1;     // m over the hands that a rim may be, hanging.
constexpr double kLowestInAir = 0.02;  // m of a rim over the foot.
constexpr double kUnderEnd = 1.1;      // m that a rim may be under the end of the ladder before it.

// Held, it asks for the next rim that comes; who lets go with `crouch` meanwhile is not caught again.
bool button_asks(const StepContext& context) {
  if (context.input.pressed.has(Action::Climb)) return true;
  return context.input.held.has(Action::Climb) && !context.input.held.has(Action::Crouch);
}

// Hanging, the button that one is caught by has to be pressed anew; a jump that leads nowhere else leads up.
bool asks_upwards(const StepContext& context, const CharacterState& state) {
  const Buttons& pressed = context.input.pressed;
  return pressed.has(Action::Climb) || (pressed.has(Action::Jump) && !pushes_away(context, state));
}
bool asks_by_press(const StepContext& context) {
  return context.profile.mantle.start == Start::Button && context.input.pressed.has(Action::Climb);
}

bool is_asked_hanging(const StepContext& context, const CharacterState& state, const Intent& intent) {
  if (asks_upwards(context, state)) return true;
  const bool by_stick =
      context.profile.mantle.start == Start::Stick || context.profile.mantle.start == Start::Always;
  return by_stick && state.hold.phase() >= 1.0 &&
         -dot(intent.direction_C, away_from_rim(context, state)) * intent.share >= kPushed;
}

bool is_asked(const StepContext& context, const CharacterState& state, const Intent& intent) {
  if (climbs(state))
    return context.profile.mantle.start != Start::Never &&
           (context.input.pressed.has(Action::Climb) || climbs_out(context, state));
  if (hangs(state))
    return context.profile.mantle.start != Start::Never && is_asked_hanging(context, state, intent);
  switch (context.profile.mantle.start) {
    case Start::Never:
      return false;
    case Start::Button:
      return button_asks(context);
    case Start::Stick:
      return intent.share >= kPushed;
    case Start::Always:
      return true;
  }
  return false;
}

// Whether a push that asks for it leads into the wall, and not along it.
bool leads_in(const StepContext& context, const Intent& intent, const Vec3& wall_C, const Vec3& up_C) {
  if (context.profile.mantle.start != Start::Stick) return true;
  return -dot(intent.direction_C, unit_or(across(wall_C, up_C), -intent.direction_C)) >= kTowards;
}

// m/s over the rim, against the piece.
double speed_over(const StepContext& context, const CharacterState& state, const MantlePlan& plan) {
  const Vec3 velocity = state.velocity_C + state.ground_velocity_C;
  const Vec3 own = velocity - piece_velocity(context, plan.ledge.shelf_piece, state.foot_C);
  return std::max(dot(own, unit_or(plan.over_C - plan.above_C, Vec3(0.0))), 0.0);
}

// s that the way takes. Over an obstacle one goes at least as fast as what is kept of the run-up.
double seconds_for(const Values::Mantle& values, double way, double speed, bool vaults) {
  const double kept = values.kept_speed * speed, steady = values.time_per_metre * way;
  const double time = vaults && kept * steady > way ? way / kept : steady;
  return std::max(time, values.least_time);
}

Why why_of(const MantleAnswer& answer) {
  switch (answer.fault) {
    case MantleFault::NoLedge:
      return static_cast<Why>(static_cast<int>(answer.ledge.fault) - 1);
    case MantleFault::NoRoom:
      return Why::NoRoom;
    case MantleFault::Overhead:
      return Why::Overhead;
    case MantleFault::OnTheWay:
      return Why::OnTheWay;
    case MantleFault::NoLanding:
      return Why::NoLanding;
    case MantleFault::SlipsOff:
      return Why::SlipsOff;
    case MantleFault::None:
      break;
  }
  return Why::State;
}
static_assert(static_cast<int>(LedgeFault::NothingThere) - 1 == static_cast<int>(Why::NothingThere) &&
              static_cast<int>(LedgeFault::NoRoomForHands) - 1 == static_cast<int>(Why::NoRoomForHands));

// The way of a hold: corners of the foot's way, against its beginning in the piece's frame.
struct Way {
  std::array<Vec3, 5> corner;
  std::array<double, 4> size;
  double whole = 0.0;

  explicit Way(const MantleWay& way) {
    const Vec3 above(way.above_P), over(way.over_P);
    const Vec3 ahead = unit_or(over - above, Vec3(0.0));
    corner = {Vec3(0.0), ahead * std::min(dot(above, ahead), 0.0), above, over, Vec3(way.to_P)};
    for (std::size_t i = 0; i < size.size(); ++i) whole += size[i] = length(corner[i + 1] - corner[i]);
  }
};

// What is left of the body's height after this way up: drawn in from below as it rises, at least as fast.
double height_after(const MantleWay& way, double risen, double rise) {
  const double drawn_in = way.first_height - way.least_height;
  const double over = std::min(drawn_in, rise);
  return over > 0.0 ? way.first_height - drawn_in * std::min(risen / over, 1.0) : way.least_height;
}

// One character on its way.
class Mantling {
 public:
  Mantling(const StepContext& context, const Body& body, CharacterState& state)
      : context_(context),
        body_(body),
        state_(state),
        of_(state.hold.way()),
        way_(of_),
        frame_(hold_frame(context, state.hold.piece)) {}

  // Returns what is in the way, if something is.
  std::optional<WorldHit> go(double from, double to) {
    double begin = 0.0;
    for (std::size_t leg = 0; leg < way_.size.size(); begin += way_.size[leg++]) {
      const double end = begin + way_.size[leg];
      if (end < from || begin >= to || way_.size[leg] <= 0.0) continue;
      const double along = std::min(to, end) - begin;
      const Vec3 ahead = (way_.corner[leg + 1] - way_.corner[leg]) * (1.0 / way_.size[leg]);
      if (leg >= 1) state_.capsule_height = height_after(of_, leg == 1 ? along : 1e9, way_.size[1]);
      direction_C = frame_.rotation_CP * ahead;
      if (const auto hit = go_holding(
              context_, body_, frame_.point(state_.hold.at_P + way_.corner[leg] + ahead * along), state_))
        return hit;
    }
    return std::nullopt;
  }

  double whole() const { return way_.whole; }
  Vec3 direction_C = Vec3(0.0);  // Unit: of the leg it is on.

 private:
  const StepContext& context_;
  const Body& body_;
  CharacterState& state_;
  const MantleWay of_;
  const Way way_;
  const RigidPose frame_;
};

Vec3 over_rim(const StepContext& context, const Hold& hold, const Vec3& up_C) {
  const Vec3 way = hold_frame(context, hold.piece).rotation_CP * Vec3(hold.way().over_P - hold.way().above_P);
  return unit_or(across(way, up_C), Vec3(0.0));
}

// m to the rim of a wall that leans back, the body being nearest to it at its feet.
double reach_from_wall(const Values& values) {
  return std::max(values.mantle.reach,
                  values.climb.gap + values.climb.hands * std::tan(values.climb.most_back));
}

// Off a ladder one goes over its end, onto what is behind it.
MantleAnswer plan_off_wall(const StepContext& context, const CharacterState& state, MantleQuery query) {
  const PieceId piece = state.hold.piece;
  const auto ladder = context.world.ladder(piece, context.now);
  if (!ladder) return plan_mantle(context.world, query);
  const Vec3 to_end = upper_end(*ladder, state.up_C()) - state.foot_C;
  query.fence_height = dot(to_end, state.up_C());
  query.fence_back = dot(to_end, query.ledge.towards_C) + ladder->depth;
  query.ledge.lowest = std::max(query.ledge.lowest, query.fence_height - kUnderEnd);
  query.ledge.highest = std::max(query.ledge.highest, query.ledge.lowest + kTouch);
  query.ledge.moment.without = piece;
  return plan_mantle(context.world, query);
}

}  // namespace

MantleAnswer judge_mantle(const StepContext& context, const CharacterState& state) {
  const Profile::Mantle& values = context.profile.mantle;
  const Intent intent = ground_intent(context, state);
  MantleQuery query;
  query.ledge.foot_C = state.foot_C;
  query.ledge.up_C = state.up_C();
  query.ledge.towards_C =
      intent.share > 0.0 ? intent.direction_C : look_direction(state.frame_CB, state.facing, 0.0);
  if (hangs(state)) query.ledge.towards_C = -away_from_rim(context, state);
  if (climbs(state)) query.ledge.towards_C = -away_from_wall(context, state);
  query.ledge.radius = context.profile.capsule.radius;
  query.ledge.reach = climbs(state) ? reach_from_wall(context.profile) : values.reach;
  query.ledge.lowest = state.grounded() ? values.lowest : std::min(values.lowest, kLowestInAir);
  const double hands = hangs(state) ? context.profile.hang.hands + kOverHands : 0.0;
  query.ledge.highest = std::max({values.highest, hands, query.ledge.lowest + kTouch});
  query.ledge.shortest_shelf = kNarrowest;
  query.ledge.steepest_shelf = context.profile.ground.steepest_walkable;
  query.ledge.standing = context.profile.capsule.height;
  query.ledge.crouched = crouched_height(context.profile);
  query.ledge.moment = context.now;
  query.body_height = state.capsule_height;
  query.margin = context.profile.capsule.margin;
  query.longest_overhang = std::min(context.profile.ground.longest_overhang, query.ledge.radius);
  query.highest_step = context.profile.ground.highest_step;
  query.longest_vault = values.longest_vault;
  query.deepest_landing = values.deepest_landing;
  return climbs(state) ? plan_off_wall(context, state, query) : plan_mantle(context.world, query);
}

bool mantle_may_begin(const StepContext& context, const CharacterState& state) {
  if (state.lying() || (state.holding() && !hangs(state) && !climbs(state)) || state.crushed) return false;
  const bool pauses =
      !state.holding() && state.hold.seconds > 0.0f && !context.input.pressed.has(Action::Climb);
  const Intent intent = ground_intent(context, state);
  if (pauses || !is_asked(context, state, intent)) return false;
  const MantleAnswer answer = judge_mantle(context, state);
  return answer.plan && leads_in(context, intent, answer.plan->ledge.wall_normal_C, state.up_C());
}

void begin_mantle(const StepContext& context, CharacterState& state) {
  if (state.hold.kind == Hold::Kind::Mantle || state.hold.kind == Hold::Kind::Vault) return;
  const MantleAnswer answer = judge_mantle(context, state);
  state.hold = Hold{};
  if (!answer.plan) return;
  const MantlePlan& plan = *answer.plan;
  Hold& hold = state.hold;
  hold.kind = plan.kind == MantlePlan::Kind::Vault ? Hold::Kind::Vault : Hold::Kind::Mantle;
  hold.piece = plan.ledge.shelf_piece;
  const RigidPose frame = hold_frame(context, hold.piece);
  const auto in_piece = [&](const Vec3& p_C) { return glm::vec3(frame.back(p_C) - frame.back(plan.from_C)); };
  hold.at_P = frame.back(plan.from_C);
  MantleWay way;
  way.above_P = in_piece(plan.above_C);
  way.over_P = in_piece(plan.over_C);
  way.to_P = in_piece(plan.to_C);
  way.rim_P = in_piece(plan.ledge.rim_C);
  way.first_height = static_cast<float>(state.capsule_height);
  way.least_height = static_cast<float>(plan.least_height);
  way.speed = static_cast<float>(speed_over(context, state, plan));
  hold.set(way);
  hold.seconds = static_cast<float>(
      seconds_for(context.profile.mantle, Way(way).whole, way.speed, hold.kind == Hold::Kind::Vault));
  lift_off(context, state);
  context.note(entry::MantleBegun{plan.ledge.rim_C, plan.to_C, plan.ledge.height, hold.seconds,
                                  hold.kind == Hold::Kind::Vault, plan.crouched, hold.piece});
}

void refuse_mantle(const StepContext& context, const CharacterState& state) {
  if (context.ledger == nullptr || (state.holding() && !hangs(state))) return;
  if (hangs(state) ? !asks_upwards(context, state) : !asks_by_press(context)) return;
  const MantleAnswer answer = judge_mantle(context, state);
  const bool no_ledge = answer.fault == MantleFault::NoLedge;
  const Vec3 at = answer.ledge.ledge ? answer.ledge.ledge->rim_C : answer.ledge.at_C;
  const PieceId piece = no_ledge ? answer.ledge.piece : answer.piece;
  context.note(entry::MantleRefused{why_of(answer), no_ledge ? answer.ledge.found : answer.found,
                                    no_ledge ? answer.ledge.allowed : answer.allowed, at, piece});
}

void go_over_rim(const StepContext& context, const Body& body, CharacterState& state) {
  VelocityLog log(context, state);
  Hold& hold = state.hold;
  Mantling mantling(context, body, state);
  const double per_second = mantling.whole() / hold.seconds;
  const double from = hold.gone * per_second, gone = hold.gone + context.dt;
  const bool ends = gone >= hold.seconds - kTouch;
  const auto blocked = mantling.go(from, ends ? mantling.whole() + kTouch : gone * per_second);
  const Vec3 of_piece = piece_velocity(context, hold.piece, state.foot_C);
  state.acceleration_C = Vec3(0.0);
  state.since_grounded += context.dt;
  hold.gone = static_cast<float>(gone);
  if (blocked) {
    context.note(entry::MantleBlocked{hold.phase(), blocked->piece});
    let_go(state, context.profile.mantle.least_time);
    state.velocity_C = of_piece;
    return log.rest_is(entry::Change::Why::Hold);
  }
  if (!ends) {
    state.velocity_C = of_piece + mantling.direction_C * per_second;
    return log.rest_is(entry::Change::Why::Hold);
  }
  if (hold.kind == Hold::Kind::Descent) {
    state.velocity_C = of_piece;
    end_descent(context, state);
    return log.rest_is(entry::Change::Why::Hold);
  }
  const Vec3 kept = over_rim(context, hold, body.up_C) * (context.profile.mantle.kept_speed * hold.way().speed);
  state.velocity_C = of_piece;
  state.hold = Hold{};
  log.rest_is(entry::Change::Why::Hold);
  come_to_rest(context, Body(context, state), kept, state);
}

void count_pause(const StepContext& context, CharacterState& state) {
  if (state.holding() || state.hold.seconds <= 0.0f) return;
  state.hold.gone += static_cast<float>(context.dt);
  if (state.hold.gone >= state.hold.seconds) state.hold = Hold{};
}

namespace {

// The way that one faces while holding on, across up.
Vec3 into_hold(const StepContext& context, const CharacterState& state) {
  switch (state.hold.kind) {
    case Hold::Kind::Hang:
      return -away_from_rim(context, state);
    case Hold::Kind::Climb:
      return -away_from_wall(context, state);
    case Hold::Kind::Descent:
      return -over_rim(context, state.hold, state.up_C());
    default:
      return over_rim(context, state.hold, state.up_C());
  }
}

}  // namespace

void face_hold(const StepContext& context, CharacterState& state) {
  const Vec3 over = into_hold(context, state);
  const Vec3 over_B = glm::conjugate(state.frame_CB) * over;
  if (over_B == Vec3(0.0)) return;
  state.facing = turn_towards(
      state.facing, std::atan2(-over_B.x, -over_B.z),
      climbs(state) ? context.profile.climb.turn_rate : context.profile.ground.turn_rate, context.dt);
}

}  // namespace lagniappe
