// SPDX-License-Identifier: MIT
// Collide and slide: moving the capsule by a displacement, around what is in the way.
#pragma once

#include <array>

#include "motion/context.h"

namespace lagniappe {

// Planes met in one tick, and what they leave of a vector.
class Planes {
 public:
  // Adds a plane unless one with nearly the same normal is known. Returns false if there is no room for more.
  bool add(const Vec3& normal_C);

  struct Clipped {
    Vec3 vector_C;
    entry::Slide::Kind kind;  // Wall: one plane decided; Crease: the edge of two; Stop: nothing is left.
  };
  // Returns the nearest vector that goes into none of the planes.
  Clipped clip(const Vec3& vector_C) const;

  int count() const { return count_; }

 private:
  std::array<Vec3, kMostPlanes> normal_C_;
  int count_ = 0;
};

struct Slid {
  Vec3 foot_C;
  Vec3 velocity_C;  // What the planes left of the velocity.
  int slides = 0;   // Planes met.
  bool stepped = false;
  double lifted = 0.0;  // m moved along up at once, by steps.
};

// On the ground: `flat_motion_C` and `flat_velocity_C` are across up; they are laid along `ground_normal_C` and
// along every walkable face met, with their length kept. Faces too steep to walk act as vertical walls; at
// these a step up is tried first. The velocity is returned flat.
Slid slide_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C,
                     const Vec3& flat_motion_C, const Vec3& flat_velocity_C, const Vec3& ground_normal_C);

// In the air: every face is what it is.
Slid slide_in_air(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& motion_C,
                  const Vec3& velocity_C);

}  // namespace lagniappe
