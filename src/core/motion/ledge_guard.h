// SPDX-License-Identifier: MIT
// Keeps a character from going over a rim: what its rims leave of a way along the ground.
#pragma once

#include "motion/planes.h"
#include "motion/rims.h"

namespace lagniappe {

class LedgeGuard {
 public:
  // Of a character that stands, or lies, where `state` is; borne there.
  LedgeGuard(const StepContext& context, const Body& body, const CharacterState& state);

  // What is left of a way and of a velocity, both across up.
  struct Left {
    Vec3 flat_C, velocity_C;
    double share;  // Of that way, to go at once: along a rim that bends, a short stretch.
  };
  // For a way from `foot_C`, on ground of this normal, that takes `seconds`. `walls`: what it may not go into,
  // either.
  Left keep(const Vec3& foot_C, const Vec3& flat_C, const Vec3& velocity_C, const Vec3& ground_C,
            double seconds, const Planes& walls) const;

 private:
  struct Keeping;
  void look_ahead(Keeping& keeping) const;
  enum class Ahead { Clear, Nearer, Beyond };
  Ahead look_along(const Vec3& rest_C, Keeping& keeping) const;
  Vec3 borne_along(const Rim& rim, const Vec3& way_C) const;
  double straight_share(const Rim& rim, const Vec3& way_C) const;

  const StepContext& context_;
  const Body& body_;
  Vec3 bearing_C_;               // What bears, from the foot.
  std::array<Vec3, 3> place_C_;  // What is kept from rims, from the foot: it, and the ends of one that lies.
  int places_;
};

}  // namespace lagniappe
