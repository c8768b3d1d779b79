// SPDX-License-Identifier: MIT
#include "motion/behaviours.h"

#include <algorithm>
#include <span>

#include "lagniappe/handling.h"
#include "motion/contact_kind.h"
#include "motion/ground.h"
#include "motion/respond.h"
#include "motion/slide.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

// Grip of nothing at all would make responses endless.
constexpr double kLeastGrip = 1e-3;

double grip_of(const CharacterState& state) { return std::max(state.ground.surface.friction, kLeastGrip); }

using Why = entry::Change::Why;

// The wind across up, as the character feels it.
Vec3 felt_wind(const StepContext& context, const Body& body) {
  return body.flat(body.world.wind()) * context.profile.air.wind_share;
}

// What of the wind the ground does not hold: the wind pushes with its speed over the wind's time, as it does in
// the air, and grip holds its share of gravity.
Vec3 blown_on_ground(const StepContext& context, const Body& body, double grip) {
  const Vec3 wind = felt_wind(context, body);
  const double held = grip * context.profile.gravity * context.profile.air.wind_time, speed = length(wind);
  return speed > held ? wind * (1.0 - held / speed) : Vec3(0.0);
}

// Tells a response by its causes. `with(grip, blown_C)` is the velocity that it would have led to.
template <typename With>
void tell_response(const StepContext& context, const Vec3& from_C, double grip, const Vec3& blown_C,
                   const With& with) {
  if (context.ledger == nullptr) return;
  const Vec3 firm = with(1.0, Vec3(0.0)), still = with(grip, Vec3(0.0));
  tell_change(context, Why::Intent, firm - from_C);
  tell_change(context, Why::Grip, still - firm);
  tell_change(context, Why::Wind, with(grip, blown_C) - still);
}

void take(const Slid& slid, CharacterState& state) {
  state.foot_C = slid.foot_C;
  state.velocity_C = slid.velocity_C;
  state.wall_normal_C = slid.wall_normal_C;
  state.slides = static_cast<std::uint16_t>(state.slides + slid.slides);
  state.stepped = state.stepped || slid.stepped;
}

// What is wished while pushing along a wall that was there a tick ago: the way along it keeps the share of
// speed that goes with the angle of the push; the push into it stays, so that the wall's end and steps are
// found.
Vec3 along_known_wall(const StepContext& context, const Vec3& target_C, const Vec3& wall_C) {
  const double into = -dot(target_C, wall_C), size = length(target_C);
  if (wall_C == Vec3(0.0) || into <= 0.0) return target_C;
  const double kept = context.profile.walls.kept.at(degrees(std::asin(std::clamp(into / size, 0.0, 1.0))));
  return unit_or(across(target_C, wall_C), Vec3(0.0)) * (size * kept) - wall_C * into;
}

// The share of a motion up to which what is met is gone along.
double stop_after(const StepContext& context) {
  return context.stop != nullptr ? context.stop->least / context.dt : 2.0;
}

// Notes when, within the part, a motion came to the contact that stopped it. `way_after`: from its beginning,
// after so many s.
template <typename WayAfter>
void note_stop(const StepContext& context, const Slid& slid, const Vec3& from_C, const WayAfter& way_after) {
  if (!slid.stopped) return;
  const double wanted = dot(slid.foot_C - from_C, slid.stop_normal_C);
  const auto beyond = [&](double seconds) { return dot(way_after(seconds), slid.stop_normal_C) - wanted; };
  double low = 0.0, high = context.dt;
  // A straight line in place of the arc is near; walls on the way may have kept the arc from ever getting
  // there.
  if (beyond(low) <= 0.0 || beyond(high) >= 0.0) {
    context.stop->at = slid.share * context.dt;
    return;
  }
  constexpr double kFound = 1e-10;
  while (high - low > kFound) {
    const double middle = 0.5 * (low + high);
    (beyond(middle) > 0.0 ? low : high) = middle;
  }
  context.stop->at = high;
}

