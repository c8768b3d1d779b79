// SPDX-License-Identifier: MIT
// What the solver asks of the place that it moves in. Implement World to run the motion on your game's own
// collision; TriangleWorld is ours.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string_view>

#include "lagniappe/capsule_queries.h"

namespace lagniappe {

using PieceId = std::uint32_t;
inline constexpr PieceId kNoPiece = 0xffffffffu;

struct WorldHit {
  SweepHit hit;
  Vec3 face_normal_C;  // Unit normal of the touched face, on the capsule's side.
  PieceId piece;
  std::uint32_t triangle;  // The world's own number for the face; equal numbers are the same face.
};

struct WorldContact {
  Closest closest;
  Vec3 face_normal_C;  // Unit normal of the touched face, on the capsule's side.
  PieceId piece;
  std::uint32_t triangle;
};

struct WorldRayHit {
  RayHit hit;
  PieceId piece;
};

// Thread safety: const methods may be called by any number of threads at once.
// Determinism: equal questions must get bit-equal answers, else takes do not replay.
// No method may allocate on the heap; step() promises so.
class World {
 public:
  virtual ~World() = default;

  // Returns the first touch of the moving capsule, with the rules of lagniappe::sweep for touching starts.
  // Ties within 1e-9 m: face before edge before vertex, then the lower triangle.
  // REQUIRES: radius > 0, every input finite.
  virtual std::optional<WorldHit> sweep(const Segment& axis, double radius, const Vec3& motion_C) const = 0;

  // Fills `out` with the faces nearer than or at `radius` to the axis, nearest first, ties by lower triangle;
  // keeps the nearest where there are more than fit. Returns how many were written.
  virtual std::size_t contacts(const Segment& axis, double radius, std::span<WorldContact> out) const = 0;

  // Returns the first face met between `origin_C` and `origin_C + motion_C`.
  virtual std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C) const = 0;

  // Returns the box that a character may be in: one whose foot leaves it is put back to its home.
  virtual Box limits() const = 0;

  // Returns the name of a piece, valid as long as the world; empty for kNoPiece.
  virtual std::string_view piece_name(PieceId piece) const = 0;
};

}  // namespace lagniappe
