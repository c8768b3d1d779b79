// SPDX-License-Identifier: MIT
#include "motion/footing.h"

#include <algorithm>

#include "lagniappe/handling.h"
#include "lagniappe/turns.h"
#include "math/integrators.h"
#include "motion/behaviours/common.h"
#include "motion/behaviours/ways.h"
#include "motion/contact_kind.h"
#include "motion/eye.h"
#include "motion/footing_change.h"
#include "motion/ground.h"
#include "motion/jumping.h"
#include "motion/moving.h"
#include "motion/piece_velocity.h"
#include "motion/stance.h"
#include "motion/upright.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

// s over which the ground's slope is averaged to tell a crest: a real body does not notice shorter bumps.
constexpr double kTrendTime = 0.1;

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
  // Between normals so near each other there is no such angle.
  constexpr double kSurely = 0.7;
  if (length(Vec3(state.ground_trend_C) - normal_C) < kSurely * ground.crest_angle) return false;
  const double falls =
      slope_along(flat, Vec3(state.ground_trend_C), body.up_C) - slope_along(flat, normal_C, body.up_C);
  if (falls <= ground.crest_angle + kTouch) return false;
  context.note(entry::Crest{falls, ground.crest_angle, speed});
  return true;
}

// Whether the character goes faster round the curve of the ground than the pull holds it there. Ground that is
// level while the pull turns is no such curve: a free flight would lead into it.
bool runs_off(const StepContext& context, const Body& body, const Vec3& from_C, const CharacterState& state) {
  constexpr double kLeastWay = 1e-4;  // m.
  if (!context.felt.says) return false;
  const double speed = length(state.velocity_C), pull = context.profile.gravity;
  // By how the pull turns at the foot, which goes round the curve; the head is still to be turned after it.
  const auto at = [&](const Vec3& foot_C) {
    return feel(context.world, foot_C, context.now.time, context.felt.own_gravity).up_C;
  };
  const Vec3 here = at(from_C), there = at(state.foot_C);
  const double way = length(state.foot_C - from_C);
  if (here == Vec3(0.0) || there == Vec3(0.0) || way < kLeastWay) return false;
  const double turned = angle_between(here, there) * speed / way;
  if (speed * turned <= pull) return false;
  constexpr double kAhead = 0.1;  // s.
  const Vec3 flown = from_C + state.velocity_C * kAhead - body.up_C * (0.5 * pull * kAhead * kAhead);
  const double reach = context.profile.ground.highest_step + body.radius;
  const auto hit = body.cast_ray(flown + there * reach, there * -reach);
  if (hit) return false;
  context.note(entry::RunsOff{speed, speed * std::sqrt(pull / (speed * turned))});
  return true;
}

// Of the piece that was found, where the foot would rest on it.
Vec3 velocity_of(const StepContext& context, const GroundFound& found) {
  return piece_velocity(context, found.ground.piece, found.foot_C);
}

// What the part began with.
struct Stood {
  Ground ground;
  Vec3 foot_C;
};

// How far down from the foot the ground is followed that it stood on: from the line of that ground, below which
// the round foot may already be at an edge.
double followed(const StepContext& context, const Body& body, const Stood& stood) {
  const double upright = dot(stood.ground.normal_C, body.up_C);
  const double line =
      upright > 0.0 ? dot(stood.ground.point_C - stood.foot_C, stood.ground.normal_C) / upright : 0.0;
  return std::max(context.profile.ground.snap_distance - std::max(line, 0.0), kGroundTouch);
}

// Probes, judges and snaps.
void find_ground(const StepContext& context, const Body& body, const Stood& was, CharacterState& state) {
  const Verdict before = was.ground.verdict;
  const bool held = before == Verdict::Walkable || before == Verdict::Steep;
  const double reach = held ? followed(context, body, was) : kGroundTouch;
  const GroundFound found = probe_ground(context, body, state.foot_C, reach);
  const Verdict verdict = found.ground.verdict;
  const bool touching = found.gap <= kGroundTouch;
  const bool bears = verdict == Verdict::Walkable || (verdict == Verdict::Steep && before == Verdict::Steep);
  const bool away = held ? flies_over_crest(context, body, state, found.ground.normal_C) ||
                               (found.gap > kTouch && runs_off(context, body, was.foot_C, state))
                         : leaving(state, velocity_of(context, found), found.ground.normal_C);
  if (verdict == Verdict::None || away || (!touching && !bears)) {
    state.ground = Ground{};
    return;
  }
  state.ground = found.ground;
  if (!bears) return;
  state.foot_C = found.foot_C;
  if (!held) return;
  state.snapped += touching ? 0.0f : static_cast<float>(found.gap);
  hold_eye_back(context, -found.gap, 0.5, state);  // Followed down all the way, on the average by its middle.
  if (!touching) context.note(entry::Snap{found.gap});
}

