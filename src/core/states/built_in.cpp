// SPDX-License-Identifier: MIT
// The table that a profile without states moves by, as data like any other.
#include "lagniappe/states.h"

namespace lagniappe {
namespace {

constexpr const char *kUpright = "Upright", *kAirborne = "Airborne", *kFlight = "Flight";

Override times(const char* path, double factor) { return {path, Override::Kind::Times, factor, {}, {}}; }
Override same(const char* path, const char* as) { return {path, Override::Kind::Same, 0.0, {}, as}; }
Override value(const char* path, double number) { return {path, Override::Kind::Value, number, {}, {}}; }

StateSpec state(const char* name, const char* group, Behaviour behaviour, Stance stance, const char* pose,
                std::vector<Override> overrides = {}) {
  return {name, {}, group, behaviour, stance, pose, std::move(overrides), {}, {}, {}, {}};
}

StateSpec like(const char* name, const char* other, const char* pose, std::vector<Override> overrides) {
  return {name, other, {}, {}, {}, pose, std::move(overrides), {}, {}, {}, {}};
}

// In the order of StateId.
std::vector<StateSpec> states() {
  using enum Behaviour;
  using enum Stance;
  const Override guards = value("ledge.guard", 1);            // Walk.
  const Override gentle = value("ground.response.model", 1);  // Steady.
  return {
      state("Stand", kUpright, Ground, Standing, "stand"),
      state("Walk", kUpright, Ground, Standing, "walk"),
      like("Sprint", "Walk", "run",
           {same("ground.speed", "ground.sprint_speed"), same("ground.gather.least", "ground.sprint_speed")}),
      state("Rise", kAirborne, Air, Standing, "rise"),
      state("Fall", kAirborne, Air, Standing, "fall"),
      state("Skid", "", Skid, Standing, "skid"),
      state("Fly", kFlight, Fly, Standing, "fly"),
      state("Crouch", kUpright, Ground, Crouched, "crouch",
            {times("ground.speed", 0.45), times("ground.gather.growth", 0.0), guards}),
      state("Slide", kUpright, Ground, Crouched, "slide",
            {times("ground.speed", 0.0), times("ground.gather.growth", 0.0), gentle,
             value("ground.response.acceleration", 4.0), value("ground.response.deceleration", 4.0),
             value("ground.response.turn_acceleration", 4.0), value("ground.turn_rate", 90.0)}),
      state("Lie", "", Ground, Lying, "lie",
            {times("ground.speed", 0.2), times("ground.gather.growth", 0.0), value("ground.turn_rate", 120.0),
             times("ground.highest_step", 0.5), times("ground.snap_distance", 0.6), guards,
             times("ledge.deepest_drop", 0.5)}),
      state("Tuck", kAirborne, Air, Crouched, "tuck"),
      like("Soar", "Fly", "fly", {same("fly.speed", "fly.sprint_speed")}),
      state("Mantle", "", Mantle, Crouched, "mantle"),
      state("Hang", "", Hang, Standing, "hang"),
      state("Climb", "", Climb, Standing, "climb"),
      state("Float", "", Float, Standing, "fall"),
  };
}

TransitionSpec row(int priority, const char* from, const char* to, const char* guard, const char* action = "",
                   double shortest_stay = 0.0) {
  return {from, to, guard, priority, shortest_stay, action};
}

std::vector<TransitionSpec> transitions() {
  return {
      // Flying is a way to look around, from anywhere.
      row(100, kFlight, "Fall", "fly.pressed"),
      row(99, "any", "Fly", "fly.pressed"),
      row(20, "Fly", "Soar", "sprint.held"),
      row(20, "Soar", "Fly", "not sprint.held"),
      // Where nothing pulls.
      row(95, kUpright, "Float", "weightless"),
      row(95, kAirborne, "Float", "weightless"),
      row(95, "Skid", "Float", "weightless"),
      row(95, "Lie", "Float", "weightless"),
      row(95, "Float", "Fall", "not weightless"),
      // Jumps: the core says whether one is asked for and possible.
      row(90, kUpright, "Rise", "can_jump", "jump()"),
      row(90, kAirborne, "Rise", "can_jump", "jump()"),
      row(90, "Skid", "Rise", "can_jump", "jump()"),
      // Over a rim: the core says whether it is asked for and there is a way.
      row(85, kUpright, "Mantle", "can_mantle"),
      row(85, kAirborne, "Mantle", "can_mantle"),
      row(84, "Mantle", "Fall", "crouch.pressed"),
      // From a rim: up where there is room, away, down.
      row(84, kAirborne, "Hang", "can_hang"),
      row(90, "Hang", "Rise", "can_jump", "jump()"),
      row(85, "Hang", "Mantle", "can_mantle"),
      row(84, "Hang", "Fall", "crouch.pressed"),
      row(50, "Hang", "Fall", "not holding"),
      // On a wall: off, over its top, under it, down, onto the floor.
      row(83, kUpright, "Climb", "can_climb"),
      row(83, kAirborne, "Climb", "can_climb"),
      row(90, "Climb", "Rise", "can_jump", "jump()"),
      row(85, "Climb", "Mantle", "can_mantle"),
      row(83, "Climb", "Hang", "can_hang"),
      row(84, "Climb", "Fall", "crouch.pressed"),
      row(52, "Climb", "Stand", "not holding and grounded"),
      row(50, "Climb", "Fall", "not holding"),
      // What is underfoot.
      row(80, kUpright, "Skid", "steep"),
      row(80, kAirborne, "Skid", "steep"),
      row(80, "Lie", "Skid", "steep"),
      row(75, "Crouch", "Tuck", "not grounded"),
      row(75, "Slide", "Tuck", "not grounded"),
      row(70, kUpright, "Rise", "not grounded and rise_speed > 0"),
      row(60, kUpright, "Fall", "not grounded"),
      row(60, "Lie", "Tuck", "not grounded and off_ground > 0.1"),
      row(70, "Skid", "Rise", "not grounded and not steep and rise_speed > 0"),
      row(60, "Skid", "Fall", "not grounded and not steep"),
      // Landing, and the end of a skid.
      row(55, kAirborne, "Crouch", "grounded and (crouch.held or not can_stand)"),
      row(54, kAirborne, "Sprint", "grounded and intent > 0.02 and sprint.held"),
      row(53, kAirborne, "Walk", "grounded and intent > 0.02"),
      row(52, kAirborne, "Stand", "grounded"),
      row(55, "Skid", "Crouch", "grounded and skid_over and crouch.held"),
      row(54, "Skid", "Sprint", "grounded and skid_over and intent > 0.02 and sprint.held"),
      row(53, "Skid", "Walk", "grounded and skid_over and intent > 0.02"),
      row(52, "Skid", "Stand", "grounded and skid_over"),
      row(55, "Mantle", "Crouch", "not holding and grounded and (crouch.held or not can_stand)"),
      row(54, "Mantle", "Sprint", "not holding and grounded and intent > 0.02 and sprint.held"),
      row(53, "Mantle", "Walk", "not holding and grounded and intent > 0.02"),
      row(52, "Mantle", "Stand", "not holding and grounded"),
      row(50, "Mantle", "Fall", "not holding"),
      // In the air.
      row(30, "Rise", "Fall", "rise_speed <= 0"),
      row(30, "Fall", "Rise", "rise_speed > 0"),
      row(20, "Rise", "Tuck", "crouch.held"),
      row(20, "Fall", "Tuck", "crouch.held"),
      row(20, "Tuck", "Fall", "not crouch.held and can_stand"),
      // Lying down and getting up.
      row(48, "Stand", "Lie", "lie.pressed and can_lie"),
      row(48, "Walk", "Lie", "lie.pressed and can_lie"),
      row(48, "Sprint", "Lie", "lie.pressed and can_lie"),
      row(48, "Crouch", "Lie", "lie.pressed and can_lie"),
      row(48, "Lie", "Crouch", "(lie.pressed or jump.pressed or crouch.pressed) and can_crouch"),
      // Crouching.
      row(46, "Sprint", "Slide", "crouch.pressed and ground_speed > 3.5"),
      row(45, "Stand", "Crouch", "crouch.held or not can_stand"),
      row(45, "Walk", "Crouch", "crouch.held or not can_stand"),
      row(45, "Sprint", "Crouch", "crouch.held or not can_stand"),
      row(45, "Slide", "Walk", "not crouch.held and can_stand", "", 0.2),
      row(44, "Slide", "Crouch", "ground_speed < 1.2 or state_time > 1.5"),
      row(45, "Crouch", "Sprint", "not crouch.held and can_stand and intent > 0.02 and sprint.held"),
      row(44, "Crouch", "Walk", "not crouch.held and can_stand and intent > 0.02"),
      row(43, "Crouch", "Stand", "not crouch.held and can_stand"),
      // Walking.
      row(41, "Stand", "Sprint", "intent > 0.02 and sprint.held"),
      row(40, "Stand", "Walk", "intent > 0.02"),
      row(40, "Walk", "Stand", "intent <= 0.02"),
      row(40, "Sprint", "Stand", "intent <= 0.02"),
      row(39, "Walk", "Sprint", "sprint.held"),
      row(39, "Sprint", "Walk", "not sprint.held"),
  };
}

}  // namespace

const StateTable& built_in_states() {
  static const StateTable kTable = in_order({states(), transitions(), {}, "Fall", true});
  return kTable;
}

}  // namespace lagniappe
