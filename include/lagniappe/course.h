// SPDX-License-Identifier: MIT
// The place to move in, as a document, and how it becomes a world.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <string>
#include <variant>
#include <vector>

#include "lagniappe/character_state.h"
#include "lagniappe/triangle_world.h"

namespace lagniappe {

// Shapes of pieces. Sizes in metres, angles in radians. Each stands on its base centre at the origin of its own
// frame, whose +Y is up. Flights rise towards -Z.
namespace shape {

struct Block {
  Vec3 size;
};
struct Ramp {
  Vec3 size;
};  // A wedge: height 0 at +Z, size.y at -Z.
struct Stairs {
  double width, rise, run;
  int count;
};  // Solid; as deep as count * run.
// Treads are sectors of a ring, each one rise thick, beginning at -Z and turning by `angle` per tread
// (positive: left, seen from above). The base centre is the axis.
struct SpiralStairs {
  double inner, outer, rise, angle;
  int count;
};
struct Triangles {
  std::vector<Vec3> vertices;
  std::vector<std::array<std::uint32_t, 3>> triangles;
};
// Triangles of a model file, in the piece's frame. `file` is as written in the course.
struct Model {
  std::string file;
  std::shared_ptr<const Triangles> mesh;
};

}  // namespace shape

using Shape =
    std::variant<shape::Block, shape::Ramp, shape::Stairs, shape::SpiralStairs, shape::Triangles, shape::Model>;

struct Piece {
  std::string id;
  Vec3 at_C = Vec3(0.0);  // Centre of the base.
  Vec3 turn = Vec3(0.0);  // Yaw, pitch, roll in radians, applied roll first.
  std::string surface;    // Name of a surface; empty for the plain one.
  Shape shape;
};

struct Mark {
  std::string id;
  Vec3 at_C = Vec3(0.0);
  double facing = 0.0;  // Yaw in radians.
};

struct Course {
  std::string name;
  std::vector<Piece> pieces;
  std::vector<Mark> marks;            // REQUIRES: one has the id "start".
  Box limits;                         // Empty: 200 m around all pieces and marks, 50 m below them.
  std::size_t dropped_triangles = 0;  // Degenerate or non-finite ones in its models.
};

// Returns the rotation of yaw, pitch, roll in radians: roll about Z first, then pitch about X, then yaw about
// Y.
Quat rotation_of(const Vec3& turn);

// Returns the piece's triangles in the course frame, counter-clockwise seen from outside.
std::vector<Triangle> triangles_of(const Piece& piece);

// Returns the world of all pieces; its PieceId is the index in course.pieces.
TriangleWorld build_world(const Course& course);

// Returns where a run begins: the mark "start". REQUIRES: the course has one.
Home start_home(const Course& course);

}  // namespace lagniappe