// Rise of the eye is taken back from the drawn place, and catches up.
void lift_eye(const Slid& slid, CharacterState& state) { state.eye_offset -= slid.lifted; }

// The phase of the legs goes on with the way, whatever the speed does: no foot slides.
void stride_on(const StepContext& context, double way, CharacterState& state) {
  const double phase = state.stride + way / (2.0 * stride_length(context.profile.gait, way / context.dt));
  state.stride = static_cast<float>(phase - std::floor(phase));
}

// Whether a wall that was slid along is touched still.
bool still_touches(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& wall_C) {
  constexpr double kSameWall = 0.98;
  for (const WorldContact& c : Touching(body, foot_C)) {
    const Vec3& normal = c.closest.normal_C;
    const ContactKind kind = contact_kind(context.profile, c.surface, normal, body.up_C);
    const bool wall = kind == ContactKind::Wall || kind == ContactKind::Steep;
    if (wall && dot(unit_or(body.flat(normal), Vec3(0.0)), wall_C) > kSameWall) return true;
  }
  return false;
}

Vec3 without_approach(const Vec3& v_C, const Vec3& wall_C) {
  return v_C - wall_C * std::min(dot(v_C, wall_C), 0.0);
}

// A flat velocity as it goes along what is underfoot.
Vec3 along_ground(const StepContext& context, const Body& body, const CharacterState& state,
                  const Vec3& flat_C) {
  return laid_on(flat_C, state.ground.normal_C, body.up_C, context.profile.ground.speed_on_slopes);
}

// Moves by what an integrator gave, across up, along the ground and around what is on it.
// `moved_after` gives that for a shorter time.
template <typename MovedAfter>
void go_along_ground(const StepContext& context, const Body& body, const MovedAfter& moved_after,
                     CharacterState& state) {
  const Moved moved = moved_after(context.dt);
  GroundSlide how{state.wall_normal_C, state.ground_velocity_C, context.profile.ground.speed_on_slopes,
                  state.ground.point_C};
  how.stop_after = stop_after(context);
  Slid slid = slide_on_ground(context, body, state.foot_C, body.flat(context.pushes.beyond(moved.displacement)),
                              body.flat(moved.velocity), state.ground.normal_C, how);
  if (slid.wall_normal_C != Vec3(0.0) && !still_touches(context, body, slid.foot_C, slid.wall_normal_C))
    slid.wall_normal_C = Vec3(0.0);
  note_stop(context, slid, state.foot_C, [&](double seconds) {
    const Vec3 flat = body.flat(context.pushes.beyond(moved_after(seconds).displacement));
    return without_approach(along_ground(context, body, state, flat), state.wall_normal_C);
  });
  if (context.stop != nullptr) {
    context.stop->turned = slid.turned;
    context.stop->way_C = moved.displacement;
  }
  const double way = length(body.flat(slid.foot_C - state.foot_C));
  state.travelled += way;
  stride_on(context, way, state);
  if (context.ledger != nullptr)
    tell_change(context, Why::Contact,
                along_ground(context, body, state, slid.velocity_C) -
                    along_ground(context, body, state, body.flat(moved.velocity)));
  take(slid, state);
  lift_eye(slid, state);
}

}  // namespace

double full_ground_speed(const StepContext& context) { return context.profile.ground.speed; }

