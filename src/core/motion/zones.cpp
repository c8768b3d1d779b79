// SPDX-License-Identifier: MIT
#include "motion/zones.h"

#include <algorithm>
#include <span>

#include "lagniappe/launch.h"
#include "lagniappe/turns.h"
#include "motion/jumping.h"
#include "motion/velocity_log.h"

namespace lagniappe {
namespace {

// Of what is passed on one way.
constexpr std::size_t kMostPassed = 2 * kMostZonesAtOnce;

class ZoneList {
 public:
  // Touched on the way between two states.
  ZoneList(const World& world, double radius, const CharacterState& from, const CharacterState& to)
      : count_(world.zones_touched({capsule_axis(from, radius), capsule_axis(to, radius), radius}, from.time,
                                   to.time, zones_)) {}
  ZoneList(const World& world, double radius, const CharacterState& at) : ZoneList(world, radius, at, at) {}

  bool has(ZoneId zone) const { return std::find(begin(), end(), zone) != end(); }
  const ZoneId* begin() const { return zones_.data(); }
  const ZoneId* end() const { return zones_.data() + count_; }

 private:
  std::array<ZoneId, kMostPassed> zones_;
  std::size_t count_;
};

const effect::Launch* launch_of(const ZoneNow& zone) { return std::get_if<effect::Launch>(zone.effect); }

// Right, up and forward as the columns are right, up and back.
Quat frame_of_launch(const effect::Launch& launch, const ZoneNow& zone, const CharacterState& state) {
  const Vec3 up(0.0, 1.0, 0.0);
  switch (launch.frame) {
    case effect::Frame::View: {
      const Quat heading = state.frame_CB * glm::angleAxis(state.yaw, up);
      return launch.pitch ? heading * glm::angleAxis(state.pitch, Vec3(1.0, 0.0, 0.0)) : heading;
    }
    case effect::Frame::Facing:
      return state.frame_CB * glm::angleAxis(state.facing, up);
    case effect::Frame::Course:
      return Quat(1.0, 0.0, 0.0, 0.0);
    case effect::Frame::Zone:
      break;
  }
  return zone.frame.rotation_CP;
}

std::optional<Throw> aimed(const StepContext& context, const effect::Launch& launch,
                           const CharacterState& state) {
  const double gravity = context.profile.gravity;
  return throw_to(state.foot_C, launch.target_C, context.up_of(state), launch.apex,
                  {gravity, gravity * context.profile.jump.fall_factor, context.profile.terminal_speed});
}

void throw_by(const StepContext& context, ZoneId id, const ZoneNow& zone, CharacterState& state) {
  const effect::Launch& launch = *launch_of(zone);
  const bool aims = !launch.to.empty();
  const auto way = aims ? aimed(context, launch, state) : std::nullopt;
  if (aims && !way) return;
  const Vec3 has_C = state.velocity_C + state.ground_velocity_C;
  const Vec3 velocity_C = aims ? way->velocity_C : launch_velocity(launch, zone, state, has_C);
  context.note(entry::Thrown{id, state.foot_C, velocity_C, aims ? launch.target_C : Vec3(0.0),
                             aims ? way->apex : 0.0, aims ? way->seconds : 0.0, aims, aims && way->terminal});
  VelocityLog log(context, state);
  const bool bears = state.ground.verdict != Verdict::None;
  if (!bears || dot(velocity_C - state.ground_velocity_C, state.ground.normal_C) > kLeavingSpeed) {
    lift_off(context, state);
    log.rest_is(entry::Change::Why::Carrier);
    state.run_up_speed = length(across(velocity_C, context.up_of(state)));
    state.flight_of = -1;
    state.jump_cut = state.jump_waits = false;
  }
  state.velocity_C = velocity_C - state.ground_velocity_C;
  state.acceleration_C = Vec3(0.0);
  state.zones.aimed = aims;
  state.zones.since_throw = 0.0f;
  log.rest_is(entry::Change::Why::Launch);
}

void move_home(const StepContext& context, ZoneId id, const ZoneNow& zone, CharacterState& state) {
  const Vec3 up(0.0, 1.0, 0.0);
  const Quat frame = smallest_turn(up, zone.frame.rotation_CP * up);
  const Vec3 ahead = glm::conjugate(frame) * (zone.frame.rotation_CP * Vec3(0.0, 0.0, -1.0));
  const Home home{zone.frame.position_C, frame, std::atan2(-ahead.x, -ahead.z)};
  if (home.foot_C != state.home.foot_C || home.yaw != state.home.yaw)
    context.note(entry::HomeMoved{id, home.foot_C});
  state.home = home;
}

// What is touched now, with what is remembered of it.
InZones listed(const ZoneList& now, const InZones& before, ZonesMet& met) {
  InZones list;
  list.aimed = before.aimed;
  list.since_throw = before.since_throw;
  for (const ZoneId zone : now) {
    if (list.count == kMostZonesAtOnce) break;
    const auto was = before.index_of(zone);
    const auto bit = static_cast<std::uint8_t>(1u << list.count);
    if (!was || before.has_entered(*was)) list.entered |= bit;
    if (was && before.has_thrown(*was)) list.threw |= bit;
    met.any = met.any || !was;
    list.id[list.count++] = zone;
  }
  return list;
}

// Whether a zone on the way is entered: one that is touched now and not told apart any more is not.
bool is_news(ZoneId zone, const InZones& before, const ZoneList& here, const InZones& now) {
  return !before.index_of(zone) && (now.index_of(zone) || !here.has(zone));
}

void tell_left(const StepContext& context, const InZones& before, const ZoneList& passed, const ZoneList& here,
               ZonesMet& met) {
  for (const ZoneId zone : passed) {
    if (!before.index_of(zone) && !here.has(zone)) context.note(entry::ZoneLeft{zone});
  }
  for (std::size_t i = 0; i < before.count; ++i) {
    if (here.has(before.id[i])) continue;
    context.note(entry::ZoneLeft{before.id[i]});
    met.any = true;
  }
}

// Throws, if the zone does, it is its turn, and nothing holds.
void launch_from(const StepContext& context, ZoneId id, bool is_new, CharacterState& state, ZonesMet& met) {
  const ZoneNow zone = context.world.zone(id, context.now.time);
  const effect::Launch* launch = launch_of(zone);
  if (launch == nullptr) return;
  const auto index = state.zones.index_of(id);
  const bool again = launch->again_after > 0.0 && state.zones.since_throw >= launch->again_after - kTouch;
  if (index && state.zones.has_thrown(*index) && !again) return;
  if (state.holding() || !context.throws) {
    if (is_new) context.note(entry::ThrowWaits{id});
    return;
  }
  throw_by(context, id, zone, state);
  if (index) state.zones.threw |= static_cast<std::uint8_t>(1u << *index);
  met.any = true;
}

void enter(const StepContext& context, ZoneId id, CharacterState& state, ZonesMet& met) {
  context.note(entry::ZoneEntered{id});
  const ZoneNow zone = context.world.zone(id, context.now.time);
  if (std::holds_alternative<effect::Checkpoint>(*zone.effect)) move_home(context, id, zone, state);
  if (std::holds_alternative<effect::SendHome>(*zone.effect) && met.sends_home == kNoZone) met.sends_home = id;
}

}  // namespace

Vec3 launch_velocity(const effect::Launch& launch, const ZoneNow& zone, const CharacterState& state,
                     const Vec3& velocity_C) {
  const Quat frame = frame_of_launch(launch, zone, state);
  const Vec3 carries_C = zone.velocity.at(state.foot_C);
  const Vec3 has = glm::conjugate(frame) * (velocity_C - carries_C);
  const Vec3 given(launch.velocity.x, launch.velocity.y, -launch.velocity.z);
  const double keeps_up = launch.sets_up ? 0.0 : 1.0, keeps_across = launch.sets_across ? 0.0 : 1.0;
  return carries_C + frame * (given + has * Vec3(keeps_across, keeps_up, keeps_across));
}

bool zones_change(const World& world, double radius, const CharacterState& from, const CharacterState& now) {
  const ZoneList passed(world, radius, from, now);
  const auto known = [&](ZoneId zone) { return from.zones.index_of(zone).has_value(); };
  if (!std::all_of(passed.begin(), passed.end(), known) && from.zones.count < kMostZonesAtOnce) return true;
  if (from.zones.count == 0) return false;
  const ZoneList here(world, radius, now);
  return !std::all_of(from.zones.id.begin(), from.zones.id.begin() + from.zones.count,
                      [&](ZoneId zone) { return here.has(zone); });
}

ZonesMet meet_zones(const StepContext& context, const CharacterState& from, CharacterState& state) {
  ZonesMet met;
  const double radius = context.profile.capsule.radius;
  const ZoneList passed(context.world, radius, from, state);
  if (passed.begin() == passed.end() && state.zones.count == 0) return met;
  const ZoneList here(context.world, radius, state);
  const InZones before = state.zones;
  state.zones = listed(here, before, met);
  for (const ZoneId zone : passed) {
    if (!is_news(zone, before, here, state.zones)) continue;
    enter(context, zone, state, met);
    met.any = true;
  }
  for (const ZoneId zone : passed) {
    const bool is_new = is_news(zone, before, here, state.zones);
    if (is_new || state.zones.index_of(zone)) launch_from(context, zone, is_new, state, met);
  }
  tell_left(context, before, passed, here, met);
  return met;
}

double until_thrown_again(const World& world, const CharacterState& state) {
  double least = 1e9;
  for (std::size_t i = 0; i < state.zones.count; ++i) {
    if (!state.zones.has_thrown(i)) continue;
    const ZoneNow zone = world.zone(state.zones.id[i], state.time);
    const effect::Launch* launch = launch_of(zone);
    if (launch == nullptr || launch->again_after <= 0.0) continue;
    // What is due, and waits for who holds on to let go, is no instant ahead.
    const double left = launch->again_after - double(state.zones.since_throw);
    if (left > kTouch) least = std::min(least, left);
  }
  return least;
}

double pace_in_zones(const World& world, const CharacterState& state) {
  double times = 1.0;
  for (std::size_t i = 0; i < state.zones.count; ++i) {
    const ZoneNow zone = world.zone(state.zones.id[i], state.time);
    if (const auto* pace = std::get_if<effect::Pace>(zone.effect)) times *= pace->times;
  }
  return times;
}

}  // namespace lagniappe
