// SPDX-License-Identifier: MIT
// On a wall that can be climbed: an upright body goes over it at one distance, round corners, curves and ribs.
// Where the body is at that distance is the wall's offset surface (the points at radius + gap from it); it is
// followed by short steps along the tangent plane, each put right by the distance itself.
#pragma once

#include "lagniappe/world.h"

namespace lagniappe {

// How a body climbs.
struct ClimbShape {
  Vec3 up_C;                              // Unit.
  double radius = 0.3;                    // m, of the capsule.
  double height = 1.8;                    // m, of the capsule.
  double margin = 5e-4;                   // m of overlap that counts as none.
  double gap = 0.05;                      // m between the body's skin and the wall.
  double hands = 1.35;                    // m over the foot: where the wall must be.
  double most_back = radians(40.0);       // rad that a wall leans back at most.
  double most_over = radians(40.0);       // rad that it leans over at most.
  double steepest_floor = radians(45.0);  // rad to up; what is flatter and under the foot is floor.
  Moment moment = {};

  double reach() const { return radius + gap; }  // m from the axis to the wall.
};

// Where it climbs, in the course frame at the moment.
struct WallGrip {
  Vec3 foot_C;
  Vec3 normal_C;  // Unit: from the wall's nearest point to the body.
  Vec3 hands_C;   // On the wall, before the hands.
  PieceId piece = kNoPiece;
};

enum class WallFault : std::uint8_t {
  None,
  NothingThere,  // No wall before the hands.
  NotClimbable,  // `piece` is none that is climbed.
  LeansBack,     // rad > most_back.
  LeansOver,     // rad > most_over.
  NoRoom,        // `piece` is in the way of the body.
  Floor,         // The foot is on `piece`.
};

struct WallAnswer {
  std::optional<WallGrip> grip;
  WallFault fault = WallFault::None;
  double found = 0.0, allowed = 0.0;  // rad.
  PieceId piece = kNoPiece;
};

// The grip on the wall that hands reach within `reach` m beyond the skin, from a foot in a direction.
WallAnswer wall_ahead(const World& world, const ClimbShape& shape, const Vec3& foot_C, const Vec3& towards_C,
                      double reach);

// The same grip, as its wall is now. REQUIRES: a grip that was found.
WallAnswer wall_now(const World& world, const ClimbShape& shape, const WallGrip& grip);

struct WallWay {
  WallGrip grip;
  double gone = 0.0;                  // m of the body.
  WallFault stop = WallFault::None;   // Why it went no farther.
  double found = 0.0, allowed = 0.0;  // rad.
  PieceId piece = kNoPiece;           // What stops.
};

// Goes so many m to the right of who faces the wall and up along it.
WallWay follow_wall(const World& world, const ClimbShape& shape, const WallGrip& grip, const Vec2& way);

}  // namespace lagniappe