namespace {

// A stretch of a tick in which the full speed is even or grows evenly.
struct Pace {
  double speed, growth, seconds;
};

// The full speed over the tick: even, or gathered, which does not fall below the least.
std::array<Pace, 3> paces_of(const StepContext& context, const CharacterState& state, bool pushed) {
  const Profile::Ground& ground = context.profile.ground;
  const Profile::Ground::Gather& gather = ground.gather;
  const double dt = context.dt;
  if (gather.growth <= 0.0) return {Pace{full_ground_speed(context), 0.0, dt}};
  const double least = gather.least;
  const double from = std::min(gather.lowest + state.gathered, gather.highest);
  const double growth = pushed && state.wall_normal_C == Vec3(0.0) ? gather.growth : 0.0;
  if (growth <= 0.0) return {Pace{std::max(from, least), 0.0, dt}};
  const double even = std::clamp((least - from) / growth, 0.0, dt);
  const double full = std::clamp((gather.highest - from) / growth, even, dt);
  const double begin = std::max(from + growth * even, least), end = std::max(gather.highest, least);
  return {Pace{std::max(from, least), 0.0, even}, Pace{begin, growth, full - even}, Pace{end, 0.0, dt - full}};
}

void gather_speed(const StepContext& context, bool pushed, CharacterState& state) {
  const Profile::Ground::Gather& gather = context.profile.ground.gather;
  if (gather.growth <= 0.0) {
    state.gathered = 0.0;
  } else if (pushed && state.wall_normal_C == Vec3(0.0)) {
    state.gathered = std::min(state.gathered + gather.growth * context.dt, gather.highest - gather.lowest);
  }
}

}  // namespace

namespace {

// Over the paces of the tick, towards `target` of each and what is blown besides.
MovedSmooth respond_on_ground(const StepContext& context, std::span<const Pace> paces, MovedSmooth moved,
                              const Vec3& target, const Vec3& blown, bool pushed, double grip) {
  for (const Pace& pace : paces) {
    if (pace.seconds <= 0.0) continue;
    const MovedSmooth on =
        respond(context.profile.ground.response, moved.velocity, moved.acceleration,
                {target * pace.speed + blown, target * pace.growth}, pushed, grip, pace.seconds);
    moved = {on.velocity, on.acceleration, moved.displacement + on.displacement};
  }
  return moved;
}

double last_speed(std::span<const Pace> paces) {
  double speed = 0.0;
  for (const Pace& pace : paces) {
    if (pace.seconds > 0.0) speed = pace.speed + pace.growth * pace.seconds;
  }
  return speed;
}

}  // namespace

void move_on_ground(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  const Profile::Ground& ground = context.profile.ground;
  const bool pushed = wish.share > 0.0;
  const double slope = slope_along(wish.direction_C, state.ground.normal_C, body.up_C);
  const Vec3 full_push = wish.direction_C * (wish.share * ground.slope_speed.at(degrees(slope)));
  const Vec3 target = along_known_wall(context, full_push, state.wall_normal_C);
  const MovedSmooth from = {flattened(state.velocity_C, body.up_C, ground.speed_on_slopes),
                            body.flat(state.acceleration_C), Vec3(0.0)};
  const auto paces = paces_of(context, state, pushed);
  const double grip = grip_of(state);
  const Vec3 blown = blown_on_ground(context, body, grip);
  const MovedSmooth moved = respond_on_ground(context, paces, from, target, blown, pushed, grip);
  if (context.ledger != nullptr)
    context.note(
        entry::Wish{along_ground(context, body, state, full_push * last_speed(paces)), wish.share, blown});
  tell_response(context, along_ground(context, body, state, from.velocity), grip, blown,
                [&](double with_grip, const Vec3& wind) {
                  const MovedSmooth with =
                      respond_on_ground(context, paces, from, target, wind, pushed, with_grip);
                  return along_ground(context, body, state, with.velocity);
                });
  gather_speed(context, pushed, state);
  go_along_ground(
      context, body,
      [&](double seconds) {
        if (seconds == context.dt) return Moved{moved.velocity, moved.displacement};
        StepContext sooner = context;
        sooner.dt = seconds;
        const MovedSmooth then =
            respond_on_ground(context, paces_of(sooner, state, pushed), from, target, blown, pushed, grip);
        return Moved{then.velocity, then.displacement};
      },
      state);
  state.acceleration_C = moved.acceleration;
}

