// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/camera.h"

#include <algorithm>

namespace lagniappe::app {
namespace {

constexpr double kZoomPerNotch = 0.88;
constexpr double kGoOutTime = 0.25;  // s, time constant of going out again.
constexpr double kPitchLimit = radians(89.0);

Eye eye_at(const Vec3& at_C, const Quat& frame_CB, const Vec2& look) {
  const Vec3 forward = look_direction(frame_CB, look.x, look.y);
  const Vec3 right = frame_CB * Vec3(std::cos(look.x), 0.0, -std::sin(look.x));
  return {at_C, forward, cross(right, forward)};
}

}  // namespace

void Camera::zoom(double notches) {
  distance = std::clamp(distance * std::pow(kZoomPerNotch, notches), kNearest, kFarthest);
}

Eye Camera::follow(const DriveSession& session, double frame_seconds) {
  const Pose pose = session.pose();
  const Vec2 look = session.look();
  if (mode == CameraMode::ThirdPerson) return third_person(pose, look, session, frame_seconds);
  return eye_at(pose.foot_C + pose.up_C() * session.profile().capsule.eye_height, pose.frame_CB, look);
}

Eye Camera::third_person(const Pose& pose, const Vec2& look, const DriveSession& session,
                         double frame_seconds) {
  const Vec3 head = pose.foot_C + pose.up_C() * session.profile().capsule.eye_height;
  Eye eye = eye_at(head, pose.frame_CB, look);
  const Vec3 back = -eye.forward_C * distance;
  const auto hit = session.place()->world.sweep({head, head}, kEyeBall, back, session.moment());
  const double free = hit ? hit->hit.fraction * distance : distance;
  const double gone_out = free + (drawn_distance_ - free) * std::exp(-frame_seconds / kGoOutTime);
  drawn_distance_ = std::min(free, gone_out);
  eye.at_C = head - eye.forward_C * drawn_distance_;
  return eye;
}

void Camera::place_free(const Eye& eye) {
  free_at_C_ = eye.at_C;
  free_yaw_ = std::atan2(-eye.forward_C.x, -eye.forward_C.z);
  free_pitch_ = std::asin(std::clamp(eye.forward_C.y, -1.0, 1.0));
}

void Camera::turn_free(const Vec2& turned) {
  free_yaw_ = wrap_angle(free_yaw_ + turned.x);
  free_pitch_ = std::clamp(free_pitch_ + turned.y, -kPitchLimit, kPitchLimit);
}

void Camera::move_free(const Vec3& m) {
  const Eye eye = free_eye();
  free_at_C_ += eye.right_C() * m.x + Vec3(0.0, m.y, 0.0) + eye.forward_C * m.z;
}

Eye Camera::free_eye() const { return eye_at(free_at_C_, Quat(1, 0, 0, 0), {free_yaw_, free_pitch_}); }

}  // namespace lagniappe::app
