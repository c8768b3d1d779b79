// SPDX-License-Identifier: MIT
// A camera that follows a character: first person, or third person with lag, shoulder, pull-in and widening, as
// a profile's `camera` says. A value that goes on once per drawn frame; all that it remembers is in it.
#pragma once

#include "lagniappe/pose.h"
#include "lagniappe/world.h"

namespace lagniappe {

// An eye in the course frame and the axes that it looks along; unit, at right angles.
struct Eye {
  Vec3 at_C, forward_C, up_C;
  Vec3 right_C() const { return cross(forward_C, up_C); }
  bool operator==(const Eye&) const = default;
};

// Returns the eye at `at_C` that looks by `look` (yaw, pitch; rad) in the frame of a body.
Eye eye_at(const Vec3& at_C, const Quat& frame_CB, const Vec2& look);

// What is followed in a drawn frame. `look`: as it is drawn, see drawn_look(). `speed`: m/s across up, against
// what is underfoot.
struct CameraSubject {
  Pose pose;
  Vec2 look;
  double speed = 0.0;
};
CameraSubject camera_subject(const CharacterState& current, const Pose& pose, const Vec2& look);

struct FollowCamera {
  static constexpr double kNearest = 0.3, kFarthest = 4.0;  // Of the profile's distance, by zooming.

  bool first_person = false;
  double zoomed = 1.0;  // The third-person distance, as a share of the profile's, in [kNearest, kFarthest].

  // As of the last frame. Valid after the first step_camera().
  Eye eye{};
  double field = 0.0;  // rad from bottom to top; follows the speed.

  // What the next frame goes on from.
  double distance = 0.0;        // m from the head to the eye.
  Vec3 followed_C = Vec3(0.0);  // The head, as the lag has it.
  double speed = 0.0;           // m/s, smoothed.
  bool begun = false;
};

// Nearer for positive notches of a wheel.
void zoom(FollowCamera& camera, double notches);

// Returns the camera `seconds` later (0: as it is now, by what is followed now). In third person the eye is
// pulled in at once by solids between it and the head, so that a ball of `pull_in_radius` around it is free
// wherever the head's is, and goes out again smoothly. Equal at any draw rate, but for the instant at which a
// solid is seen.
FollowCamera step_camera(const FollowCamera& camera, const CameraSubject& subject, const Values& values,
                         const World& world, const Moment& moment, double seconds);

}  // namespace lagniappe
