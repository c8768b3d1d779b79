// SPDX-License-Identifier: MIT
#include <algorithm>
#include <cmath>
#include <limits>

#include "lagniappe/handling.h"
#include "motion/behaviours/common.h"
#include "motion/behaviours/ways.h"
#include "motion/flight_ahead.h"
#include "motion/ground.h"
#include "motion/respond.h"
#include "motion/velocity_log.h"
#include "motion/wall_contact.h"

namespace lagniappe {
namespace {

using Why = entry::Change::Why;

// A ceiling ends the rise: nothing hangs below it, and some of the speed may be thrown back.
void bump_head(const StepContext& context, const Body& body, double rise, CharacterState& state) {
  const double back = context.profile.jump.head_bump * rise;
  state.jump_cut = true;
  const double left = dot(state.velocity_C, body.up_C);
  if (back > 0.0) state.velocity_C += body.up_C * (std::min(left, -back) - left);
  context.note(entry::HeadBump{rise, back});
}

// Whether a throw to a mark is still what moves it.
bool flies_as_aimed(CharacterState& state) {
  if (state.flight_of >= 0) state.zones.aimed = false;
  return state.zones.aimed;
}

// m/s with which one gets off what is no ground.
constexpr double kSlipSpeed = 1.0;

// Who rests on what is no ground slips off it, ahead, unless he steers himself.
Intent slipping_off(const StepContext& context, const Body& body, const Intent& intent,
                    const CharacterState& state) {
  if (intent.share > 0.0 || std::abs(dot(state.velocity_C, body.up_C)) > kLeavingSpeed) return intent;
  const Touching touching(body, state.foot_C);
  const WorldContact* bearing = lowest_contact(context, body, touching);
  if (bearing == nullptr || bearing->surface.ground) return intent;
  return {look_direction(state.frame_CB, state.facing, 0.0),
          std::min(kSlipSpeed / std::max(context.profile.air.speed, kSlipSpeed), 1.0)};
}

// Slows across what is wished for as it speeds up along it.
Response steering(Response response) {
  response.deceleration = response.acceleration;
  response.stop_time = response.time;
  return response;
}

// Who is faster along what is wished for than that slows down along it, and steers across it all the same.
MovedSmooth steered(const Response& response, const Vec3& velocity, const Vec3& acceleration,
                    const Target& turning, bool wished, double dt) {
  const Vec3 target = turning.turned(0.5 * dt), ahead = unit_or(target, Vec3(0.0));
  const double along = dot(velocity, ahead);
  const bool over =
      wished && response.model != Response::Model::Smooth && along > length(target) * (1.0 + 1e-12);
  if (!over) return respond(response, velocity, acceleration, turning, wished, 1.0, dt);
  const MovedSmooth on = respond(response, ahead * along, Vec3(0.0), {target, Vec3(0.0)}, true, 1.0, dt);
  const MovedSmooth aside =
      respond(steering(response), across(velocity, ahead), Vec3(0.0), {Vec3(0.0), Vec3(0.0)}, false, 1.0, dt);
  return {on.velocity + aside.velocity, Vec3(0.0), on.displacement + aside.displacement};
}

// Against a wall, which takes what goes into it all the time: what goes along it is not weighed against that.
MovedSmooth steered_along(const Response& response, const Vec3& wall, const Vec3& velocity,
                          const Vec3& acceleration, const Vec3& target, double dt) {
  const auto part = [&](const Vec3& v, const Vec3& a, const Vec3& to) {
    return respond(steering(response), v, a, {to, Vec3(0.0)}, true, 1.0, dt);
  };
  const MovedSmooth along = part(across(velocity, wall), across(acceleration, wall), across(target, wall));
  const auto into_wall = [&](const Vec3& v) { return wall * dot(v, wall); };
  const MovedSmooth into = part(into_wall(velocity), into_wall(acceleration), into_wall(target));
  return {along.velocity + into.velocity, along.acceleration + into.acceleration,
          along.displacement + into.displacement};
}

// Below this angle, rad, of the look's turn the speed that is kept along it hardly changes.
constexpr double kLittleTurn = 0.01, kMostPieces = 100.0;

// What steers in the air: against the air, which may move.
struct AirSteering {
  bool aimed;             // By a throw to a mark: nothing does.
  Vec3 wind;              // As it is felt.
  Vec3 asked;             // In the middle of the part.
  Target target;          // Where nothing is in the way it turns as what is asked for does.
  Vec3 wall = Vec3(0.0);  // That is pushed against; zero without.
  Response response;
  bool wished;
  Vec3 level_velocity, acceleration;  // To begin with; the velocity against the course.
  double share, reached;              // Of the full push; m/s that steering alone reaches.
  double most_kept;                   // m/s that are kept of what is faster.

