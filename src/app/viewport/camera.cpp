// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/camera.h"

#include <algorithm>

#include "lagniappe/handling.h"

namespace lagniappe::app {
namespace {

constexpr double kPitchLimit = radians(89.0);
static_assert(static_cast<std::size_t>(CameraMode::Free) == kCameraNames.size());

}  // namespace

Eye Camera::follow(const DriveSession& session, double frame_seconds) {
  if (mode == CameraMode::Free || session.place() == nullptr) return free_eye();
  const auto kind = static_cast<CameraKind>(mode);
  if (following_.kind != kind) change_kind(following_, kind);
  following_ = step_camera(following_, camera_subject(session.current(), session.pose(), session.look()),
                           session.profile(), session.place()->world, session.moment(), frame_seconds);
  return following_.eye;
}

void Camera::change(CameraMode to) {
  if (to != CameraMode::Free && mode != CameraMode::Free) change_kind(following_, static_cast<CameraKind>(to));
  mode = to;
}

double Camera::field(const DriveSession& session) const {
  const bool follows = mode != CameraMode::Free && following_.begun;
  return follows ? following_.field : session.profile().camera.field_of_view;
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
