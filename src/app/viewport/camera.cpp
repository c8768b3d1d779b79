// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/camera.h"

#include <algorithm>

#include "lagniappe/handling.h"

namespace lagniappe::app {
namespace {

constexpr double kZoomPerNotch = 0.88;
constexpr double kGoOutTime = 0.25;   // s, time constant of going out again.
constexpr double kWidenTime = 0.25;   // s, time constant with which the field follows the speed.
constexpr double kFarthestLag = 4.0;  // m; what is further was not walked.
constexpr double kPitchLimit = radians(89.0);

Eye eye_at(const Vec3& at_C, const Quat& frame_CB, const Vec2& look) {
  const Vec3 forward = look_direction(frame_CB, look.x, look.y);
  const Vec3 right = frame_CB * Vec3(std::cos(look.x), 0.0, -std::sin(look.x));
  return {at_C, forward, cross(right, forward)};
}

}  // namespace

void Camera::zoom(double notches) {
  zoomed = std::clamp(zoomed * std::pow(kZoomPerNotch, notches), kNearest, kFarthest);
}

Eye Camera::follow(const DriveSession& session, double frame_seconds) {
  const Pose pose = session.pose();
  const Vec2 look = session.look();
  if (mode == CameraMode::ThirdPerson) return third_person(pose, look, session, frame_seconds);
  return eye_at(eyes_of(pose, session.profile().capsule), pose.frame_CB, look);
}

Eye Camera::third_person(const Pose& pose, const Vec2& look, const DriveSession& session,
                         double frame_seconds) {
  const Vec3 head = eyes_of(pose, session.profile().capsule);
  const Profile::Camera& camera = session.profile().camera;
  Eye eye = eye_at(head, pose.frame_CB, look);
  // Who is put somewhere else takes the camera along.
  const bool follows = camera.lag > 0.0 && length(followed_C_ - head) < kFarthestLag;
  followed_C_ = follows ? head + (followed_C_ - head) * std::exp(-frame_seconds / camera.lag) : head;
  const Vec3 way =
      followed_C_ - head + eye.right_C() * camera.shoulder - eye.forward_C * (camera.distance * zoomed);
  const double far = std::max(length(way), 1e-6);
  const auto hit = session.place()->world.sweep({head, head}, camera.pull_in_radius, way, session.moment());
  const double free = hit ? hit->hit.fraction * far : far;
  const double gone_out = free + (drawn_distance_ - free) * std::exp(-frame_seconds / kGoOutTime);
  drawn_distance_ = std::min(free, gone_out);
  eye.at_C = head + way * (drawn_distance_ / far);
  return eye;
}

double Camera::field(const DriveSession& session, double frame_seconds) {
  const CharacterState& state = session.current();
  const double speed = length(across(state.velocity_C - state.ground_velocity_C, state.up_C()));
  drawn_speed_ = speed + (drawn_speed_ - speed) * std::exp(-frame_seconds / kWidenTime);
  const Profile::Camera& camera = session.profile().camera;
  return mode == CameraMode::Free ? camera.field_of_view : field_of_view(camera, drawn_speed_);
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
