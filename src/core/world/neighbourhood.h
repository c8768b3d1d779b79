// SPDX-License-Identifier: MIT
// A few faces around the character, gathered once per tick, that answer all of the tick's questions.
#pragma once

#include <array>
#include <cstddef>
#include <type_traits>

#include "lagniappe/world.h"

namespace lagniappe {

// Thread safety: for one thread. Big: meant for the stack of one step().
class Neighbourhood final : public World {
 public:
  // Gathers what lies in `region` at `time`. Questions that reach beyond, or are asked for another time, go on
  // to `whole`; so does every question where there is too much to gather.
  Neighbourhood(const World& whole, const Box& region, double time);

  std::optional<WorldHit> sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                const Moment& moment) const override;
  std::size_t contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                       const Moment& moment) const override;
  std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                      const Moment& moment) const override;

  std::optional<std::size_t> gather(const Box& region, double time, std::span<WorldFace> out) const override {
    return whole_.gather(region, time, out);
  }
  Box limits() const override { return whole_.limits(); }
  Surroundings surroundings(const Vec3& at_C, double time) const override {
    return whole_.surroundings(at_C, time);
  }
  std::size_t field_shares(const Vec3& at_C, double time, std::span<FieldShare> out) const override {
    return whole_.field_shares(at_C, time, out);
  }
  std::string_view field_name(std::uint16_t field) const override { return whole_.field_name(field); }
  std::size_t zones_touched(const CapsuleWay& way, double from_time, double to_time,
                            std::span<ZoneId> out) const override {
    return whole_.zones_touched(way, from_time, to_time, out);
  }
  ZoneNow zone(ZoneId zone, double time) const override { return whole_.zone(zone, time); }
  bool covers_surfaces() const override { return whole_.covers_surfaces(); }
  std::optional<Surface> surface_over(const Vec3& at_C, double time) const override {
    return whole_.surface_over(at_C, time);
  }
  Vec3 surface_drift(PieceId piece, double time) const override { return whole_.surface_drift(piece, time); }
  std::string_view piece_name(PieceId piece) const override { return whole_.piece_name(piece); }
  std::optional<Ladder> ladder(PieceId piece, const Moment& moment) const override {
    return whole_.ladder(piece, moment);
  }
  bool has_movers() const override { return whole_.has_movers(); }
  bool knows_ahead() const override { return whole_.knows_ahead(); }
  bool moves(PieceId piece) const override { return whole_.moves(piece); }
  RigidPose piece_frame(PieceId piece, double time) const override { return whole_.piece_frame(piece, time); }
  RigidVelocity piece_velocity(PieceId piece, double time) const override {
    return whole_.piece_velocity(piece, time);
  }
  std::optional<WorldPush> first_push(const Segment& axis, double radius, double from_time, double to_time,
                                      PieceId carrier) const override {
    return whole_.first_push(axis, radius, from_time, to_time, carrier);
  }

 private:
  static constexpr std::size_t kMost = 256;
  static constexpr std::size_t kLanes = 8;

  std::span<WorldFace> faces() { return {reinterpret_cast<WorldFace*>(room_.data()), kMost}; }
  const WorldFace& face(std::size_t i) const { return reinterpret_cast<const WorldFace*>(room_.data())[i]; }
  bool answers(const Box& region, const Moment& moment) const;
  template <typename Query>
  void ask(Query& query) const;

  const World& whole_;
  Box region_;
  double time_;
  bool moves_ = true;  // Some pieces do, so that the time matters.
  bool gathered_ = false;
  std::size_t count_ = 0;
  // Boxes of the faces relative to `corner_C_`, in single precision rounded outwards, lane by lane.
  Vec3 corner_C_;
  alignas(32) std::array<float, kMost> low_[3], high_[3];
  // Room for faces that nothing clears beforehand: that would cost as much as a query, every tick.
  alignas(WorldFace) std::array<std::byte, kMost * sizeof(WorldFace)> room_;
};

static_assert(std::is_trivially_copyable_v<WorldFace> && std::is_trivially_destructible_v<WorldFace>);

}  // namespace lagniappe
