// SPDX-License-Identifier: MIT
#include "lagniappe/camera.h"

#include <algorithm>

#include "lagniappe/handling.h"

namespace lagniappe {
namespace {

constexpr double kZoomPerNotch = 0.88;
constexpr double kGoOutTime = 0.25;   // s, time constant of going out again.
constexpr double kWidenTime = 0.25;   // s, time constant with which the field follows the speed.
constexpr double kFarthestLag = 4.0;  // m; what is further was not walked.

// Behind the head, as far as there is room.
void follow_behind(FollowCamera& camera, const Vec3& head_C, const Values& values, const World& world,
                   const Moment& moment, double seconds) {
  const Values::Camera& how = values.camera;
  // Who is put somewhere else takes the camera along.
  const bool follows = camera.begun && how.lag > 0.0 && length(camera.followed_C - head_C) < kFarthestLag;
  camera.followed_C = follows ? head_C + (camera.followed_C - head_C) * std::exp(-seconds / how.lag) : head_C;
  const Vec3 way = camera.followed_C - head_C + camera.eye.right_C() * how.shoulder -
                   camera.eye.forward_C * (how.distance * camera.zoomed);
  const double far = std::max(length(way), 1e-6);
  const auto hit = world.sweep({head_C, head_C}, how.pull_in_radius, way, moment);
  const double free = hit ? hit->hit.fraction * far : far;
  const double before = camera.begun ? camera.distance : free;
  camera.distance = std::min(free, free + (before - free) * std::exp(-seconds / kGoOutTime));
  camera.eye.at_C = head_C + way * (camera.distance / far);
}

}  // namespace

Eye eye_at(const Vec3& at_C, const Quat& frame_CB, const Vec2& look) {
  const Vec3 forward = look_direction(frame_CB, look.x, look.y);
  const Vec3 right = frame_CB * Vec3(std::cos(look.x), 0.0, -std::sin(look.x));
  return {at_C, forward, cross(right, forward)};
}

CameraSubject camera_subject(const CharacterState& current, const Pose& pose, const Vec2& look) {
  return {pose, look, length(across(current.velocity_C - current.ground_velocity_C, current.up_C()))};
}

void zoom(FollowCamera& camera, double notches) {
  camera.zoomed = std::clamp(camera.zoomed * std::pow(kZoomPerNotch, notches), FollowCamera::kNearest,
                             FollowCamera::kFarthest);
}

FollowCamera step_camera(const FollowCamera& camera, const CameraSubject& subject, const Values& values,
                         const World& world, const Moment& moment, double seconds) {
  FollowCamera next = camera;
  const double before = camera.begun ? camera.speed : subject.speed;
  next.speed = subject.speed + (before - subject.speed) * std::exp(-seconds / kWidenTime);
  next.field = field_of_view(values.camera, next.speed);
  const Vec3 head = eyes_of(subject.pose, values.capsule);
  next.eye = eye_at(head, subject.pose.frame_CB, subject.look);
  if (!next.first_person) follow_behind(next, head, values, world, moment, seconds);
  next.begun = true;
  return next;
}

}  // namespace lagniappe
