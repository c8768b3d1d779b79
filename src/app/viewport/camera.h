// SPDX-License-Identifier: GPL-3.0-or-later
// Where the eye is: first person, third person, or free. No widgets, no drawing.
#pragma once

#include "session/drive_session.h"

namespace lagniappe::app {

enum class CameraMode { FirstPerson, ThirdPerson, Free };

// An eye and the axes that it looks along; unit, at right angles.
struct Eye {
  Vec3 at_C, forward_C, up_C;
  Vec3 right_C() const { return cross(forward_C, up_C); }
};

class Camera {
 public:
  static constexpr double kNearest = 0.3, kFarthest = 4.0;  // Of the profile's distance, by the wheel.

  CameraMode mode = CameraMode::ThirdPerson;
  double zoomed = 1.0;  // The third-person distance, as a share of the profile's.

  void zoom(double notches);  // Wheel: nearer for positive.

  // Follows the character in a driven frame, as the profile's camera does. The eye is pulled in at once by
  // solids between it and the head, and goes out again smoothly, so it is never inside a wall.
  Eye follow(const DriveSession& session, double frame_seconds);

  // The vertical field of view, which follows the speed.
  double field(const DriveSession& session, double frame_seconds);

  // The free camera: turned by drags, moved along its own axes.
  void place_free(const Eye& eye);
  void turn_free(const Vec2& radians);
  void move_free(const Vec3& right_up_forward);
  Eye free_eye() const;

 private:
  Eye third_person(const Pose& pose, const Vec2& look, const DriveSession& session, double frame_seconds);

  double drawn_distance_ = 4.5;
  Vec3 followed_C_ = Vec3(0.0);  // The head, as the lag has it.
  double drawn_speed_ = 0.0;
  Vec3 free_at_C_ = Vec3(0.0, 3.0, 8.0);
  double free_yaw_ = 0.0, free_pitch_ = -0.2;
};

}  // namespace lagniappe::app
