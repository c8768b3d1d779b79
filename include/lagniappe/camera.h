// SPDX-License-Identifier: MIT
// Cameras that follow a character, as a profile's `camera` says, on ground that has any up. A value that goes
// on once per drawn frame; all that it remembers is in it.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "lagniappe/input_frame.h"
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

using CameraKind = Values::Camera::Kind;
inline constexpr std::array<std::string_view, 7> kCameraNames = {"first person", "behind", "chase", "carried",
                                                                 "overview",     "top",    "side"};

struct FollowCamera {
  static constexpr double kNearest = 0.3, kFarthest = 4.0;  // Of the profile's distance, by zooming.

  CameraKind kind = CameraKind::Behind;
  double chase_time = 0.6;      // s, time constant with which the chase turns to the way.
  double tilt = radians(28.0);  // rad by which the chase and the carried one look down.
  Vec3 stands_C = Vec3(0.0);    // Where the overview is.
  double zoomed = 1.0;  // The third-person distance, as a share of the profile's, in [kNearest, kFarthest].

  // As of the last frame. Valid after the first step_camera().
  Eye eye{};
  double field = 0.0;  // rad from bottom to top; follows the speed.

  // What the next frame goes on from.
  double distance = 0.0;        // m from the head to the eye.
  Vec3 followed_C = Vec3(0.0);  // The head, as the lag has it.
  double speed = 0.0;           // m/s, smoothed.
  // What is carried: its +Y is up as it was, its -Z ahead.
  Quat carried_CF = Quat(1.0, 0.0, 0.0, 0.0);
  Vec3 foot_C = Vec3(0.0);  // As of the last frame.
  Vec3 overview_forward_C = Vec3(0.0, 0.0, -1.0), overview_up_C = Vec3(0.0, 1.0, 0.0);
  Vec3 stands_up_C = Vec3(0.0, 1.0, 0.0);
  bool begun = false;
};

// Begins a kind of camera from what is seen now: ahead of it stays ahead, and the overview stands where the eye
// is.
void change_kind(FollowCamera& camera, CameraKind kind);

// Where the stick leads that is meant as it is seen.
struct StickAxes {
  Vec3 right_C, away_C;  // Unit, across up, at right angles.
};
// The picture is laid onto the ground by the smallest rotation that turns its face, which looks back at the
// eye, to up: what is to the right stays there, what is up in it becomes away. That is sound for every eye and
// every up, rolled, level, straight from above (the top of the picture is away), and from below as long as the
// picture stands upright; straight from below its foot is away. Projecting the eye's axes fails where one of
// them is along up, a cross product with up where the eye looks along it. REQUIRES: up_C is unit.
StickAxes stick_axes(const Eye& eye, const Vec3& up_C);

// Returns the stick that, counted from the look at `yaw` in the frame of a body, leads where `stick` (right,
// forward) does as it is seen. As long as `stick`.
Vec2 stick_in_view(const Eye& eye, const Quat& frame_CB, double yaw, const Vec2& stick);
// The same of every stick of a tick.
void sticks_in_view(const Eye& eye, const Quat& frame_CB, double yaw, InputFrame& input);

// rad/s with which the picture turned from one frame to the next.
double view_turn_rate(const Eye& before, const Eye& after, double seconds);

// Nearer for positive notches of a wheel.
void zoom(FollowCamera& camera, double notches);

// Returns the camera `seconds` later (0: as it is now, by what is followed now). Where it is not the overview
// or in the head, the eye is pulled in at once by solids between it and the head, so that a ball of
// `pull_in_radius` around it is free wherever the head's is, and goes out again smoothly. Equal at any draw
// rate, but for the instant at which a solid is seen.
FollowCamera step_camera(const FollowCamera& camera, const CameraSubject& subject, const Values& values,
                         const World& world, const Moment& moment, double seconds);

}  // namespace lagniappe
