// SPDX-License-Identifier: MIT
// A game's world that answers by another; what is overridden, it answers itself. It does not gather.
#pragma once

#include "lagniappe/world.h"

namespace lagniappe::test {

class ForwardingWorld : public World {
 public:
  explicit ForwardingWorld(const World& whole) : whole_(whole) {}
  std::optional<WorldHit> sweep(const Segment& axis, double radius, const Vec3& motion_C,
                                const Moment& moment) const override {
    return whole_.sweep(axis, radius, motion_C, moment);
  }
  std::size_t contacts(const Segment& axis, double radius, std::span<WorldContact> out,
                       const Moment& moment) const override {
    return whole_.contacts(axis, radius, out, moment);
  }
  std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C,
                                      const Moment& moment) const override {
    return whole_.cast_ray(origin_C, motion_C, moment);
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
  const World& whole_;
};

}  // namespace lagniappe::test