// What is too steep to walk takes what runs into it as a wall does, then the fall into it.
Vec3 shed(const Body& body, const Vec3& velocity_C, const Vec3& normal_C) {
  const Vec3 wall = wall_on_ground(normal_C, body.up_C, body.up_C, -unit_or(velocity_C, body.up_C));
  const Vec3 along = velocity_C - wall * std::min(dot(velocity_C, wall), 0.0);
  return along - normal_C * std::min(dot(along, normal_C), 0.0);
}

// What the tick's end makes of the velocity: landing, going on, or leaving.
void land_or_leave(const StepContext& context, const Body& body, Verdict before, PieceId piece_before,
                   CharacterState& state) {
  const bool held = before == Verdict::Walkable || before == Verdict::Steep;
  if (state.ground.verdict == Verdict::None || state.ground.verdict == Verdict::Tipping) {
    if (held) leave_ground(context, state);
    if (before != Verdict::Walkable) state.since_grounded += context.dt;
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
    if (before != Verdict::Walkable) state.since_grounded += context.dt;
    if (!held) state.velocity_C = shed(body, state.velocity_C, normal);
    return;
  }
  // Landing takes the fall away; along the ground the speed is kept as it is laid on the face.
  const SpeedOnSlopes measure = context.profile.ground.speed_on_slopes;
  const Vec3 flat = held ? flattened(state.velocity_C, body.up_C, measure) : body.flat(state.velocity_C);
  const double fall = -dot(state.velocity_C, body.up_C), before_landing = length(flat);
  const bool projects = !held && context.profile.ground.landing == Profile::Ground::Landing::Projected;
  state.velocity_C = projects ? across(state.velocity_C, normal) : laid_on(flat, normal, body.up_C, measure);
  if (!held) context.note(entry::Landed{fall, before_landing, length(state.velocity_C)});
  state.since_grounded = 0.0;
  state.may_jump_late = true;
  give_jumps_back(state);
}

}  // namespace

bool air_lifts(const StepContext& context, const CharacterState& state, double before_end) {
  constexpr double kSurely = 0.2;  // m/s2.
  const Body body(context, state);
  const double up = dot(felt_air(context, body, state.foot_C, before_end), body.up_C);
  return up > (context.profile.gravity + kSurely) * Draught{up, context.profile.air.wind_time}.lag();
}

void come_to_rest(const StepContext& context, const Body& body, const Vec3& flat_C, CharacterState& state) {
  VelocityLog log(context, state);
  find_ground(context, body, Stood{Ground{}, state.foot_C}, state);
  land_or_leave(context, body, Verdict::None, kNoPiece, state);
  log.rest_is(entry::Change::Why::Ground);
  const Profile::Ground& ground = context.profile.ground;
  state.velocity_C +=
      state.grounded() ? laid_on(flat_C, state.ground.normal_C, body.up_C, ground.speed_on_slopes) : flat_C;
  log.rest_is(entry::Change::Why::Hold);
}

void move_and_find_ground(const StepContext& context, const Body& body, const Intent& intent,
                          void (*on_walkable)(const StepContext&, const Body&, const Intent&, CharacterState&),
                          CharacterState& state) {
  VelocityLog log(context, state);
  if (held_by_ground(state) && air_lifts(context, state, context.dt)) {
    lift_off(context, state);
    log.rest_is(entry::Change::Why::Carrier);
  }
  const Stood was{state.ground, state.foot_C};
  const Verdict before = was.ground.verdict;
  const bool lay = state.lying();
  if (before == Verdict::Steep) {
    skid(context, body, intent, state);
  } else if (before == Verdict::Walkable) {
    on_walkable(context, body, intent, state);
  } else {
    fall(context, body, intent, state);
  }
  if (before != Verdict::Walkable) log.rest_is(entry::Change::Why::Contact);
  find_ground(context, body, was, state);
  // Off the ground the velocity goes on along the face that was left.
  if (before == Verdict::Walkable && !state.grounded()) {
    state.velocity_C =
        laid_on(state.velocity_C, was.ground.normal_C, body.up_C, context.profile.ground.speed_on_slopes);
  }
  land_or_leave(context, body, before, was.ground.piece, state);
  if (lay) settle_lying(context, state);
  log.rest_is(entry::Change::Why::Ground);
}

}  // namespace lagniappe
