// SPDX-License-Identifier: MIT
// What a face is made of, as far as motion cares.
#pragma once

#include <cstdint>
#include <tuple>

namespace lagniappe {

struct Surface {
  enum class Walk : std::uint8_t {
    ByAngle,  // As steep as the profile walks.
    Always,   // As steep as anything bears: up to walls.steepest_skid.
    Never,    // However flat: a character skids on it.
  };
  Walk walk = Walk::ByAngle;
  bool ground = true;      // false: nobody stands or skids on it; it is gone over like a step, and slid off.
  bool climbable = false;  // Kept for climbing; the ground behaviours ignore it.
  // Grip in [0, 1]; 1 is the grip that the profile's values are meant for. Less makes every change of velocity
  // on it slower by that factor (the set speed is still reached), takes that share of the skid friction, and
  // lowers the steepest walkable angle: tan(angle) is multiplied by it, as for any friction cone.
  double friction = 1.0;

  bool operator==(const Surface&) const = default;
};

// Which of two surfaces at the same place decides: the one that bears more. A strict order of all that differ,
// so that the order of pieces has no say.
inline bool decides_before(const Surface& a, const Surface& b) {
  const auto key = [](const Surface& s) { return std::tuple(!s.ground, s.walk, -s.friction, !s.climbable); };
  return key(a) < key(b);
}

}  // namespace lagniappe
