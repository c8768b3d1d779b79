// SPDX-License-Identifier: MIT
// The one list of all that a CharacterState holds: what writes, reads and hashes states walks it.
#pragma once

#include "lagniappe/state_parts.h"

namespace lagniappe {

// Where a field belongs, and the version of that part in which it came. A field whose meaning changes is a new
// one, with a name of its own, and the version of its part goes up in kStateParts.
struct FieldOf {
  StatePart part;
  int since = 1;
};

// Calls `f(name, value, FieldOf)` for each.
template <typename State, typename Each>
void each_field(State& s, Each&& f) {
  constexpr FieldOf body{StatePart::Body}, ground{StatePart::Ground}, jumps{StatePart::Jumps},
      table{StatePart::Table}, seen{StatePart::Seen}, hold{StatePart::Hold}, zones{StatePart::Zones};
  f("foot", s.foot_C, body);
  f("velocity", s.velocity_C, body);
  f("acceleration", s.acceleration_C, body);
  f("frame", s.frame_CB, body);
  f("yaw", s.yaw, body);
  f("pitch", s.pitch, body);
  f("facing", s.facing, body);
  f("capsule_height", s.capsule_height, body);
  f("ground_verdict", s.ground.verdict, ground);
  f("ground_piece", s.ground.piece, ground);
  f("ground_normal", s.ground.normal_C, ground);
  f("ground_point", s.ground.point_C, ground);
  f("ground_walk", s.ground.surface.walk, ground);
  f("ground_is_ground", s.ground.surface.ground, ground);
  f("ground_climbable", s.ground.surface.climbable, ground);
  f("ground_friction", s.ground.surface.friction, ground);
  f("ground_velocity", s.ground_velocity_C, ground);
  f("ground_trend", s.ground_trend_C, ground);
  f("wall_normal", s.wall_normal_C, ground);
  f("time", s.time, body);
  f("carried", s.carried, ground);
  f("carried_yaw", s.carried_yaw, ground);
  f("home_foot", s.home.foot_C, body);
  f("home_frame", s.home.frame_CB, body);
  f("home_yaw", s.home.yaw, body);
  f("state_time", s.state_time, table);
  f("since_grounded", s.since_grounded, jumps);
  f("since_jump_press", s.since_jump_press, jumps);
  f("may_jump_late", s.may_jump_late, jumps);
  f("jump_waits", s.jump_waits, jumps);
  f("run_up_speed", s.run_up_speed, jumps);
  f("gathered", s.gathered, jumps);
  f("since_push", s.since_push, jumps);
  f("travelled", s.travelled, seen);
  f("eye_offset", s.eye_offset, seen);
  f("lie_length", s.lie_length, body);
  f("lie_pitch", s.lie_pitch, body);
  f("stride", s.stride, seen);
  f("ground_time", s.ground_time, seen);
  f("since_press", s.since_press, table);
  f("memory", s.memory, table);
  f("came_from", s.came_from, table);
  f("tick", s.tick, body);
  f("times_put_home", s.times_put_home, body);
  f("jumped_wall", s.jumped_wall, jumps);
  f("air_jumps_used", s.air_jumps_used, jumps);
  f("flight_of", s.flight_of, jumps);
  f("first_jump_used", s.first_jump_used, jumps);
  f("jump_cut", s.jump_cut, jumps);
  f("held", s.held.bits, table);
  f("state", s.state, table);
  f("stepped", s.stepped, seen);
  f("crushed", s.crushed, seen);
  f("slides", s.slides, seen);
  f("snapped", s.snapped, seen);
  f("penetration", s.penetration, seen);
  f("pull", s.pull_C, FieldOf{StatePart::Seen, 2});
  f("hold_kind", s.hold.kind, hold);
  f("hold_piece", s.hold.piece, hold);
  f("hold_at", s.hold.at_P, FieldOf{StatePart::Hold, 2});
  f("hold_numbers", s.hold.numbers, FieldOf{StatePart::Hold, 2});
  f("hold_seconds", s.hold.seconds, hold);
  f("hold_gone", s.hold.gone, hold);
  f("zones_in", s.zones.id, zones);
  f("zones_count", s.zones.count, zones);
  f("zones_entered", s.zones.entered, zones);
  f("zones_threw", s.zones.threw, zones);
  f("zones_aimed", s.zones.aimed, zones);
  f("zones_since_throw", s.zones.since_throw, zones);
}

}  // namespace lagniappe
