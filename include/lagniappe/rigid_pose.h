// SPDX-License-Identifier: MIT
// Where something rigid is, and how it goes.
#pragma once

#include "lagniappe/vector.h"

namespace lagniappe {

// Returns the rotation of yaw, pitch, roll in radians: roll about Z first, then pitch about X, then yaw about
// Y.
inline Quat rotation_of(const Vec3& turn) {
  return glm::angleAxis(turn.x, Vec3(0, 1, 0)) * glm::angleAxis(turn.y, Vec3(1, 0, 0)) *
         glm::angleAxis(turn.z, Vec3(0, 0, 1));
}

// Where a rigid piece is: p_C = position_C + rotation_CP * p_P.
struct RigidPose {
  Vec3 position_C = Vec3(0.0);
  Quat rotation_CP = Quat(1.0, 0.0, 0.0, 0.0);

  Vec3 point(const Vec3& p_P) const { return position_C + rotation_CP * p_P; }
  Vec3 back(const Vec3& p_C) const { return glm::conjugate(rotation_CP) * (p_C - position_C); }
};

struct RigidVelocity {
  Vec3 linear_C = Vec3(0.0);   // m/s, of the point at `origin_C`.
  Vec3 angular_C = Vec3(0.0);  // rad/s.
  Vec3 origin_C = Vec3(0.0);

  Vec3 at(const Vec3& p_C) const { return linear_C + cross(angular_C, p_C - origin_C); }
};

}  // namespace lagniappe
