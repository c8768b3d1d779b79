// SPDX-License-Identifier: MIT
// Planes that bound a motion.
#pragma once

#include <array>

#include "geometry/tolerances.h"
#include "lagniappe/ledger.h"

namespace lagniappe {

// Planes met in one tick, and what they leave of a vector.
class Planes {
 public:
  // Adds a plane; one with nearly the same normal is replaced. Returns false if there is no room for more.
  bool add(const Vec3& normal_C);

  struct Clipped {
    Vec3 vector_C;
    entry::Slide::Kind kind;  // Along: nothing was in the way; Wall: one plane decided; Crease: the edge of
                              // two; Stop: nothing is left.
  };
  // Returns the nearest vector that goes into none of the planes.
  Clipped clip(const Vec3& vector_C) const;

  int count() const { return count_; }
  const Vec3& normal_C(int i) const { return normal_C_[i]; }

 private:
  std::array<Vec3, kMostPlanes> normal_C_;
  int count_ = 0;
};

}  // namespace lagniappe