  AirSteering(const StepContext& context, const Body& body, const Intent& intent, const CharacterState& state,
              const Vec3& felt_wind, bool is_aimed)
      : aimed(is_aimed),
        wind(felt_wind),
        response(context.profile.air.response),
        wished(intent.share > 0.0),
        level_velocity(body.flat(state.velocity_C)),
        acceleration(body.flat(state.acceleration_C)),
        share(intent.share),
        most_kept(std::numeric_limits<double>::infinity()) {
    const Profile::Air& air = context.profile.air;
    reached = std::min(air.speed, state.run_up_speed + air.over_run_up);
    const auto at_the_begin = [&](const Vec3& v_C) {
      return glm::angleAxis(-0.5 * intent.turning * context.dt, body.up_C) * v_C;
    };
    if (wind != Vec3(0.0)) {
      most_kept = state.run_up_speed;
      const double blown = length(wind) / std::max(air.wind_time, 1e-6);
      response.deceleration = std::max(response.deceleration, blown);
    }
    asked = intent.direction_C * asked_speed(level_velocity - wind, at_the_begin(intent.direction_C));
    const Vec3& known = state.wall_normal_C;
    const bool pushes = dot(asked, known) < 0.0 && wall_contact(context, body, state.foot_C, known).touched;
    if (pushes) wall = known;
    target = pushes ? Target{along_known_wall(context, asked, wall), Vec3(0.0)}
                    : Target{at_the_begin(asked), Vec3(0.0), body.up_C * intent.turning};
  }

  // Who is faster already, from a run-up or carried, keeps that along the intent; steering alone does not gain
  // it. In wind no more than the run-up was: it slows who jumps against it.
  double asked_speed(const Vec3& own, const Vec3& ahead) const {
    return share * std::max(reached, std::min(std::max(dot(own, ahead), 0.0), most_kept));
  }

  // What is kept along a look that turns away falls with the way that it turns: in pieces, each with the mean
  // of what is kept at its two ends. Who is faster than he asks for is slowed along it, and steers.
  MovedSmooth steered_round(MovedSmooth on, double seconds) const {
    const double rate = length(target.turning_C);
    const double pieces = std::min(std::ceil(rate * seconds / kLittleTurn), kMostPieces);
    const double dt = seconds / pieces;
    const Quat turned = glm::angleAxis(rate * dt, target.turning_C / rate);
    Vec3 ahead = unit_or(target.velocity, Vec3(0.0));
    for (double i = 0.0; i < pieces; i += 1.0) {
      const Vec3 next = turned * ahead;
      const double first = asked_speed(on.velocity, ahead);
      const auto at_speed = [&](double speed) { return Target{ahead * speed, Vec3(0.0), target.turning_C}; };
      const auto pursue = [&](double speed) {
        return respond(steering(response), on.velocity, on.acceleration, at_speed(speed), wished, 1.0, dt);
      };
      const bool over = dot(on.velocity, ahead) > first * (1.0 + 1e-12);
      const MovedSmooth went =
          over ? steered(response, on.velocity, on.acceleration, at_speed(first), wished, dt)
               : pursue(0.5 * (first + asked_speed(pursue(first).velocity, next)));
      on = {went.velocity, went.acceleration, on.displacement + went.displacement};
      ahead = next;
    }
    return on;
  }

