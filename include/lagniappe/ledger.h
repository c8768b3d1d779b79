// SPDX-License-Identifier: MIT
// The ordered list of what the solver did within one tick, with the numbers and the reason for each verdict.
// Attach one to step(); with none attached nothing is recorded and nothing is spent.
#pragma once

#include <string>
#include <variant>
#include <vector>

#include "lagniappe/character_state.h"

namespace lagniappe {

// Lengths in metres, speeds in metres per second, angles in radians, vectors in the course frame.
namespace entry {

struct Reset {
  bool out_of_limits;
};  // Put back home: by request, or because the limits were left.
struct PushOut {
  double depth;
  bool crushed;
  PieceId piece;
};
struct Wish {
  Vec3 velocity_C;
  double share;
};  // share: of the full speed, in [0, 1].
struct StateChange {
  StateId from, to;
};
struct Jump {
  double speed;
  bool in_air;
  double late_by;
};                        // late_by: s after the ground was left.
struct Sweep {            // One sweep of collide and slide.
  Vec3 from_C, motion_C;  // Of the foot.
  double fraction;
  bool hit;  // The rest is meaningful only if it hit.
  PieceId piece;
  Vec3 point_C, normal_C;
  Feature feature;
};
struct Slide {  // What the motion left over became.
  enum class Kind : std::uint8_t { Along, Wall, Ceiling, Crease, Stop } kind;
  Vec3 plane_C;  // The normal that was used.
  Vec3 rest_C;   // What is still to be moved.
};
struct Step {  // A step was tried.
  enum class Outcome : std::uint8_t { Taken, TooHigh, NoHeadRoom, ShortTread, NotWalkable, NoGain } outcome;
  double rise, highest;  // rise: as far as it was found.
  PieceId piece;
};
struct Probe {
  double reach, gap;
  bool hit;
  Vec3 from_C;
  PieceId piece;
};
struct Judged {
  Verdict verdict;
  double angle, overhang;
  PieceId piece;
};
struct Snap {
  double distance;
};
struct LeftGround {
  double speed;
};

}  // namespace entry

using LedgerEntry =
    std::variant<entry::Reset, entry::PushOut, entry::Wish, entry::StateChange, entry::Jump, entry::Sweep,
                 entry::Slide, entry::Step, entry::Probe, entry::Judged, entry::Snap, entry::LeftGround>;

struct Ledger {
  std::vector<LedgerEntry> entries;
};

// Returns the entry as one JSON object with its `kind` first: lengths in metres, angles in degrees, pieces by
// name.
std::string to_json(const LedgerEntry& entry, const World& world);

}  // namespace lagniappe
