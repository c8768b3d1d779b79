// SPDX-License-Identifier: MIT
// Collide and slide: moving the capsule by a displacement, around what is in the way.
#pragma once

#include "motion/planes.h"
#include "motion/stepping.h"

namespace lagniappe {

struct Slid {
  Vec3 foot_C;
  Vec3 velocity_C;                 // What the planes left of the velocity.
  Vec3 wall_normal_C = Vec3(0.0);  // Unit, across up: the last wall slid along; zero if there was none.
  Vec3 pressed_C = Vec3(0.0);      // m, flat: what that wall took of the motion, into it.
  // In the air, unit, across up: the last that was met and is too steep to bear, a wall or an edge below one.
  Vec3 too_steep_C = Vec3(0.0);
  int slides = 0;  // Planes met.
  bool stepped = false;
  bool ceiling = false;    // Met something overhead.
  bool turned = false;     // On the ground: went on along a face that was met.
  double lifted = 0.0;     // m moved along up at once, by steps,
  double lifted_at = 0.0;  // and the share of the motion at which that was; of several the mean.
  bool stopped =
      false;  // Ended at a contact that was to stop it: its plane, and the share of the motion until then.
  Vec3 stop_normal_C = Vec3(0.0);
  double share = 1.0;

  void lift(double by, double at) {
    const double sum = lifted + by;
    if (sum != 0.0) lifted_at = (lifted * lifted_at + by * at) / sum;
    lifted = sum;
  }
};

class LedgeGuard;

struct GroundSlide {
  Vec3 known_wall_C = Vec3(0.0);      // The wall slid along before, which takes nothing but what goes into it.
  Vec3 frame_velocity_C = Vec3(0.0);  // Of the piece underfoot, which velocities are against.
  SpeedOnSlopes measure = SpeedOnSlopes::Along;  // Of the motion.
  Vec3 resting_C = Vec3(0.0);                    // Where the capsule rests.
  bool plain = false;                            // Walls take nothing but what goes into them.
  // A wall that is met after this share of the motion, and is not the known one, ends it there, with what it
  // left of the velocity. Above 1: never.
  double stop_after = 2.0;
  const LedgeGuard* guard = nullptr;  // Keeps from rims; null: none does.
  double seconds = 0.0;               // s that the motion takes, for the guard.
};

// On the ground: `flat_motion_C` and `flat_velocity_C` are across up; they are laid along `ground_normal_C` and
// along every face met that leads on, with their length kept. Faces too steep to walk are walls: what is left
// goes along the crease of wall and ground, whichever way the wall leans. At these a step up is tried first. A
// wall that is run into leaves the share of speed that the profile says; what goes along it stays. The velocity
// is returned flat.
Slid slide_on_ground(const StepContext& context, const Body& body, const Vec3& foot_C,
                     const Vec3& flat_motion_C, const Vec3& flat_velocity_C, const Vec3& ground_normal_C,
                     const GroundSlide& how);

struct AirSlide {
  double highest_step = 0.0;          // m that a fall may be lifted by; 0: no steps.
  bool skidding = false;              // Ground that is met turns the velocity without taking any.
  Vec3 frame_velocity_C = Vec3(0.0);  // As for GroundSlide.
  // What is met after this share of the motion, and bears or ends a rise or is another wall than the known one,
  // ends it there with the velocity that it had; skidding, what is walked on. Above 1: never.
  double stop_after = 2.0;
  Vec3 known_wall_C = Vec3(0.0);
};

// In the air and on what is too steep to walk: every face is what it is, but none that is too steep lifts the
// character that runs into it.
Slid slide_in_air(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& motion_C,
                  const Vec3& velocity_C, const AirSlide& how);

}  // namespace lagniappe
