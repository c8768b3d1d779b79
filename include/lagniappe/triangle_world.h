// SPDX-License-Identifier: MIT
// A World of triangles in bounding-volume trees, one for all that stands still and one for each moving piece:
// filled by a builder, committed once, only read afterwards.
#pragma once

#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "lagniappe/field.h"
#include "lagniappe/world.h"

namespace lagniappe {

class TriangleWorld final : public World {
 public:
  struct Options {
    // The box that a character may be in. Empty: the triangles' bounds, grown by 50 m on every side.
    Box limits = {};
    Vec3 wind = Vec3(0.0);  // m/s.
    // What pulls; none: the profile's gravity against the body's up. Fields that name a moving piece go with
    // it from where it rests without its motion.
    std::optional<FieldSum> gravity = {};
    // In the order in which they act. At most kNoZone; those that name a moving piece go with it likewise.
    std::vector<Zone> zones = {};
  };

  // What is put in before the commit.
  class Builder {
   public:
    // Begins a piece; the triangles added next belong to it. Names need not be unique.
    PieceId begin_piece(std::string name);
    // The same for a piece that moves: its triangles are given in its own frame. REQUIRES: motion.keys is not
    // empty, motion.period > 0.
    PieceId begin_moving_piece(std::string name, PieceMotion motion);

    // Adds a triangle to the last piece begun. Returns false, and drops it, if a coordinate is not finite or if
    // it has no area (twice its area under 1e-12 m2): such a triangle has no face normal. REQUIRES:
    // begin_piece() was called.
    bool add(const Triangle& triangle, const Surface& surface = {});

    // Says that the last piece begun is a ladder, given in the frame of its triangles. REQUIRES: begin_piece()
    // was called.
    void set_ladder(const Ladder& ladder);

    // Says that the surface of the last piece begun carries like a belt, m/s in its own frame. REQUIRES:
    // begin_piece() was called.
    void set_drift(const Vec3& drift_P);

    std::size_t triangle_count() const { return faces_.size(); }

    // Builds the tree. The builder is empty afterwards.
    TriangleWorld commit(Options options);
    TriangleWorld commit() { return commit(Options{}); }

   private:
    friend class TriangleWorld;
    std::vector<WorldFace> faces_;  // In the frame of their piece; index is the order of adding.
    std::vector<std::string> names_;
    std::vector<std::pair<PieceId, PieceMotion>> motions_;
    std::vector<std::pair<PieceId, Ladder>> ladders_;
    std::vector<std::pair<PieceId, Vec3>> drifts_;
  };

  TriangleWorld(TriangleWorld&&) noexcept;
  TriangleWorld& operator=(TriangleWorld&&) noexcept;
  ~TriangleWorld() override;

  std::optional<WorldHit> sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                const Moment& moment = {}) const override;
  std::size_t contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                       const Moment& moment = {}) const override;
  std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                      const Moment& moment = {}) const override;
  Box limits() const override;
  Surroundings surroundings(const Vec3& at_C, double time) const override;
  std::size_t field_shares(const Vec3& at_C, double time, std::span<FieldShare> out) const override;
  std::string_view field_name(std::uint16_t field) const override;
  std::size_t zones_touched(const CapsuleWay& way, double from_time, double to_time,
                            std::span<ZoneId> out) const override;
  ZoneNow zone(ZoneId zone, double time) const override;
  bool covers_surfaces() const override;
  std::optional<Surface> surface_over(const Vec3& at_C, double time) const override;
  Vec3 surface_drift(PieceId piece, double time) const override;
  std::string_view piece_name(PieceId piece) const override;
  std::optional<Ladder> ladder(PieceId piece, const Moment& moment = {}) const override;
  bool has_movers() const override;
  bool moves(PieceId piece) const override;
  RigidPose piece_frame(PieceId piece, double time) const override;
  RigidVelocity piece_velocity(PieceId piece, double time) const override;
  std::optional<WorldPush> first_push(const Segment& axis, double radius, double from_time, double to_time,
                                      PieceId without) const override;
  std::optional<std::size_t> gather(const Box& region, double time, std::span<WorldFace> out) const override;

  // Returns how the piece moves; null for one that never does.
  const PieceMotion* motion_of(PieceId piece) const;
  Vec3 wind() const;  // Where no zone blows.
  // Null where the profile's gravity is all that pulls.
  const FieldSum* fields() const;
  // Where each field is at a time; REQUIRES: fields() is not null, out.size() is that of its fields.
  void place_fields(double time, std::span<RigidPose> out) const;

  std::size_t zone_count() const;
  const Zone& zone_as_given(ZoneId zone) const;

  std::size_t triangle_count() const;
  std::size_t piece_count() const;
  std::size_t memory_bytes() const;  // Of the tree and the triangles.

  // Returns a triangle as it was added, by the order of adding: that of a moving piece is in the piece's frame.
  // REQUIRES: index < triangle_count().
  const Triangle& triangle(std::size_t index) const;
  PieceId triangle_piece(std::size_t index) const;
  const Surface& triangle_surface(std::size_t index) const;

  // The pieces that move, in the order of adding.
  std::span<const PieceId> moving_pieces() const;

 private:
  struct Data;
  explicit TriangleWorld(std::unique_ptr<Data> data);
  std::unique_ptr<Data> data_;
};

}  // namespace lagniappe
