// SPDX-License-Identifier: MIT
// Sources of gravity. Each pulls towards the nearest point of its core (a point, a line, a circle, a sheet),
// with a strength that follows the distance from its surface around that.
#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <variant>
#include <vector>

#include "lagniappe/curve.h"
#include "lagniappe/gravity.h"
#include "lagniappe/rigid_pose.h"
#include "lagniappe/smooth_path.h"

namespace lagniappe {

// Shapes of fields, in a frame of their own whose origin is their centre. Sizes in metres,
// above 0 (a pill's length may be 0).
namespace field {

// Everywhere in a box along one direction. Outside it its surface is the box's.
struct Uniform {
  Vec3 size;
  Vec3 direction = Vec3(0.0, -1.0, 0.0);  // Unit.
};
struct Ball {
  double radius;
};
// Along Y; `length` is between the centres of its ends.
struct Pill {
  double radius, length;
};
// Around Y; `radius` to the middle of the tube, `thickness` the tube's radius.
struct Ring {
  double radius, thickness;
};
// Pulls to the middle plane of a box, across Y, from both sides. Around its edge, to the edge.
struct Slab {
  Vec3 size;
};
// To a line through points; `radius` of the tube around it.
struct Path {
  SmoothPath line;
  double radius;
};

}  // namespace field

using FieldShape =
    std::variant<field::Uniform, field::Ball, field::Pill, field::Ring, field::Slab, field::Path>;

struct Field {
  // Share of the strength at a distance from the surface. Under the surface the inverse ones fall off evenly to
  // the core, as within a solid body; the others stay as they are.
  enum class Falloff : std::uint8_t { Constant, Linear, Inverse, InverseSquare, Curve };

  std::string id;
  FieldShape shape;
  Vec3 at_C = Vec3(0.0);  // Centre.
  Vec3 turn = Vec3(0.0);  // Yaw, pitch, roll in radians, applied roll first.
  double strength = 1.0;  // Times the profile's gravity, at the surface; negative: pushes away.
  bool absolute = false;  // `strength` is in m/s2 instead.
  Falloff falloff = Falloff::Constant;
  Curve curve = {};             // Of the share over m from the surface.
  std::optional<double> reach;  // m from the surface, beyond which it is nothing; see reach_of().
  double fade = 0.0;            // m, the last of these, over which it goes there.
  bool adds = false;            // To what is below it, else it replaces that.
  int priority = 0;             // Higher ones come later.
  std::string on;               // The piece that it moves with; empty: none.
};

// One field at a point, by itself.
struct FieldAt {
  Vec3 pull_C = Vec3(0.0);  // In the unit of its strength, before its influence is counted.
  double distance = 0.0;    // m from its surface; negative within.
  double influence = 0.0;   // 0 beyond its reach, 1 within it, smooth between.
};
// Its reach: where it is not said, a uniform field ends at its box and others nowhere.
double reach_of(const Field& field);

FieldAt field_at(const Field& field, const RigidPose& frame, const Vec3& point_C);

// The frame of a field that moves with nothing.
RigidPose frame_of(const Field& field);

// So many fields has a world at most.
inline constexpr std::size_t kMostFields = 64;

// All fields of a place. By priority, of equal ones the replacing before the adding, and then in their order:
// one that replaces mixes, pull = (1 - influence) pull + influence its own; one that adds is added.
// Defined everywhere: on its core a field pulls nowhere.
class FieldSum {
 public:
  FieldSum() = default;
  // `below`: what pulls where no field does.
  FieldSum(std::vector<Field> fields, const Vec3& below_C);

  // In the order that was given.
  const std::vector<Field>& fields() const { return fields_; }
  bool empty() const { return fields_.empty(); }
  const Vec3& below() const { return below_C_; }
  const RigidPose& rest_frame(std::size_t field) const { return rest_[field]; }  // frame_of() it.

  // `frames`: of each field at the moment, in the order that was given; empty: where they rest.
  Gravity at(const Vec3& point_C, std::span<const RigidPose> frames = {}) const;

  // Writes for each field how much of the whole it is, as a factor of its own pull; returns the same for what
  // is below all. REQUIRES: out.size() == fields().size().
  double shares(const Vec3& point_C, std::span<double> out, std::span<const RigidPose> frames = {}) const;

 private:
  const RigidPose& frame(std::size_t field, std::span<const RigidPose> frames) const {
    return frames.empty() ? rest_[field] : frames[field];
  }

  std::vector<Field> fields_;
  std::vector<RigidPose> rest_;
  std::vector<double> far_square_;  // m2 from the centre, beyond which it is nothing.
  std::vector<std::uint32_t> order_;
  Vec3 below_C_ = Vec3(0.0);
};

}  // namespace lagniappe
