// SPDX-License-Identifier: MIT
// What is drawn of a character between two ticks.
#pragma once

#include "lagniappe/character_state.h"

namespace lagniappe {

struct Pose {
  Vec3 foot_C;  // Smoothed for the eye: with the eye offset.
  Quat frame_CB;
  double facing;
  double travelled;
  double capsule_height;
  double lie_length = 0.0, lie_pitch = 0.0;
  double stride = 0.0;  // Of two steps, in [0, 1).

  Vec3 up_C() const { return frame_CB * Vec3(0.0, 1.0, 0.0); }
};

// Returns the pose at `blend` in [0, 1] from `previous` to `current`: positions straight, angles the shorter
// way. A state that was put home in between is not blended.
Pose interpolate(const CharacterState& previous, const CharacterState& current, double blend);

// Returns where the eyes of a body in this pose are: lower with the capsule, at its front end while lying.
Vec3 eyes_of(const Pose& pose, const Values::Capsule& capsule);

// Returns the look (yaw, pitch) to draw with: the tick's look plus what was turned since, with pitch clamped.
// Aiming so has no tick lag. What a moving piece turned in the last tick is only taken as far as `blend` in [0,
// 1], as the pose is. `frame_CB` belongs to the same state.
Vec2 drawn_look(const CharacterState& current, const Vec2& turned_since, const Profile::Look& look,
                double blend = 1.0);

}  // namespace lagniappe
