// SPDX-License-Identifier: MIT
// Turns the uneven time of drawn frames into even ticks, and says how far between two ticks a frame is drawn.
#pragma once

#include <cstdint>

#include "lagniappe/character_state.h"

namespace lagniappe {

inline constexpr int kLowestTickRate = 10;
inline constexpr int kHighestTickRate = 480;

class FixedStepClock {
 public:
  // `longest_catch_up`: seconds of frame time that are made up for at most; what is beyond is dropped and
  // counted, so that one long hitch does not become a spiral of ever longer frames. REQUIRES: kLowestTickRate
  // <= tick_rate <= kHighestTickRate.
  explicit FixedStepClock(int tick_rate, double longest_catch_up = 0.25);

  // Adds the time of a drawn frame; returns how many ticks are due. Negative and non-finite times count as 0.
  int advance(double frame_seconds);

  // Changes the rate; the share of a tick already waited for is kept.
  void set_tick_rate(int tick_rate);

  void clear();  // Forgets waiting time and dropped time.

  int tick_rate() const { return tick_rate_; }
  double tick_seconds() const { return 1.0 / tick_rate_; }
  double blend() const {
    return waiting_ * tick_rate_;
  }  // In [0, 1): how far the drawn moment is past the last tick.
  double waiting_seconds() const { return waiting_; }
  double dropped_seconds() const { return dropped_; }

 private:
  int tick_rate_;
  double longest_catch_up_;
  double waiting_ = 0.0;  // In [0, 1 / tick_rate).
  double dropped_ = 0.0;
};

// What is drawn of a character between two ticks.
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