namespace {

// Down the slope by gravity less friction, which acts against the velocity; across it by steering, and wind.
Moved skid_down(const StepContext& context, const Body& body, const Wish& wish, const CharacterState& state,
                double grip, const Vec3& blown) {
  const Profile::Skid& skid = context.profile.skid;
  const Vec3& normal = state.ground.normal_C;
  // On the level, where only the surface forbids walking, steering is all there is.
  if (dot(normal, body.up_C) > kLevel) {
    const Vec3 target = wish.direction_C * (wish.share * skid.steering_speed) + blown;
    return approach_exponential(across(state.velocity_C, normal), across(target, normal), skid.steering_time,
                                context.dt);
  }
  const Vec3 down = unit_or(across(-body.up_C, normal), Vec3(0.0)), side = cross(normal, down);
  const double pull = context.profile.gravity * dot(down, -body.up_C);
  const double drag = context.profile.gravity * dot(normal, body.up_C) * grip;
  const MovedScalar along =
      slide_with_friction(dot(state.velocity_C, down), pull, drag, context.profile.terminal_speed, context.dt);
  const double steered = dot(wish.direction_C, side) * wish.share * skid.steering_speed + dot(blown, side);
  const Moved across_it =
      approach_exponential(side * dot(state.velocity_C, side), side * steered, skid.steering_time, context.dt);
  return {down * along.velocity + across_it.velocity, down * along.displacement + across_it.displacement};
}

// By its causes: gravity is what it is without friction and steering.
void tell_skid(const StepContext& context, const Body& body, const Wish& wish, const CharacterState& state,
               double grip, const Vec3& blown) {
  if (context.ledger == nullptr) return;
  const auto with = [&](bool steers, double some_grip, const Vec3& wind) {
    const Wish asked = steers ? wish : Wish{Vec3(0.0), 0.0};
    return skid_down(context, body, asked, state, some_grip, wind).velocity;
  };
  const Vec3 none(0.0), pulled = with(false, 0.0, none), slowed = with(false, grip, none),
                        steered = with(true, grip, none);
  context.note(
      entry::Gravity{pulled - state.velocity_C, context.profile.gravity, context.profile.terminal_speed, 0.0});
  tell_change(context, Why::Grip, slowed - pulled);
  tell_change(context, Why::Intent, steered - slowed);
  tell_change(context, Why::Wind, with(true, grip, blown) - steered);
}

// On walkable ground what is left of a skid runs out, towards the pace that is wished for.
void run_out(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  const Vec3 target = wish.direction_C * (wish.share * full_ground_speed(context));
  const Vec3 from = flattened(state.velocity_C, body.up_C, context.profile.ground.speed_on_slopes);
  const double grip = grip_of(state);
  const Vec3 blown = blown_on_ground(context, body, grip);
  const auto with = [&](double some_grip, const Vec3& wind, double seconds) {
    return approach_exponential(from, target + wind, context.profile.skid.run_out_time / some_grip, seconds);
  };
  if (context.ledger != nullptr)
    context.note(entry::Wish{along_ground(context, body, state, target), wish.share, blown});
  tell_response(context, along_ground(context, body, state, from), grip, blown,
                [&](double some_grip, const Vec3& wind) {
                  return along_ground(context, body, state, with(some_grip, wind, context.dt).velocity);
                });
  go_along_ground(
      context, body, [&](double seconds) { return with(grip, blown, seconds); }, state);
}

}  // namespace

void move_skidding(const StepContext& context, const Body& body, const Wish& wish, CharacterState& state) {
  state.acceleration_C = Vec3(0.0);
  if (state.grounded()) return run_out(context, body, wish, state);
  const double grip = context.profile.skid.friction * state.ground.surface.friction;
  const Vec3 blown = blown_on_ground(context, body, grip);
  context.note(
      entry::Wish{wish.direction_C * (wish.share * context.profile.skid.steering_speed), wish.share, blown});
  tell_skid(context, body, wish, state, grip, blown);
  const Moved moved = skid_down(context, body, wish, state, grip, blown);
  AirSlide how;
  how.skidding = true;
  how.frame_velocity_C = state.ground_velocity_C;
  how.stop_after = stop_after(context);
  if (context.stop != nullptr) context.stop->way_C = moved.displacement;
  const Slid slid =
      slide_in_air(context, body, state.foot_C, context.pushes.beyond(moved.displacement), moved.velocity, how);
  note_stop(context, slid, state.foot_C, [&](double seconds) {
    StepContext sooner = context;
    sooner.dt = seconds;
    return context.pushes.beyond(skid_down(sooner, body, wish, state, grip, blown).displacement);
  });
  take(slid, state);
}