  // Velocity and way against the course.
  MovedSmooth after(double seconds) const {
    if (aimed) return {level_velocity, Vec3(0.0), level_velocity * seconds};
    const Vec3 own = level_velocity - wind;
    const bool keeps = target.turning_C != Vec3(0.0) && length(own) > reached && share > 0.0 && seconds > 0.0;
    const MovedSmooth against_air =
        wall != Vec3(0.0) ? steered_along(response, wall, own, acceleration, target.velocity, seconds)
        : keeps           ? steered_round({own, acceleration, Vec3(0.0)}, seconds)
                          : steered(response, own, acceleration, target, wished, seconds);
    return {against_air.velocity + wind, against_air.acceleration, against_air.displacement + wind * seconds};
  }
};

// What is pushed against takes of the whole part what goes into it: where it has ended by then, in shorter
// parts.
void note_wall(const StepContext& context, const Body& body, const Slid& slid) {
  if (context.stop == nullptr) return;
  context.stop->pressed_C = slid.too_steep_C;
  if (slid.too_steep_C == Vec3(0.0) || slid.stopped) return;
  context.stop->bends |= !wall_contact(context, body, slid.foot_C, slid.too_steep_C).touched;
}

void tell_flight(const StepContext& context, const Body& body, const Intent& intent,
                 const CharacterState& state, const AirSteering& steering, const Pull& pull,
                 const Draught& draught) {
  if (context.ledger == nullptr) return;
  context.note(entry::Intent{steering.asked, intent.share, steering.wind});
  const double rise = dot(state.velocity_C, body.up_C);
  context.note(entry::Gravity{body.up_C * (rise_for(pull, rise, context.dt).speed - rise),
                              gravity_at(pull, rise), context.profile.terminal_speed,
                              height_to_apex(pull, rise)});
  const Vec3 still =
      AirSteering(context, body, intent, state, Vec3(0.0), steering.aimed).after(context.dt).velocity;
  tell_change(context, Why::Intent, body.flat(still) - steering.level_velocity);
  const double by_draught =
      rise_in(draught, pull, rise, context.dt).speed - rise_for(pull, rise, context.dt).speed;
  tell_change(context, Why::Wind,
              body.flat(steering.after(context.dt).velocity - still) + body.up_C * by_draught);
}

}  // namespace

void fall(const StepContext& context, const Body& body, const Intent& asked_for, CharacterState& state) {
  const bool aimed = flies_as_aimed(state);
  const Intent none{Vec3(0.0), 0.0}, kept = aimed ? none : guarded_steering(context, asked_for, state);
  const Intent intent = aimed ? none : slipping_off(context, body, kept, state);
  // In the middle of the part, where it changes on the way.
  const double half = 0.5 * context.dt;
  const Vec3 wind = aimed ? Vec3(0.0) : felt_air(context, body, state.foot_C + state.velocity_C * half, half);
  const AirSteering steering(context, body, intent, state, body.flat(wind), aimed);
  const Draught draught{dot(wind, body.up_C), context.profile.air.wind_time};
  const Pull pull = pull_on(context.profile, state.flight_of, state.jump_cut);
  tell_flight(context, body, intent, state, steering, pull, draught);

  struct Flown {
    MovedSmooth level;
    Risen risen;
    Vec3 way_C;
  };
  // Who has left a piece in this tick went with it already, and his own way holds what it gave.
  const auto fly = [&](double seconds) {
    const MovedSmooth level = steering.after(seconds);
    const Risen risen = rise_in(draught, pull, dot(state.velocity_C, body.up_C), seconds);
    const Vec3 way = body.flat(level.displacement) + body.up_C * risen.height -
                     context.pushes.carried_C * (seconds / context.dt);
    return Flown{level, risen, context.pushes.beyond(way)};
  };
  const Flown flown = fly(context.dt);
  const Vec3 velocity = body.flat(flown.level.velocity) + body.up_C * flown.risen.speed;
  AirSlide how;
  how.highest_step = context.profile.air.highest_step;
  how.stop_after = stop_after(context);
  if (context.stop != nullptr) how.known_wall_C = context.stop->known_C;
  const Slid slid = slide_in_air(context, body, state.foot_C, flown.way_C, velocity, how);
  note_wall(context, body, slid);
  note_stop(context, slid, state.foot_C, [&](double seconds) { return fly(seconds).way_C; });
  take(slid, state);
  if (slid.slides > 0) state.zones.aimed = false;
  if (slid.ceiling && flown.risen.speed > 0.0) bump_head(context, body, flown.risen.speed, state);
  lift_eye(context, slid, state);
  // What is pushed against takes of the acceleration, too, what goes into it.
  const Vec3 &acceleration = flown.level.acceleration, &wall = slid.too_steep_C;
  state.acceleration_C = acceleration - wall * std::min(dot(acceleration, wall), 0.0);
}

}  // namespace lagniappe
