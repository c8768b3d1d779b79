// SPDX-License-Identifier: MIT
// The way over a rim: up, over, and down to where the body stands. Planned whole, and swept, before it begins.
#pragma once

#include "lagniappe/ledge.h"

namespace lagniappe {

// Straight ways of the foot, one after the other, in the course frame at the moment of the query: back from a
// wall that leans over (else none), up, across, down.
struct MantlePlan {
  enum class Kind : std::uint8_t { Mantle, Vault } kind;
  Vec3 from_C, above_C, over_C, to_C;
  double least_height;  // m, of the capsule once it is up: what is above that is drawn in on the way up.
  bool crouched;        // Only that fits at the end.
  Ledge ledge;
};

enum class MantleFault : std::uint8_t {
  None,
  NoLedge,    // `ledge` says why.
  NoRoom,     // m of head room where it would stand < a crouched body.
  Overhead,   // m that it can rise < m that it would have to.
  OnTheWay,   // m that it can go over (or back) < m that it would have to.
  NoLanding,  // m down to ground that can be stood on (as far as was looked, if there is none) > deepest.
  SlipsOff,   // m that the foot would stand beyond an edge > longest_overhang.
};

struct MantleAnswer {
  std::optional<MantlePlan> plan;
  MantleFault fault = MantleFault::None;
  double found = 0.0, allowed = 0.0;
  LedgeAnswer ledge;
  PieceId piece = kNoPiece;  // What is in the way.
};

struct MantleQuery {
  LedgeQuery ledge;               // With the heights of a standing and a crouched body.
  double body_height = 1.8;       // m, now.
  double margin = 5e-4;           // m of overlap that counts as none.
  double longest_overhang = 0.2;  // m that the foot may stand beyond an edge,
  double highest_step = 0.34;     // m, unless there is ground so near below that.
  double longest_vault = 0.0;     // m: what is thinner, with a drop behind it, is gone over. 0: nothing.
  double deepest_landing = 1.0;   // m below the foot's present height that a vault may end.
  // Of something thin before the rim, that the ledge's moment leaves out: m of its top over the foot, and ahead
  // of the foot to its back. A way over a lower rim goes over it, and ends behind it.
  double fence_height = 0.0, fence_back = 0.0;
};

// Plans straight into the wall that is met; along towards_C where that does not go.
MantleAnswer plan_mantle(const World& world, const MantleQuery& query);

}  // namespace lagniappe
