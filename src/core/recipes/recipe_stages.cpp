// SPDX-License-Identifier: MIT
#include "recipes/recipe_stages.h"

#include <algorithm>
#include <cmath>

#include "math/integrators.h"

namespace lagniappe::stage {
namespace {

constexpr double kTuned = 60.0;      // Frames a second of the machine on which a number was found by trying.
constexpr double kBlend = 0.10;      // Of the way to the goal, per frame or for 1 / (10 dt).
constexpr double kQuickStop = 40.0;  // 1/s.
constexpr double kPush = 2.0;        // m/s, down onto the ground.
constexpr double kAskedEvery = 1.0 / 60.0;  // s, in the loop that asks for ground.
constexpr double kReach = 0.02;             // m below the foot at which ground is seen.

Vec3 towards(const Vec3& from, const Vec3& to, double by) {
  const Vec3 way = to - from;
  return length(way) <= by ? to : from + glm::normalize(way) * by;
}

bool pressed_on_ground(const PlainBody& body, const PlainFrame& frame) {
  return frame.input.pressed.has(Action::Jump) && body.grounded;
}

void take_off(PlainBody& body, const PlainFrame& frame) {
  body.rise = take_off_speed(frame.profile);
  body.grounded = false;
  body.jumped = true;
}

}  // namespace

// v += a;
Vec3 added_per_frame(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame) {
  const double per_frame = frame.profile.ground.speed / (4.0 * frame.profile.ground.response.time) / kTuned;
  body.run_C = towards(body.run_C, goal_C, per_frame);
  return body.run_C * frame.dt;
}

// goal = (right * x + ahead * y) * speed;
Vec3 diagonals_not_limited(const PlainBody& body, const PlainFrame& frame) {
  return limited_goal(body, frame.input.move, frame.profile, frame.input.held.has(Action::Sprint));
}

// move(v * dt); move(down * dt);
void two_moves(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame) {
  slide(body, way_C, frame);
  const double down = body.grounded ? -kPush * frame.dt : up;
  if (slide(body, body.up_C * down, frame)) body.rise = std::min(body.rise, 0.0);
}

// y += v * dt; v -= g * dt;
double position_first(PlainBody& body, const PlainFrame& frame) {
  if (body.grounded) return body.rise = 0.0;
  const double way = body.rise * frame.dt;
  body.rise = std::max(body.rise - frame.profile.gravity * frame.dt, -frame.profile.terminal_speed);
  return way;
}

// v -= g * dt; y += v * dt;
double velocity_first(PlainBody& body, const PlainFrame& frame) {
  if (body.grounded) return body.rise = 0.0;
  body.rise = std::max(body.rise - frame.profile.gravity * frame.dt, -frame.profile.terminal_speed);
  return body.rise * frame.dt;
}

// y += v * dt - 0.5 * g * dt * dt; v = max(v - g * dt, -terminal);
double half_step(PlainBody& body, const PlainFrame& frame) {
  if (body.grounded) return body.rise = 0.0;
  const double way = body.rise * frame.dt - 0.5 * frame.profile.gravity * frame.dt * frame.dt;
  body.rise = std::max(body.rise - frame.profile.gravity * frame.dt, -frame.profile.terminal_speed);
  return way;
}

// v -= v * 0.1;
Vec3 friction_per_frame(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame) {
  body.run_C = goal_C == Vec3(0.0) ? body.run_C - body.run_C * kBlend : goal_C;
  return body.run_C * frame.dt;
}

// v -= v * mu * dt;
Vec3 friction_times_dt(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame) {
  body.run_C = goal_C == Vec3(0.0) ? body.run_C - body.run_C * (kQuickStop * frame.dt) : goal_C;
  return body.run_C * frame.dt;
}

// way -= n * dot(way, n);
void projected_on_slope(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame) {
  if (!body.grounded) return kPlain.move(body, way_C, up, frame);
  slide(body, way_C - body.normal_C * dot(way_C, body.normal_C), frame);
}

// v += (goal - v) * 0.1;
Vec3 blend_fixed(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame) {
  body.run_C += (goal_C - body.run_C) * kBlend;
  return body.run_C * frame.dt;
}

// v += (goal - v) * 10 * dt;
Vec3 blend_times_dt(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame) {
  body.run_C += (goal_C - body.run_C) * (frame.dt / kBlend);
  return body.run_C * frame.dt;
}

// y += (foot - y) * (1 - exp(-dt / 0.1));
void body_smoothed(PlainBody& body, const PlainFrame& frame) {
  constexpr double kEvenOut = 0.1;  // s.
  body.foot_C += body.up_C * body.behind;
  kPlain.ground(body, frame);
  const double foot = dot(body.foot_C, body.up_C);
  if (body.grounded && body.followed) {
    const double highest = frame.profile.ground.highest_step;
    body.behind = std::clamp(body.behind + foot - *body.followed, -highest, highest);
  } else {
    body.behind = 0.0;
  }
  body.behind *= decay_share(kEvenOut, frame.dt);
  body.followed = foot;
  body.foot_C -= body.up_C * body.behind;
}

// y += -2 * dt;
double push_as_speed(PlainBody& body, const PlainFrame& frame) {
  if (!body.grounded) return kPlain.fall(body, frame);
  body.rise = 0.0;
  return -kPush * frame.dt;
}

// v -= g * dt;   whether it stands or not
double gravity_kept(PlainBody& body, const PlainFrame& frame) {
  const double before = body.rise;
  body.rise = std::max(before - frame.profile.gravity * frame.dt, -frame.profile.terminal_speed);
  return 0.5 * (before + body.rise) * frame.dt;
}

// grounded = ray(foot, down * 0.02);
void ground_without_snap(PlainBody& body, const PlainFrame& frame) {
  if (body.rise > 0.0) {
    body.grounded = false;
  } else {
    stand_on(body, kReach, frame, false);
  }
}

// The same, and nothing is done about v.
void ground_only_told(PlainBody& body, const PlainFrame& frame) {
  const double rise = body.rise;
  ground_without_snap(body, frame);
  body.rise = rise;
}

// One loop: grounded = ray(...);  another: if (grounded) v.y = 0;
void ground_in_another_loop(PlainBody& body, const PlainFrame& frame) {
  PlainBody asked = body;
  asked.rise = 0.0;
  stand_on(asked, kReach, frame);
  if (body.asked_at < 0.0 || body.time >= body.asked_at + kAskedEvery - 1e-9) {
    body.asked_at = body.time;
    body.was_grounded = asked.grounded;
  }
  body.grounded = body.was_grounded;
  if (body.grounded) body.rise = 0.0;
  if (body.grounded && asked.grounded) body.foot_C = asked.foot_C;
}

void move_freely(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame) {
  if (slide(body, way_C + body.up_C * up, frame)) body.rise = std::min(body.rise, 0.0);
}

// if (held(jump) && grounded) v.y = jump;
void jump_while_held(PlainBody& body, const PlainFrame& frame) {
  if (frame.input.held.has(Action::Jump) && body.grounded) take_off(body, frame);
}

// move(v * dt);   and v.y goes on
void rise_not_cleared(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame) {
  const double rise = body.rise;
  kPlain.move(body, way_C, up, frame);
  if (!body.grounded) body.rise = rise;
}

// if (pressed(jump) && since_ground < 0.12) v.y = jump;
void late_without_conditions(PlainBody& body, const PlainFrame& frame) {
  const bool late = frame.input.pressed.has(Action::Jump) && body.off_ground < frame.profile.jump.coyote_time;
  if (pressed_on_ground(body, frame) || late) take_off(body, frame);
}

// yaw += mouse * sensitivity * dt;
void mouse_times_dt(PlainBody& body, const PlainFrame& frame) {
  if (frame.input.look) body.yaw = frame.input.look->x;
  const double hand = frame.input.look_delta.x + frame.input.turn_rate.x * frame.dt;
  body.yaw = wrap_angle(body.yaw + hand * kTuned * frame.dt);
}

// height = held(crouch) ? 1.1 : 1.8;
void stand_up_blindly(PlainBody& body, const PlainFrame& frame) {
  body.height = frame.input.held.has(Action::Crouch) ? frame.profile.stances.crouched_height
                                                     : frame.profile.capsule.height;
}

}  // namespace lagniappe::stage
