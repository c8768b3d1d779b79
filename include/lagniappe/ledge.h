// SPDX-License-Identifier: MIT
// Finds the rim that hands could take hold of, and what lies behind it, by a world's three questions alone: so
// on any game's world. The motion's guard, hang, mantle and climb ask it, and a game may.
#pragma once

#include <optional>
#include <string_view>

#include "lagniappe/world.h"

namespace lagniappe {

// What is asked for. Heights are of the rim over the foot, along up.
struct LedgeQuery {
  Vec3 foot_C;
  Vec3 up_C;                              // Unit.
  Vec3 towards_C;                         // Unit, across up: where the body would reach.
  double radius = 0.3;                    // m, of the body's capsule.
  double reach = 0.45;                    // m from the body's skin to the wall.
  double lowest = 0.4, highest = 2.3;     // m.
  double shortest_shelf = 0.1;            // m, into the shelf along its surface.
  double longest_shelf = 1.0;             // m; the depth is measured up to here.
  double steepest_shelf = radians(40.0);  // rad.
  double most_over = radians(30.0);       // rad by which the wall under the rim may lean over the body.
  double crouched = 1.1, standing = 1.8;  // m, heights of the capsule whose room is looked for; 0: not asked.
  Moment moment = {};
};

enum class LedgeFault : std::uint8_t {
  None,
  NothingThere,    // No wall within reach, nor a metre farther.
  OutOfReach,      // m to the wall > reach.
  TooHigh,         // m of the rim > highest; if none was found a metre farther up, `found` is infinite.
  ShelfTooShort,   // m < shortest_shelf.
  ShelfTooSteep,   // rad > steepest_shelf.
  LeansOver,       // rad > most_over.
  NoRoomForHands,  // m above the rim < what hands take.
};
std::string_view name_of(LedgeFault fault);

struct Ledge {
  Vec3 rim_C;               // The rim's point straight ahead: where the planes of wall and shelf meet.
  Vec3 along_C;             // Unit, along the rim: to the right of who faces the wall.
  Vec3 wall_normal_C;       // Unit, out of the wall under the rim.
  Vec3 shelf_normal_C;      // Unit, out of the shelf.
  double height;            // m of the rim over the foot.
  double distance;          // m from the body's skin to the rim, along towards_C.
  double depth;             // m of the shelf, up to longest_shelf.
  double slope;             // rad of the shelf.
  double over;              // rad by which the wall leans over the body; negative: it leans back.
  double drop;              // m from the rim down to what is in front of the wall, up to kDeepestDrop.
  double headroom;          // m over the shelf, where a body would stand, up to `standing`.
  bool crouched, standing;  // Whether there is room for it.
  PieceId wall_piece, shelf_piece;
  std::uint32_t wall_face, shelf_face;
  Surface wall_surface, shelf_surface;

  static constexpr double kDeepestDrop = 100.0;  // m.
};

// The rim, or why not: what was found, against what is allowed, and where.
struct LedgeAnswer {
  std::optional<Ledge> ledge;
  LedgeFault fault = LedgeFault::None;
  double found = 0.0, allowed = 0.0;
  Vec3 at_C = Vec3(0.0);
  PieceId piece = kNoPiece;
};

// Returns the lowest rim, on what is met first in the direction asked, that fits; else what kept the one that
// came nearest. The body itself is not asked about: it may stand, hang or fall. Allocates nothing. A rim is
// what a hand's ball of 4 cm finds; slits of less than 12 cm are none. REQUIRES: unit vectors, towards_C across
// up_C, radius > 0, lowest < highest, all finite.
LedgeAnswer find_ledge(const World& world, const LedgeQuery& query);

}  // namespace lagniappe
