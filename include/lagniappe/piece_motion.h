// SPDX-License-Identifier: MIT
// How a piece moves: a pure function of time, given by keyed offsets and turns.
#pragma once

#include <cstdint>
#include <vector>

#include "lagniappe/rigid_pose.h"
#include "lagniappe/shapes.h"

namespace lagniappe {

struct PieceMotion {
  // How the stretch that begins at a key is passed.
  enum class Ease : std::uint8_t { Even, Smooth, Speeding, Slowing };
  enum class Path : std::uint8_t {
    Straight,  // From key to key in straight lines.
    Curved,    // Through the keys without corners (Catmull and Rom, 1974); closed where the motion loops.
  };
  enum class Repeat : std::uint8_t { Loop, BackAndForth };

  struct Key {
    double at;                // Share of the way, in [0, 1], rising from key to key; the first is at 0.
    Vec3 move_C = Vec3(0.0);  // m, added to the piece's place.
    Vec3 turn = Vec3(0.0);    // Yaw, pitch, roll in radians, added to the piece's turn; may exceed a full turn.
    Ease ease = Ease::Even;
  };

  std::vector<Key> keys;  // REQUIRES: not empty.
  double period = 1.0;    // s, > 0: of the loop, or of the way there and back.
  double phase = 0.0;     // Share of the period by which the motion is ahead at time 0.
  Repeat repeat = Repeat::Loop;
  Path path = Path::Straight;
  Vec3 pivot_P = Vec3(0.0);  // The point of the piece, in its own frame, that it turns about.

  // Where the piece rests without the motion.
  Vec3 at_C = Vec3(0.0);
  Vec3 turn = Vec3(0.0);

  // Exact at any time, negative ones too; equal times give equal bits.
  RigidPose pose_at(double time) const;
  // The derivative of pose_at(), in closed form. At a corner or a turning point: that of what comes next.
  RigidVelocity velocity_at(double time) const;
};

}  // namespace lagniappe