namespace {

// A ceiling ends the rise: nothing hangs below it, and some of the speed may be thrown back.
void bump_head(const StepContext& context, const Body& body, double rise, CharacterState& state) {
  const double back = context.profile.jump.head_bump * rise;
  state.jump_cut = true;
  const double left = dot(state.velocity_C, body.up_C);
  if (back > 0.0) state.velocity_C += body.up_C * (std::min(left, -back) - left);
  context.note(entry::HeadBump{rise, back});
}

}  // namespace

namespace {

// m/s with which one gets off what is no ground.
constexpr double kSlipSpeed = 1.0;

// Who rests on what is no ground slips off it, ahead, unless he steers himself.
Wish slipping_off(const StepContext& context, const Body& body, const Wish& wish, const CharacterState& state) {
  if (wish.share > 0.0 || std::abs(dot(state.velocity_C, body.up_C)) > kLeavingSpeed) return wish;
  const Touching touching(body, state.foot_C);
  const WorldContact* bearing = lowest_contact(context, body, touching);
  if (bearing == nullptr || bearing->surface.ground) return wish;
  return {look_direction(state.frame_CB, state.facing, 0.0),
          std::min(kSlipSpeed / std::max(context.profile.air.speed, kSlipSpeed), 1.0)};
}

}  // namespace

namespace {

// Who is faster along what is wished for than that slows down along it, and steers across it all the same.
MovedSmooth steered(const Response& response, const Vec3& velocity, const Vec3& acceleration,
                    const Vec3& target, bool wished, double dt) {
  const Vec3 ahead = unit_or(target, Vec3(0.0));
  const double along = dot(velocity, ahead);
  const bool over =
      wished && response.model != Response::Model::Smooth && along > length(target) * (1.0 + 1e-12);
  if (!over) return respond(response, velocity, acceleration, {target, Vec3(0.0)}, wished, 1.0, dt);
  const MovedSmooth on = respond(response, ahead * along, Vec3(0.0), {target, Vec3(0.0)}, true, 1.0, dt);
  Response steers = response;
  steers.deceleration = response.acceleration;
  steers.stop_time = response.time;
  const MovedSmooth aside =
      respond(steers, across(velocity, ahead), Vec3(0.0), {Vec3(0.0), Vec3(0.0)}, false, 1.0, dt);
  return {on.velocity + aside.velocity, Vec3(0.0), on.displacement + aside.displacement};
}

}  // namespace

namespace {

// What steers in the air: against the air, which may move.
struct AirSteering {
  Vec3 wind;  // As it is felt.
  Vec3 asked, target;
  Response response;
  bool wished;
  Vec3 level_velocity, acceleration;  // To begin with; the velocity against the course.

  AirSteering(const StepContext& context, const Body& body, const Wish& wish, const CharacterState& state,
              const Vec3& felt_wind)
      : wind(felt_wind),
        response(context.profile.air.response),
        wished(wish.share > 0.0),
        level_velocity(body.flat(state.velocity_C)),
        acceleration(body.flat(state.acceleration_C)) {
    const Profile::Air& air = context.profile.air;
    // Who is faster already, from a run-up or carried, keeps that along the wish; steering alone does not gain
    // it. In wind no more than the run-up was: it slows who jumps against it.
    const double reached = std::min(air.speed, state.run_up_speed + air.over_run_up);
    double kept = std::max(dot(level_velocity - wind, wish.direction_C), 0.0);
    if (wind != Vec3(0.0)) {
      kept = std::min(kept, state.run_up_speed);
      const double blown = length(wind) / std::max(air.wind_time, 1e-6);
      response.deceleration = std::max(response.deceleration, blown);
    }
    asked = wish.direction_C * (wish.share * std::max(reached, kept));
    target = along_known_wall(context, asked, state.wall_normal_C);
  }

