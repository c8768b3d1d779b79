// SPDX-License-Identifier: MIT
// What the solver asks of the place that it moves in. Implement World to run the motion on your game's own
// collision; TriangleWorld is ours.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string_view>

#include "lagniappe/capsule_queries.h"
#include "lagniappe/gravity.h"
#include "lagniappe/piece_motion.h"
#include "lagniappe/surface.h"
#include "lagniappe/zone.h"

namespace lagniappe {

using PieceId = std::uint32_t;
inline constexpr PieceId kNoPiece = 0xffffffffu;
using ZoneId = std::uint16_t;
inline constexpr ZoneId kNoZone = 0xffff;

// When a question is asked, and of what.
struct Moment {
  double time = 0.0;           // s; moving pieces are where they are then.
  PieceId without = kNoPiece;  // This piece is not there.
  bool still = false;          // Nor is any piece that moves.
  // Of contacts: where there are more than fit, those whose normals point most this way are kept, and come
  // first; zero: the nearest.
  Vec3 wanted_C = Vec3(0.0);
};

struct WorldHit {
  SweepHit hit;
  Vec3 face_normal_C;  // Unit normal of the touched face, on the capsule's side.
  PieceId piece;
  std::uint32_t triangle;  // The world's own number for the face; equal numbers are the same face.
  Surface surface = {};
};

struct WorldContact {
  Closest closest;
  Vec3 face_normal_C;  // Unit normal of the touched face, on the capsule's side.
  PieceId piece;
  std::uint32_t triangle;
  Surface surface = {};
};

struct WorldRayHit {
  RayHit hit;
  PieceId piece;
  Surface surface = {};
  std::uint32_t triangle = 0;  // As WorldHit::triangle.
};

// A piece that moved into a capsule.
struct WorldPush {
  Vec3 shift_C;  // What the capsule must go until it is clear: along the middle of the ways in which the
                 // normal pointed from the first touch to the end.
  Vec3 point_C, normal_C;  // Where it touches, and the plane there, at the end.
  double fraction;         // Of the time asked about, at the first touch.
  PieceId piece;
};

// A face with everything that queries want to know of it.
struct WorldFace {
  Triangle triangle;
  Vec3 normal_C;  // Unit, by the winding.
  PieceId piece;
  std::uint32_t index;  // As WorldHit::triangle.
  Surface surface = {};
};

// A piece that is climbed along its middle line. Its faces are none that are climbed (Surface::climbable), else
// they are taken for a wall.
struct Ladder {
  Vec3 base_C = Vec3(0.0);           // Middle of its lower end.
  Vec3 along_C = Vec3(0, 1, 0);      // Unit: from there to the upper end.
  Vec3 front_C = Vec3(0, 0, 1);      // Unit, across along_C; it is climbed from this side and from the other.
  double width = 0.5, height = 3.0;  // m, over all.
  double depth = 0.07;               // m, from front to back.
  double first = 0.3;                // m of its lowest rung over the base.
  double spacing = 0.3;              // m from rung to rung.
};

// What a place does at a point.
struct Surroundings {
  Vec3 wind_C = Vec3(0.0);  // m/s: the velocity of the air.
  // What pulls. Nothing said, which must be so everywhere or nowhere in a world: the profile's gravity, against
  // the body's up, and nothing turns the body.
  std::optional<Gravity> gravity = {};
};

// A zone as it is at a time.
struct ZoneNow {
  std::string_view name;
  const ZoneEffect* effect;  // Both valid as long as the world.
  RigidPose frame;           // On the centre of its base.
  RigidVelocity velocity;    // Of the piece that it goes with.
};

// How much of what pulls at a point is of one of the world's fields.
struct FieldShare {
  std::uint16_t field;
  double share;  // Factor of what the field pulls by itself.
};
inline constexpr std::uint16_t kBelowFields = 0xffff;  // What pulls where no field does.

// Thread safety: const methods may be called by any number of threads at once.
// Determinism: equal questions must get bit-equal answers, else takes do not replay.
// No method may allocate on the heap; step() promises so.
class World {
 public:
  virtual ~World() = default;

  // Returns the first touch of the moving capsule, with the rules of lagniappe::sweep for touching starts.
  // Ties within 1e-9 m: face before edge before vertex, then the lower triangle.
  // REQUIRES: radius > 0, every input finite.
  virtual std::optional<WorldHit> sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                        const Moment& moment = {}) const = 0;

