// SPDX-License-Identifier: MIT
// The place to move in, as a document, and how it becomes a world.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
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
  // What the triangles are made of, where that is not the piece's own surface: for each triangle 0, or one more
  // than an index in `surfaces`. Empty: all 0.
  std::vector<std::uint16_t> surface_of;
  struct SurfaceChoice {
    std::string name;  // Of one of the course's surfaces; empty: `surface` itself.
    Surface surface;
    bool operator==(const SurfaceChoice&) const = default;
  };
  std::vector<SurfaceChoice> surfaces;
};
// Two stiles and rungs between them, the first `spacing` over the base; climbed along its middle line, whatever
// its surface says, from +Z and from -Z.
struct Ladder {
  double width, height, spacing;
};
// Round ones are made of faces that lie within `sag` (m) of what they stand for. Like all faces they are solid
// from both sides.
struct Ball {
  double radius, sag = 0.004;
};
// Along its own Y; `length` is between the centres of its ends.
struct Pill {
  double radius, length, sag = 0.004;
};
// Around its own Y; `radius` to the middle of the tube, `thickness` the tube's radius.
struct Ring {
  double radius, thickness, sag = 0.004;
};
// Along a line through the points without corners (SmoothPath), half a ball at each end.
struct Tube {
  std::vector<Vec3> points;
  double radius;
  bool closed = false;
  double sag = 0.004;
};
// Triangles of a model file, in the piece's frame. `file` is as written in the course.
struct Model {
  std::string file;
  std::shared_ptr<const Triangles> mesh;
};

}  // namespace shape

using Shape = std::variant<shape::Block, shape::Ramp, shape::Stairs, shape::SpiralStairs, shape::Ladder,
                           shape::Ball, shape::Pill, shape::Ring, shape::Tube, shape::Triangles, shape::Model>;

struct Piece {
  std::string id;
  Vec3 at_C = Vec3(0.0);  // Centre of the base.
  Vec3 turn = Vec3(0.0);  // Yaw, pitch, roll in radians, applied roll first.
  std::string surface;    // Name of a surface; empty for the plain one.
  Shape shape;
  std::optional<PieceMotion> motion = {};  // Its at_C and turn are those of the piece.
  Vec3 drift = Vec3(0.0);                  // m/s in its own frame: its surface carries like a belt.
};

// A surface that pieces refer to by name. Names that are not listed mean the plain surface.
struct NamedSurface {
  std::string id;
  Surface surface;
};

struct Mark {
  std::string id;
  Vec3 at_C = Vec3(0.0);
  double facing = 0.0;  // Yaw in radians, about its up.
  // Unit. Not said: against the pull there in a course that has fields, else +Y.
  std::optional<Vec3> up_C = {};
};

struct Course {
  std::string name;
  std::vector<Piece> pieces;
  std::vector<NamedSurface> surfaces;
  bool gravity = true;                // The profile's pulls along -Y where no field replaces it.
  std::vector<Field> fields;          // At most kMostFields.
  std::vector<Zone> zones;            // In the order in which they act.
  std::vector<Mark> marks;            // REQUIRES: one has the id "start".
  Box limits;                         // Empty: 200 m around all pieces and marks, 50 m below them.
  Vec3 wind_C = Vec3(0.0);            // m/s, everywhere.
  std::size_t dropped_triangles = 0;  // Degenerate or non-finite ones in its models.
  bool starts_in_flight = false;      // A model on which nobody can stand: one begins in free flight above it.
};

// Returns the piece's triangles, counter-clockwise seen from outside: in the course frame, where a moving piece
// is drawn where it rests without its motion; or in the piece's own frame.
std::vector<Triangle> triangles_of(const Piece& piece);
std::vector<Triangle> own_triangles_of(const Piece& piece);

// Returns the surface of the piece's n-th triangle.
Surface surface_of(const Course& course, const Piece& piece, std::size_t triangle);

// Returns the world of all pieces; its PieceId is the index in course.pieces.
TriangleWorld build_world(const Course& course);

// What pulls in the course; nothing where that is the profile's gravity along -Y and all marks stand upright.
std::optional<FieldSum> fields_of(const Course& course);

// The zones with what they name put in: surfaces, and the places of marks.
std::vector<Zone> zones_of(const Course& course);

Home home_of(const Course& course, const Mark& mark);
std::vector<Home> homes_of(const Course& course);  // Of all marks.

// Returns where a run begins: the mark "start". REQUIRES: the course has one.
Home start_home(const Course& course);

}  // namespace lagniappe