  // Velocity and way against the course.
  MovedSmooth after(double seconds) const {
    const MovedSmooth against_air =
        steered(response, level_velocity - wind, acceleration, target, wished, seconds);
    return {against_air.velocity + wind, against_air.acceleration, against_air.displacement + wind * seconds};
  }
};

void tell_flight(const StepContext& context, const Body& body, const Wish& wish, const CharacterState& state,
                 const AirSteering& steering, const Pull& pull) {
  if (context.ledger == nullptr) return;
  context.note(entry::Wish{steering.asked, wish.share, steering.wind});
  const double rise = dot(state.velocity_C, body.up_C);
  context.note(entry::Gravity{body.up_C * (rise_for(pull, rise, context.dt).speed - rise),
                              gravity_at(pull, rise), context.profile.terminal_speed,
                              height_to_apex(pull, rise)});
  const Vec3 still = AirSteering(context, body, wish, state, Vec3(0.0)).after(context.dt).velocity;
  tell_change(context, Why::Intent, body.flat(still) - steering.level_velocity);
  tell_change(context, Why::Wind, body.flat(steering.after(context.dt).velocity - still));
}

}  // namespace

void move_in_air(const StepContext& context, const Body& body, const Wish& asked_for, CharacterState& state) {
  const Wish wish = slipping_off(context, body, asked_for, state);
  const AirSteering steering(context, body, wish, state, felt_wind(context, body));
  const Pull pull = pull_on(context.profile, state.flight_of, state.jump_cut);
  tell_flight(context, body, wish, state, steering, pull);

  struct Flown {
    MovedSmooth level;
    Risen risen;
    Vec3 way_C;
  };
  // Who has left a piece in this tick went with it already, and his own way holds what it gave.
  const auto fly = [&](double seconds) {
    const MovedSmooth level = steering.after(seconds);
    const Risen risen = rise_for(pull, dot(state.velocity_C, body.up_C), seconds);
    const Vec3 way = body.flat(level.displacement) + body.up_C * risen.height -
                     context.pushes.carried_C * (seconds / context.dt);
    return Flown{level, risen, context.pushes.beyond(way)};
  };
  const Flown flown = fly(context.dt);
  const Vec3 velocity = body.flat(flown.level.velocity) + body.up_C * flown.risen.speed;
  AirSlide how;
  how.highest_step = context.profile.air.highest_step;
  how.stop_after = stop_after(context);
  const Slid slid = slide_in_air(context, body, state.foot_C, flown.way_C, velocity, how);
  note_stop(context, slid, state.foot_C, [&](double seconds) { return fly(seconds).way_C; });
  take(slid, state);
  if (slid.ceiling && flown.risen.speed > 0.0) bump_head(context, body, flown.risen.speed, state);
  lift_eye(slid, state);
  state.acceleration_C = flown.level.acceleration;
}

void move_in_flight(const StepContext& context, const Body& body, CharacterState& state) {
  const Profile::Fly& fly = context.profile.fly;
  const Wish wish = wish_in_flight(context, state);
  const Vec3 target = wish.direction_C * (wish.share * fly.speed);
  context.note(entry::Wish{target, wish.share});
  const Moved moved = approach_exponential(state.velocity_C, target, fly.time, context.dt);
  tell_change(context, Why::Intent, moved.velocity - state.velocity_C);
  take(slide_in_air(context, body, state.foot_C,
                    context.pushes.beyond(moved.displacement - context.pushes.carried_C), moved.velocity, {}),
       state);
  state.acceleration_C = Vec3(0.0);
}

}  // namespace lagniappe