  // Fills `out` with the faces nearer than or at `radius` to the axis, nearest first, ties by lower triangle;
  // keeps the nearest where there are more than fit. Returns how many were written.
  virtual std::size_t contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                               const Moment& moment = {}) const = 0;

  // Returns the first face met between `origin_C` and `origin_C + motion_C`.
  virtual std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                              const Moment& moment = {}) const = 0;

  // Returns the box that a character may be in: one whose foot leaves it is put back to its home.
  virtual Box limits() const = 0;

  // Returns what the place does at a point, besides being solid.
  virtual Surroundings surroundings(const Vec3& /*at_C*/, double /*time*/) const { return {}; }

  // For explanations: writes what the pull at a point is made of, the largest share first, as far as it fits;
  // returns how many were written. A world need not tell.
  virtual std::size_t field_shares(const Vec3& /*at_C*/, double /*time*/, std::span<FieldShare> /*out*/) const {
    return 0;
  }
  // Returns the name of a field, valid as long as the world.
  virtual std::string_view field_name(std::uint16_t /*field*/) const { return {}; }

  // Zones; a world that has none need not override these.

  // Writes the zones that a capsule touches on its way between the two times, in the world's fixed order, as
  // far as they fit; returns how many were written. What moves with a piece is met where it is then.
  virtual std::size_t zones_touched(const CapsuleWay& /*way*/, double /*from_time*/, double /*to_time*/,
                                    std::span<ZoneId> /*out*/) const {
    return 0;
  }
  // REQUIRES: the zone is one of those.
  virtual ZoneNow zone(ZoneId, double /*time*/) const;

  // Whether any zone changes what faces are made of; and what those at a point count as, if one does there. The
  // answers to the three questions have that already.
  virtual bool covers_surfaces() const { return false; }
  virtual std::optional<Surface> surface_over(const Vec3& /*at_C*/, double /*time*/) const {
    return std::nullopt;
  }

  // Returns the velocity, against the piece, with which its surface carries as a belt does; of it counts what
  // goes along the face.
  virtual Vec3 surface_drift(PieceId, double /*time*/) const { return Vec3(0.0); }

  // Returns the name of a piece, valid as long as the world; empty for kNoPiece.
  virtual std::string_view piece_name(PieceId piece) const = 0;

  // Returns the ladder that a piece is, where it is at the moment.
  virtual std::optional<Ladder> ladder(PieceId, const Moment& /*moment*/ = {}) const { return std::nullopt; }

  // Moving pieces; a world where nothing moves need not override these.

  // Whether there are any.
  virtual bool has_movers() const { return false; }

  // Whether it knows where pieces will be. Where not, piece_frame() and piece_velocity() are asked only about
  // times from the beginning of the tick that is computed, less a millisecond, to its end; that a piece drops
  // away from under the character is then seen by what it does within the tick.
  virtual bool knows_ahead() const { return true; }

  // Whether the piece ever moves.
  virtual bool moves(PieceId) const { return false; }

  // Returns where the piece is: the frame that goes with it. Any frame will do, so long as it is the same one
  // at all times.
  virtual RigidPose piece_frame(PieceId, double /*time*/) const { return {}; }

  // Returns the velocity of that frame. At a jump of the velocity: that of what comes next.
  virtual RigidVelocity piece_velocity(PieceId, double /*time*/) const { return {}; }

  // Returns the first push, between the two times, of a moving piece into the capsule, which ends at the given
  // axis and went there with `carrier`; kNoPiece: it stood still. Nothing for pieces that already touched it
  // and go along or away. What moves as the carrier does is at rest, and pushes nobody.
  virtual std::optional<WorldPush> first_push(const Segment&, double /*radius*/, double /*from_time*/,
                                              double /*to_time*/, PieceId /*carrier*/) const {
    return std::nullopt;
  }

  // Writes every face whose box overlaps `region` at `time` and returns how many; nothing if they do not fit or
  // the world cannot tell. step() asks once per tick and works with the answer; without one it asks every
  // question on its own, with the same results.
  virtual std::optional<std::size_t> gather(const Box& /*region*/, double /*time*/,
                                            std::span<WorldFace> /*out*/) const {
    return std::nullopt;
  }
};

inline ZoneNow World::zone(ZoneId, double) const {
  static const ZoneEffect kNothing = effect::Signal{};
  return {{}, &kNothing, {}, {}};
}

}  // namespace lagniappe
