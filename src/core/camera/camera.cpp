// SPDX-License-Identifier: MIT
#include "lagniappe/camera.h"

#include <algorithm>

#include "lagniappe/handling.h"
#include "lagniappe/turns.h"

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
  const double shoulder = camera.kind == CameraKind::Behind ? how.shoulder : 0.0;
  const Vec3 way = camera.followed_C - head_C + camera.eye.right_C() * shoulder -
                   camera.eye.forward_C * (how.distance * camera.zoomed);
  const double far = std::max(length(way), 1e-6);
  const auto hit = world.sweep({head_C, head_C}, how.pull_in_radius, way, moment);
  const double free = hit ? hit->hit.fraction * far : far;
  const double before = camera.begun ? camera.distance : free;
  camera.distance = std::min(free, free + (before - free) * std::exp(-seconds / kGoOutTime));
  camera.eye.at_C = head_C + way * (camera.distance / far);
}

const Vec3 kUp(0.0, 1.0, 0.0), kAhead(0.0, 0.0, -1.0);
constexpr double kTravels = 0.3;      // m/s from which there is a way to trail.
constexpr double kFarthestWay = 2.0;  // m a frame; what is further was not walked.

Vec3 up_of(const Quat& frame) { return frame * kUp; }

// With up by the smallest rotation, which is exactly undone by the same way back; the chase turns to the way.
void carry(FollowCamera& camera, const CameraSubject& subject, double seconds) {
  const Vec3 up = up_of(subject.pose.frame_CB);
  if (!camera.begun) {
    camera.carried_CF = subject.pose.frame_CB * glm::angleAxis(subject.look.x, kUp);
    return;
  }
  camera.carried_CF = glm::normalize(smallest_turn(up_of(camera.carried_CF), up) * camera.carried_CF);
  if (camera.kind != CameraKind::Chase || seconds <= 0.0) return;
  const Vec3 way = across(subject.pose.foot_C - camera.foot_C, up);
  const double gone = length(way);
  if (gone < kTravels * seconds || gone > kFarthestWay) return;
  const Vec3 ahead = camera.carried_CF * kAhead;
  const double off = std::atan2(dot(cross(ahead, way), up), dot(ahead, way));
  const double turned = off * (1.0 - std::exp(-seconds / camera.chase_time));
  camera.carried_CF = glm::normalize(glm::angleAxis(turned, up) * camera.carried_CF);
}

Eye looking(const Vec3& at_C, const Vec3& forward_C, const Vec3& towards_up_C) {
  return {at_C, forward_C, unit_or(across(towards_up_C, forward_C), axis_between(forward_C, forward_C))};
}

void look_by_kind(FollowCamera& camera, const CameraSubject& subject, const Vec3& head_C, bool overview_turns) {
  const Quat& frame = camera.carried_CF;
  switch (camera.kind) {
    case CameraKind::FirstPerson:
    case CameraKind::Behind:
      return;
    case CameraKind::Chase:
    case CameraKind::Carried:
      camera.eye = eye_at(head_C, frame, {0.0, -camera.tilt});
      return;
    case CameraKind::Top:
      camera.eye = {head_C, -up_of(frame), frame * kAhead};
      return;
    case CameraKind::Side:
      camera.eye = {head_C, frame * Vec3(-1.0, 0.0, 0.0), up_of(frame)};
      return;
    case CameraKind::Overview:
      break;
  }
  const Vec3 to = head_C - camera.stands_C;
  const bool turns = overview_turns || !camera.begun;
  const Vec3 forward = turns && length(to) > 1e-6 ? glm::normalize(to) : camera.overview_forward_C;
  camera.overview_forward_C = forward;
  // Its picture stands upright as it was placed; straight over or under it, it goes on as it was.
  constexpr double kPole = 0.02;
  if (!camera.begun) camera.stands_up_C = camera.overview_up_C = up_of(subject.pose.frame_CB);
  const bool at_pole = length(across(camera.stands_up_C, forward)) < kPole;
  camera.eye = looking(camera.stands_C, forward, at_pole ? camera.overview_up_C : camera.stands_up_C);
  camera.overview_up_C = camera.eye.up_C;
}

}  // namespace

void change_kind(FollowCamera& camera, CameraKind kind) {
  if (camera.begun) {
    const Vec3 up = up_of(camera.carried_CF);
    const StickAxes seen = stick_axes(camera.eye, up);
    const Vec3 ahead = camera.carried_CF * kAhead;
    const double off = std::atan2(dot(cross(ahead, seen.away_C), up), dot(ahead, seen.away_C));
    camera.carried_CF = glm::normalize(glm::angleAxis(off, up) * camera.carried_CF);
    camera.stands_C = camera.eye.at_C;
    camera.overview_forward_C = camera.eye.forward_C;
    camera.overview_up_C = camera.eye.up_C;
    camera.stands_up_C = up;
  }
  camera.kind = kind;
}

StickAxes stick_axes(const Eye& eye, const Vec3& up_C) {
  constexpr double kPole = 1e-9;
  const Vec3 face = -eye.forward_C, right = eye.right_C();
  const bool from_below = dot(face, up_C) < 0.0 && length(cross(face, up_C)) < kPole;
  const Quat laid = from_below ? glm::angleAxis(kPi, right) : smallest_turn(face, up_C);
  const Vec3 aside = across(laid * right, up_C);
  const Vec3 on_ground = unit_or(aside, axis_between(up_C, up_C));
  return {on_ground, cross(up_C, on_ground)};
}

Vec2 stick_in_view(const Eye& eye, const Quat& frame_CB, double yaw, const Vec2& stick) {
  const Quat look = frame_CB * glm::angleAxis(yaw, kUp);
  const StickAxes axes = stick_axes(eye, up_of(frame_CB));
  const Vec3 wanted = glm::conjugate(look) * (axes.right_C * stick.x + axes.away_C * stick.y);
  return {wanted.x, -wanted.z};
}

void sticks_in_view(const Eye& eye, const Quat& frame_CB, double yaw, InputFrame& input) {
  input.move = stick_in_view(eye, frame_CB, yaw, input.move);
  for (SticksUntil& sticks : input.earlier) sticks.move = stick_in_view(eye, frame_CB, yaw, sticks.move);
}

double view_turn_rate(const Eye& before, const Eye& after, double seconds) {
  if (seconds <= 0.0) return 0.0;
  const auto frame = [](const Eye& eye) {
    return glm::quat_cast(glm::dmat3(eye.right_C(), eye.up_C, -eye.forward_C));
  };
  const Quat turned = frame(after) * glm::conjugate(frame(before));
  return 2.0 * std::atan2(length(Vec3(turned.x, turned.y, turned.z)), std::abs(turned.w)) / seconds;
}

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
  carry(next, subject, seconds);
  look_by_kind(next, subject, head, values.camera.overview_turns);
  if (next.kind != CameraKind::FirstPerson && next.kind != CameraKind::Overview)
    follow_behind(next, head, values, world, moment, seconds);
  next.foot_C = subject.pose.foot_C;
  next.begun = true;
  return next;
}

}  // namespace lagniappe
