// SPDX-License-Identifier: MIT
// What a game's animation needs to know of a tick.
#pragma once

#include <string_view>

#include "lagniappe/character_state.h"
#include "lagniappe/states.h"

namespace lagniappe {

// Angles in radians. Views point into the profile's table and are good as long as that is.
struct PoseFeed {
  std::string_view state;       // The state's name.
  std::string_view pose;        // The state's word for its pose.
  double time_in_state = 0.0;   // s.
  double time_on_ground = 0.0;  // s since the landing; 0 in the air.
  double speed = 0.0;           // m/s along the ground or across up, against what carries.
  double speed_ratio = 0.0;     // Of the state's full speed; above 1 where it is faster.
  double rise_speed = 0.0;      // m/s along up.
  // Legs. The phase goes on with the way, 1 / (2 stride_length) for each metre, so that a foot that bears at
  // phase 0 is half a contact in front of the hip, and none slides. The left foot touches at 0, the right at
  // 0.5.
  double stride_phase = 0.0;   // In [0, 1).
  double stride_length = 0.0;  // m from a foot's touch to its next, at this speed.
  double turn_rate = 0.0;      // rad/s of the body, positive to the left.
  double lean = 0.0;  // rad to the right of the way: by gait.lean for each m/s2 across it, at most 30 deg.
  double slope_pitch = 0.0;  // rad of the ground along the facing, uphill positive; 0 in the air.
  double slope_roll = 0.0;   // rad of the ground across it, higher on the right positive.
  double landing = 0.0;      // In the tick of a landing: how hard, 1 at gait.landing_speed and above; else 0.
  double crouch = 0.0;       // 0 standing to 1 as low as crouched goes, or lower.
  double lying = 0.0;        // 0 upright to 1 lying at full length.
  double lie_pitch = 0.0;    // rad, head up positive.
  // What is held on to, in the frame of its piece (of one that does not move: of the course).
  std::string_view hold;  // Its kind: "mantle", "vault", "hang", "climb", "descent"; empty without.
  double hold_phase =
      0.0;  // Of a mantle, from 0 to 1, at an even pace along the way; of being pulled to a rim.
  PieceId hold_piece = kNoPiece;
  Vec3 hold_rim_P = Vec3(0.0);  // Where hands take hold.
  // Hanging and climbing: unit, from the rim (across up) or the wall to the body. Hanging: unit, along the rim
  // to the right of who faces the wall; m from the body's axis to the wall at its feet, 0 where they hang free.
  Vec3 hold_away_P = Vec3(0.0), hold_along_P = Vec3(0.0);
  double hold_wall = 0.0;
  // On a ladder, else 0: m from rung to rung, and of the hands over the lowest.
  double hold_spacing = 0.0, hold_over_rung = 0.0;
  Vec3 hold_from_P = Vec3(0.0), hold_to_P = Vec3(0.0);  // Mantling: of the foot, as it began and at the end.
};

// Returns the feed of the tick of `dt` seconds that led from one state to the other.
PoseFeed pose_feed(const CharacterState& before, const CharacterState& after, const Profile& profile,
                   double dt);

}  // namespace lagniappe
