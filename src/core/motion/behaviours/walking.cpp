// SPDX-License-Identifier: MIT
#include <algorithm>
#include <span>

#include "lagniappe/handling.h"
#include "motion/behaviours/common.h"
#include "motion/behaviours/ways.h"
#include "motion/contact_kind.h"
#include "motion/ledge_guard.h"
#include "motion/respond.h"
#include "motion/velocity_log.h"
#include "motion/wall_contact.h"

namespace lagniappe {
namespace {

using Why = entry::Change::Why;

// Grip of nothing at all would make responses endless.
constexpr double kLeastGrip = 1e-3;

double grip_of(const CharacterState& state) { return std::max(state.ground.surface.friction, kLeastGrip); }

// The speed on the ground that an intent of share 1 asks for, on the level.
double full_ground_speed(const StepContext& context) { return context.profile.ground.speed * context.pace; }

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

// The phase of the legs goes on with the way, whatever the speed does: no foot slides.
void stride_on(const StepContext& context, double way, CharacterState& state) {
  const double phase = state.stride + way / (2.0 * stride_length(context.profile.gait, way / context.dt));
  state.stride = static_cast<float>(phase - std::floor(phase));
}

Vec3 without_approach(const Vec3& v_C, const Vec3& wall_C) {
  return v_C - wall_C * std::min(dot(v_C, wall_C), 0.0);
}

// A flat velocity as it goes along what is underfoot.
Vec3 along_ground(const StepContext& context, const Body& body, const CharacterState& state,
                  const Vec3& flat_C) {
  return laid_on(flat_C, state.ground.normal_C, body.up_C, context.profile.ground.speed_on_slopes);
}

std::optional<LedgeGuard> guard_of(const StepContext& context, const Body& body, const CharacterState& state) {
  if (context.profile.ledge.guard == Profile::Ledge::Guard::None) return std::nullopt;
  return LedgeGuard(context, body, state);
}

// Moves by what an integrator gave, across up, along the ground and around what is on it.
// `moved_after` gives that for a shorter time.
template <typename MovedAfter>
void go_along_ground(const StepContext& context, const Body& body, const MovedAfter& moved_after,
                     CharacterState& state) {
  const Moved moved = moved_after(context.dt);
  GroundSlide how{state.wall_normal_C, state.ground_velocity_C, context.profile.ground.speed_on_slopes,
                  state.ground.point_C};
  const bool rolls = context.stop != nullptr && context.stop->rolls;
  how.stop_after = rolls ? 2.0 : stop_after(context);
  const std::optional<LedgeGuard> guard = guard_of(context, body, state);
  if (guard) how.guard = &*guard;
  how.seconds = context.dt;
  Slid slid = slide_on_ground(context, body, state.foot_C, body.flat(context.pushes.beyond(moved.displacement)),
                              body.flat(moved.velocity), state.ground.normal_C, how);
  const bool met_wall = slid.wall_normal_C != Vec3(0.0);
  keep_to_wall(context, body, state, slid);
  note_stop(context, slid, state.foot_C, [&](double seconds) {
    const Vec3 flat = body.flat(context.pushes.beyond(moved_after(seconds).displacement));
    return without_approach(along_ground(context, body, state, flat), state.wall_normal_C);
  });
  if (context.stop != nullptr) {
    context.stop->turned = slid.turned;
    const bool off_wall = slid.wall_normal_C == Vec3(0.0) && !slid.stopped;
    const bool lost_at_once = met_wall && off_wall && state.wall_normal_C == Vec3(0.0);
    context.stop->bends =
        lost_at_once || (off_wall && bends_by_wall(context, body, 0.5 * (state.foot_C + slid.foot_C),
                                                   body.flat(moved.velocity) -
                                                       flattened(state.velocity_C, body.up_C,
                                                                 context.profile.ground.speed_on_slopes)));
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
  lift_eye(context, slid, state);
}

// A stretch of a tick in which the full speed is even or grows evenly.
struct Pace {
  double speed, growth, seconds;
};

// The full speed over the tick: even, or gathered, which does not fall below the least.
// `gathered`: to begin with; `grows`: it may.
std::array<Pace, 3> paces_of(const StepContext& context, double gathered, bool grows) {
  const Profile::Ground& ground = context.profile.ground;
  const Profile::Ground::Gather& gather = ground.gather;
  const double dt = context.dt;
  if (gather.growth <= 0.0) return {Pace{full_ground_speed(context), 0.0, dt}};
  const double times = context.pace, least = gather.least * times, highest = gather.highest * times;
  const double from = std::min(gather.lowest + gathered, gather.highest) * times;
  const double growth = grows ? gather.growth * times : 0.0;
  if (growth <= 0.0) return {Pace{std::max(from, least), 0.0, dt}};
  const double even = std::clamp((least - from) / growth, 0.0, dt);
  const double full = std::clamp((highest - from) / growth, even, dt);
  const double begin = std::max(from + growth * even, least), end = std::max(highest, least);
  return {Pace{std::max(from, least), 0.0, even}, Pace{begin, growth, full - even}, Pace{end, 0.0, dt - full}};
}

void gather_speed(const StepContext& context, bool grows, CharacterState& state) {
  const Profile::Ground::Gather& gather = context.profile.ground.gather;
  if (gather.growth <= 0.0) {
    state.gathered = 0.0;
  } else if (grows) {
    state.gathered = std::min(state.gathered + gather.growth * context.dt, gather.highest - gather.lowest);
  }
}

// What is asked for over the tick.
struct Asked {
  Vec3 target;  // At full speed 1; what turns as it is at the begin, else as in the middle.
  Vec3 turning_C =
      Vec3(0.0);  // rad/s about it, with the look; zero where something else decides the direction.
};

Asked asked_of(const StepContext& context, const Body& body, const Intent& intent, const Vec3& full_push,
               const Vec3& wall_C, bool blown) {
  const bool free = wall_C == Vec3(0.0) && !blown && context.profile.ground.gather.growth <= 0.0;
  if (!free || intent.turning == 0.0) return {along_known_wall(context, full_push, wall_C)};
  const double back = -0.5 * intent.turning * context.dt;
  return {glm::angleAxis(back, body.up_C) * full_push, body.up_C * intent.turning};
}

// Over the paces of the tick, towards what is asked of each and what is blown besides.
MovedSmooth respond_on_ground(const StepContext& context, std::span<const Pace> paces, MovedSmooth moved,
                              const Asked& asked, const Vec3& blown, bool pushed, double grip) {
  for (const Pace& pace : paces) {
    if (pace.seconds <= 0.0) continue;
    const Target target{asked.target * pace.speed + blown, asked.target * pace.growth, asked.turning_C};
    const MovedSmooth on = respond(context.profile.ground.response, moved.velocity, moved.acceleration, target,
                                   pushed, grip, pace.seconds);
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

void walk(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  const Profile::Ground& ground = context.profile.ground;
  const bool pushed = intent.share > 0.0;
  const double slope = slope_along(intent.direction_C, state.ground.normal_C, body.up_C);
  const Vec3 full_push = intent.direction_C * (intent.share * ground.slope_speed.at(degrees(slope)));
  const MovedSmooth from = {flattened(state.velocity_C, body.up_C, ground.speed_on_slopes),
                            body.flat(state.acceleration_C), Vec3(0.0)};
  const double gathered = state.gathered;
  const bool grows = pushed && state.wall_normal_C == Vec3(0.0);
  const auto paces = paces_of(context, gathered, grows);
  const double grip = grip_of(state);
  const Vec3 blown = blown_on_ground(context, body, state.foot_C, grip);
  const Asked asked = asked_of(context, body, intent, full_push, state.wall_normal_C, blown != Vec3(0.0));
  const MovedSmooth moved = respond_on_ground(context, paces, from, asked, blown, pushed, grip);
  if (context.ledger != nullptr)
    context.note(
        entry::Intent{along_ground(context, body, state, full_push * last_speed(paces)), intent.share, blown});
  tell_response(context, along_ground(context, body, state, from.velocity), grip, blown,
                [&](double with_grip, const Vec3& wind) {
                  const MovedSmooth with =
                      respond_on_ground(context, paces, from, asked, wind, pushed, with_grip);
                  return along_ground(context, body, state, with.velocity);
                });
  gather_speed(context, grows, state);
  go_along_ground(
      context, body,
      [&](double seconds) {
        if (seconds == context.dt) return Moved{moved.velocity, moved.displacement};
        StepContext sooner = context;
        sooner.dt = seconds;
        const MovedSmooth then =
            respond_on_ground(context, paces_of(sooner, gathered, grows), from, asked, blown, pushed, grip);
        return Moved{then.velocity, then.displacement};
      },
      state);
  state.acceleration_C = moved.acceleration;
}

void run_out(const StepContext& context, const Body& body, const Intent& intent, CharacterState& state) {
  state.acceleration_C = Vec3(0.0);
  const Vec3 target = intent.direction_C * (intent.share * full_ground_speed(context));
  const Vec3 from = flattened(state.velocity_C, body.up_C, context.profile.ground.speed_on_slopes);
  const double grip = grip_of(state);
  const Vec3 blown = blown_on_ground(context, body, state.foot_C, grip);
  const auto with = [&](double some_grip, const Vec3& wind, double seconds) {
    return approach_exponential(from, target + wind, context.profile.skid.run_out_time / some_grip, seconds);
  };
  if (context.ledger != nullptr)
    context.note(entry::Intent{along_ground(context, body, state, target), intent.share, blown});
  tell_response(context, along_ground(context, body, state, from), grip, blown,
                [&](double some_grip, const Vec3& wind) {
                  return along_ground(context, body, state, with(some_grip, wind, context.dt).velocity);
                });
  go_along_ground(
      context, body, [&](double seconds) { return with(grip, blown, seconds); }, state);
}

}  // namespace lagniappe
