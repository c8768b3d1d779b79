// SPDX-License-Identifier: GPL-3.0-or-later
// The view's camera: the one that follows the character, or a free one. No widgets, no drawing.
#pragma once

#include "lagniappe/camera.h"
#include "session/drive_session.h"

namespace lagniappe::app {

// As CameraKind, and a free one.
enum class CameraMode { FirstPerson, ThirdPerson, Chase, Carried, Overview, Top, Side, Free };

class Camera {
 public:
  CameraMode mode = CameraMode::ThirdPerson;

  // The camera that drives from here on, which begins from what is seen now.
  void change(CameraMode to);
  // Whether the stick is meant as it is seen: it is not the look that the camera goes by.
  bool steers_as_seen() const { return mode > CameraMode::ThirdPerson && mode < CameraMode::Free; }

  void zoom(double notches) { lagniappe::zoom(following_, notches); }  // Wheel: nearer for positive.
  double zoomed() const { return following_.zoomed; }

  // Goes on by a drawn frame. Free, it stays where it is.
  Eye follow(const DriveSession& session, double frame_seconds);

  // The vertical field of view, which follows the speed unless the camera is free.
  double field(const DriveSession& session) const;

  // The free camera: turned by drags, moved along its own axes.
  void place_free(const Eye& eye);
  void turn_free(const Vec2& radians);
  void move_free(const Vec3& right_up_forward);
  Eye free_eye() const;

 private:
  FollowCamera following_;
  Vec3 free_at_C_ = Vec3(0.0, 3.0, 8.0);
  double free_yaw_ = 0.0, free_pitch_ = -0.2;
};

}  // namespace lagniappe::app
