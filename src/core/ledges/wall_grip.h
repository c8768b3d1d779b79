// SPDX-License-Identifier: MIT
// Words of climbing: how a body does it, where it is, and what stops it.
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
  Segment axis(const Vec3& foot_C) const {
    const double upper = std::max(height, 2.0 * radius) - radius;
    return {foot_C + up_C * radius, foot_C + up_C * upper};
  }
  // Whether a face with this normal, touched there, is floor.
  bool is_floor(const Vec3& face_normal_C, const Vec3& normal_C) const {
    return dot(face_normal_C, up_C) >= std::cos(steepest_floor) && dot(normal_C, up_C) > 0.5;
  }
};

// Where it climbs, in the course frame at the moment.
struct WallGrip {
  Vec3 foot_C;
  Vec3 normal_C;  // Unit: from the wall's nearest point, or the ladder's front, to the body.
  Vec3 hands_C;   // On the wall, before the hands.
  PieceId piece = kNoPiece;
  // On a ladder, else 0: m from rung to rung, and of the hands over the lowest.
  double spacing = 0.0, over_rung = 0.0;

  bool on_ladder() const { return spacing > 0.0; }
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

  static WallAnswer refused(WallFault fault, PieceId piece = kNoPiece, double found = 0.0,
                            double allowed = 0.0) {
    return {std::nullopt, fault, found, allowed, piece};
  }
};

struct WallWay {
  WallGrip grip;
  double gone = 0.0;                  // m of the body.
  WallFault stop = WallFault::None;   // Why it went no farther.
  double found = 0.0, allowed = 0.0;  // rad.
  PieceId piece = kNoPiece;           // What stops.
};

}  // namespace lagniappe
