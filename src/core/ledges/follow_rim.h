// SPDX-License-Identifier: MIT
// Along a rim, hanging from it: over seams and from piece to piece, past gaps narrower than the hands, round
// outer and inner corners.
#pragma once

#include "lagniappe/ledge.h"

namespace lagniappe {

// How a body hangs.
struct HangShape {
  Vec3 up_C;              // Unit.
  double radius = 0.3;    // m, of the capsule.
  double height = 1.8;    // m, of the capsule.
  double margin = 5e-4;   // m of overlap that counts as none.
  double hands = 1.95;    // m of the rim over the foot.
  double gap = 0.02;      // m between the body's skin and the upright plane of the wall, at least.
  double between = 0.44;  // m between the hands: wider gaps end a rim.
  double shortest_shelf = 0.1;
  double steepest_shelf = radians(40.0);
  double most_over = radians(60.0);
  Moment moment = {};

  // rad that a wall leans back at most: it keeps the body away from its rim, and arms are so many m long.
  double most_back() const {
    constexpr double kArms = 0.35;
    return std::atan2(kArms, hands - radius);
  }
};

// Where it hangs, in the course frame at the moment.
struct RimGrip {
  Vec3 rim_C;     // Of the rim, before the middle of the body.
  Vec3 normal_C;  // Unit, across up: from there to the body. Of the wall, or of the turn round a corner so far.
  Vec3 along_C;   // Unit, along the rim: to the right of who faces the wall.
  double away;    // m across up from the rim to the body's axis.
  PieceId piece = kNoPiece;
  // Round a corner: rad to be turned until the rim goes on to the left and to the right; 0: it is on a straight
  // one. At an inner corner the body turns where it is, at an outer one about the rim's point.
  double turn_left = 0.0, turn_right = 0.0;
  bool inner = false;
  // Between two hands' holds: m along the rim to where it goes on to the left and to the right; 0: it is held.
  double gap_left = 0.0, gap_right = 0.0;

  bool in_corner() const { return turn_left > 0.0 || turn_right > 0.0; }
  bool over_gap() const { return gap_left > 0.0 || gap_right > 0.0; }

  Vec3 foot_C(const HangShape& shape) const { return rim_C - shape.up_C * shape.hands + normal_C * away; }
};

// The grip on the rim that one reaches from a foot in a direction, if the body has room below it.
struct GripAnswer {
  std::optional<RimGrip> grip;
  LedgeAnswer ledge;              // Why there is no rim.
  PieceId in_the_way = kNoPiece;  // Of a rim where the body has no room.
  double leans_back = 0.0;        // rad, of a wall that keeps it too far away.
};
GripAnswer grip_from(const World& world, const HangShape& shape, const Vec3& foot_C, const Vec3& towards_C,
                     double reach, double lowest, double highest);

// The same grip, as its rim is now: higher or lower, turned, or no longer there.
GripAnswer renewed(const World& world, const HangShape& shape, const RimGrip& grip);

enum class RimStop : std::uint8_t {
  None,
  End,      // The rim goes on nowhere.
  Blocked,  // Something is in the way of the body.
};
struct RimWay {
  RimGrip grip;
  double gone = 0.0;  // m along the rim, or of the body round a corner.
  RimStop stop = RimStop::None;
  PieceId piece = kNoPiece;  // What blocks.
};

// Goes `distance` along the rim, to the right of who faces the wall if it is positive.
RimWay follow_rim(const World& world, const HangShape& shape, const RimGrip& grip, double distance);

}  // namespace lagniappe
