// SPDX-License-Identifier: MIT
// The recipes' own stages: each a small function, as it is commonly written.
#pragma once

#include "recipes/plain_walker.h"

namespace lagniappe::stage {

// Speed.
Vec3 added_per_frame(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame);
Vec3 diagonals_not_limited(const PlainBody& body, const PlainFrame& frame);
void two_moves(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame);
double position_first(PlainBody& body, const PlainFrame& frame);
double velocity_first(PlainBody& body, const PlainFrame& frame);
double half_step(PlainBody& body, const PlainFrame& frame);
// Friction.
Vec3 friction_per_frame(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame);
Vec3 friction_times_dt(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame);
void projected_on_slope(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame);
// Smoothing.
Vec3 blend_fixed(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame);
Vec3 blend_times_dt(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame);
void body_smoothed(PlainBody& body, const PlainFrame& frame);
// Ground.
double push_as_speed(PlainBody& body, const PlainFrame& frame);
double gravity_kept(PlainBody& body, const PlainFrame& frame);
void ground_without_snap(PlainBody& body, const PlainFrame& frame);
void ground_only_told(PlainBody& body, const PlainFrame& frame);
void ground_in_another_loop(PlainBody& body, const PlainFrame& frame);
void move_freely(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame);
// Jump.
void jump_while_held(PlainBody& body, const PlainFrame& frame);
void rise_not_cleared(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame);
void late_without_conditions(PlainBody& body, const PlainFrame& frame);
// Look and stance.
void mouse_times_dt(PlainBody& body, const PlainFrame& frame);
void stand_up_blindly(PlainBody& body, const PlainFrame& frame);

}  // namespace lagniappe::stage
