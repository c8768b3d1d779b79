// SPDX-License-Identifier: MIT
// The one list of all that a CharacterState holds: what writes, reads and hashes states walks it.
#pragma once

#include "lagniappe/character_state.h"

namespace lagniappe {

// Calls `f(name, value)` for each.
template <typename State, typename Each>
void each_field(State& s, Each&& f) {
  f("foot", s.foot_C);
  f("velocity", s.velocity_C);
  f("acceleration", s.acceleration_C);
  f("frame", s.frame_CB);
  f("yaw", s.yaw);
  f("pitch", s.pitch);
  f("facing", s.facing);
  f("capsule_height", s.capsule_height);
  f("ground_verdict", s.ground.verdict);
  f("ground_piece", s.ground.piece);
  f("ground_normal", s.ground.normal_C);
  f("ground_point", s.ground.point_C);
  f("ground_walk", s.ground.surface.walk);
  f("ground_is_ground", s.ground.surface.ground);
  f("ground_climbable", s.ground.surface.climbable);
  f("ground_friction", s.ground.surface.friction);
  f("ground_velocity", s.ground_velocity_C);
  f("ground_trend", s.ground_trend_C);
  f("wall_normal", s.wall_normal_C);
  f("time", s.time);
  f("carried", s.carried);
  f("carried_yaw", s.carried_yaw);
  f("home_foot", s.home.foot_C);
  f("home_frame", s.home.frame_CB);
  f("home_yaw", s.home.yaw);
  f("state_time", s.state_time);
  f("since_grounded", s.since_grounded);
  f("since_jump_press", s.since_jump_press);
  f("may_jump_late", s.may_jump_late);
  f("jump_waits", s.jump_waits);
  f("run_up_speed", s.run_up_speed);
  f("gathered", s.gathered);
  f("since_push", s.since_push);
  f("travelled", s.travelled);
  f("eye_offset", s.eye_offset);
  f("lie_length", s.lie_length);
  f("lie_pitch", s.lie_pitch);
  f("stride", s.stride);
  f("ground_time", s.ground_time);
  f("since_press", s.since_press);
  f("memory", s.memory);
  f("came_from", s.came_from);
  f("tick", s.tick);
  f("times_put_home", s.times_put_home);
  f("jumped_wall", s.jumped_wall);
  f("air_jumps_used", s.air_jumps_used);
  f("flight_of", s.flight_of);
  f("first_jump_used", s.first_jump_used);
  f("jump_cut", s.jump_cut);
  f("held", s.held.bits);
  f("state", s.state);
  f("stepped", s.stepped);
  f("crushed", s.crushed);
  f("slides", s.slides);
  f("snapped", s.snapped);
  f("penetration", s.penetration);
}

}  // namespace lagniappe
