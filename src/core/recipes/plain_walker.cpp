// SPDX-License-Identifier: MIT
#include "recipes/plain_walker.h"

#include <algorithm>
#include <cmath>

#include "math/integrators.h"
#include "world/overlap.h"

namespace lagniappe {
namespace {

constexpr double kSkin = 1e-3;  // m kept from what is met.
constexpr int kSlides = 4;
constexpr double kFoundWithin = 0.02;  // m below a falling foot.

Moment now(const PlainBody& body) {
  Moment moment;
  moment.time = body.time;
  return moment;
}

bool walkable(const Vec3& normal_C, const PlainBody& body, const Profile& profile) {
  return dot(normal_C, body.up_C) >= std::cos(profile.ground.steepest_walkable);
}

// Of the face on which the foot is: on an edge that of the face just beyond it.
Vec3 bearing_normal(const PlainBody& body, const WorldHit& hit, const World& world) {
  constexpr double kInward = 0.02, kAbove = 0.1;  // m.
  const Vec3 from_C = hit.hit.point_C - across(hit.hit.normal_C, body.up_C) * kInward + body.up_C * kAbove;
  const auto below = world.cast_ray(from_C, -body.up_C * (2.0 * kAbove), now(body));
  return below ? below->hit.normal_C : hit.face_normal_C;
}

void look(PlainBody& body, const PlainFrame& frame) {
  if (frame.input.look) body.yaw = frame.input.look->x;
  body.yaw = wrap_angle(body.yaw + frame.input.look_delta.x + frame.input.turn_rate.x * frame.dt);
}

Vec3 goal(const PlainBody& body, const PlainFrame& frame) {
  const Vec2 stick = shaped_stick(frame.input.move, frame.profile.look.dead_zone);
  return limited_goal(body, stick, frame.profile, frame.input.held.has(Action::Sprint));
}

Vec3 run(PlainBody& body, const Vec3& goal_C, const PlainFrame& frame) {
  const double time = body.grounded ? frame.profile.ground.response.time : frame.profile.air.response.time;
  const Moved moved = approach_exponential(body.run_C, goal_C, time, frame.dt);
  body.run_C = moved.velocity;
  return moved.displacement;
}

void jump(PlainBody& body, const PlainFrame& frame) {
  const bool late = body.off_ground <= frame.profile.jump.coyote_time && !body.jumped;
  if (!frame.input.pressed.has(Action::Jump) || !(body.grounded || late)) return;
  body.rise = take_off_speed(frame.profile);
  body.grounded = false;
  body.jumped = true;
}

double fall(PlainBody& body, const PlainFrame& frame) {
  if (body.grounded) return body.rise = 0.0;
  const double before = body.rise, g = frame.profile.gravity;
  const double until = std::clamp((before + frame.profile.terminal_speed) / g, 0.0, frame.dt);
  body.rise = std::max(before - g * frame.dt, -frame.profile.terminal_speed);
  return before * until - 0.5 * g * until * until - frame.profile.terminal_speed * (frame.dt - until);
}

// Over a step, if that gets further than sliding along it.
void step_up(PlainBody& body, const Vec3& way_C, const PlainFrame& frame) {
  PlainBody other = body;
  slide(other, body.up_C * frame.profile.ground.highest_step, frame);
  slide(other, way_C, frame);
  stand_on(other, frame.profile.ground.highest_step + kSkin, frame);
  PlainBody along = body;
  slide(along, way_C, frame);
  const auto gone = [&](const PlainBody& b) { return dot(b.foot_C - body.foot_C, way_C); };
  if (other.grounded && gone(other) > gone(along) + 1e-6) {
    body.foot_C = other.foot_C;
  } else {
    body.foot_C = along.foot_C;
  }
}

void move(PlainBody& body, const Vec3& way_C, double up, const PlainFrame& frame) {
  Vec3 along_C = way_C;
  if (body.grounded) {
    // Along the ground, as long as before.
    const Vec3 on_C = along_C - body.normal_C * dot(along_C, body.normal_C);
    along_C = unit_or(on_C, Vec3(0.0)) * length(along_C);
    step_up(body, along_C, frame);
    return;
  }
  if (slide(body, along_C + body.up_C * up, frame)) body.rise = std::min(body.rise, 0.0);
}

void ground(PlainBody& body, const PlainFrame& frame) {
  if (body.rise > 0.0) {
    body.grounded = false;
  } else {
    stand_on(body, body.grounded ? frame.profile.ground.snap_distance : kFoundWithin, frame);
  }
}

void stance(PlainBody& body, const PlainFrame& frame) {
  if (frame.input.held.has(Action::Crouch)) {
    body.height = frame.profile.stances.crouched_height;
    return;
  }
  PlainBody stands = body;
  stands.height = frame.profile.capsule.height;
  if (overlap(stands, frame.profile, frame.world) <= kSkin) body.height = stands.height;
}

}  // namespace

const PlainStages kPlain = {look, goal, run, jump, fall, move, ground, stance};

void advance(PlainBody& body, const PlainStages& stages, const PlainFrame& frame) {
  stages.look(body, frame);
  stages.stance(body, frame);
  const Vec3 goal_C = stages.goal(body, frame);
  stages.jump(body, frame);
  const Vec3 way_C = stages.run(body, goal_C, frame);
  const double up = stages.fall(body, frame);
  stages.move(body, way_C, up, frame);
  body.time += frame.dt;
  stages.ground(body, frame);
  body.off_ground = body.grounded ? 0.0 : body.off_ground + frame.dt;
  if (body.grounded) body.jumped = false;
}

Segment axis_of(const PlainBody& body, const Profile& profile) {
  return capsule_axis(body.foot_C, body.up_C, profile.capsule.radius, body.height);
}

Vec3 limited_goal(const PlainBody& body, const Vec2& stick, const Profile& profile, bool sprints) {
  const Vec3 ahead = look_direction(body.frame_CB, body.yaw, 0.0), right = cross(ahead, body.up_C);
  const double speed = sprints ? profile.ground.sprint_speed : profile.ground.speed;
  return (right * stick.x + ahead * stick.y) * speed;
}

double take_off_speed(const Profile& profile) { return std::sqrt(2.0 * profile.gravity * profile.jump.height); }

bool slide(PlainBody& body, const Vec3& way_C, const PlainFrame& frame) {
  Vec3 rest_C = way_C;
  bool above = false;
  for (int i = 0; i < kSlides; ++i) {
    const double far = length(rest_C);
    if (far < 1e-9) break;
    const auto hit =
        frame.world.sweep(axis_of(body, frame.profile), frame.profile.capsule.radius, rest_C, now(body));
    if (!hit) {
      body.foot_C += rest_C;
      break;
    }
    const double gone = std::max(hit->hit.fraction * far - kSkin, 0.0);
    body.foot_C += rest_C * (gone / far);
    const Vec3 left_C = rest_C * (1.0 - gone / far), normal_C = hit->hit.normal_C;
    above = above || dot(normal_C, body.up_C) < -0.5;
    rest_C = left_C - normal_C * std::min(dot(left_C, normal_C), 0.0);
  }
  return above;
}

void stand_on(PlainBody& body, double reach, const PlainFrame& frame, bool follows) {
  const Vec3 down_C = -body.up_C * (reach + kSkin);
  const auto hit =
      frame.world.sweep(axis_of(body, frame.profile), frame.profile.capsule.radius, down_C, now(body));
  const Vec3 normal_C = hit ? bearing_normal(body, *hit, frame.world) : body.up_C;
  body.grounded = hit && walkable(normal_C, body, frame.profile);
  if (!body.grounded) return;
  body.normal_C = normal_C;
  body.rise = 0.0;
  if (follows) body.foot_C += down_C * hit->hit.fraction + body.up_C * kSkin;
}

double overlap(const PlainBody& body, const Profile& profile, const World& world) {
  return deepest_overlap(world, axis_of(body, profile), profile.capsule.radius, body.time);
}

}  // namespace lagniappe
