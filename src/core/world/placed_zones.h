// SPDX-License-Identifier: MIT
// The zones of a world, those that go with pieces where these are.
#pragma once

#include <utility>
#include <vector>

#include "lagniappe/piece_motion.h"
#include "lagniappe/world.h"
#include "lagniappe/zone.h"

namespace lagniappe {

class PlacedZones {
 public:
  PlacedZones() = default;
  // `motion_of`: of the piece with a name, null for one that never moves; must outlive this.
  template <typename MotionOf>
  PlacedZones(std::vector<Zone> zones, const MotionOf& motion_of) {
    for (Zone& zone : zones) {
      Placed placed;
      placed.frame = frame_of(zone);
      placed.motion = zone.on.empty() ? nullptr : motion_of(zone.on);
      if (placed.motion != nullptr) {
        const RigidPose rest{placed.motion->at_C, rotation_of(placed.motion->turn)};
        placed.frame = {rest.back(placed.frame.position_C),
                        glm::conjugate(rest.rotation_CP) * placed.frame.rotation_CP};
      }
      placed.box = around(bounds(zone.shape), placed.frame);
      blows_ = blows_ || std::holds_alternative<effect::Wind>(zone.effect);
      covers_ = covers_ || std::holds_alternative<effect::SurfaceOver>(zone.effect);
      placed.zone = std::move(zone);
      zones_.push_back(std::move(placed));
    }
  }

  std::size_t size() const { return zones_.size(); }
  const Zone& zone(std::size_t i) const { return zones_[i].zone; }
  bool covers() const { return covers_; }

  RigidPose frame(std::size_t i, double time) const { return zones_[i].at(time); }

  RigidVelocity velocity(std::size_t i, double time) const {
    const PieceMotion* motion = zones_[i].motion;
    return motion != nullptr ? motion->velocity_at(time) : RigidVelocity{};
  }

  // As World::zones_touched().
  std::size_t touched(const CapsuleWay& way, double from_time, double to_time, std::span<ZoneId> out) const {
    Box passed = bounds(way.from);
    passed.join(bounds(way.to));
    passed = passed.grown(way.radius);
    std::size_t count = 0;
    for (std::size_t i = 0; i < zones_.size() && count < out.size(); ++i) {
      const Placed& placed = zones_[i];
      if (placed.motion == nullptr && !placed.box.overlaps(passed)) continue;
      const RigidPose from = placed.at(from_time), to = placed.motion != nullptr ? placed.at(to_time) : from;
      const CapsuleWay seen{{from.back(way.from.a_C), from.back(way.from.b_C)},
                            {to.back(way.to.a_C), to.back(way.to.b_C)},
                            way.radius};
      if (touches(placed.zone.shape, seen)) out[count++] = static_cast<ZoneId>(i);
    }
    return count;
  }

  Vec3 wind(const Vec3& point_C, double time) const {
    Vec3 sum(0.0);
    if (!blows_) return sum;
    for (const Placed& placed : zones_) {
      if (placed.may_hold(point_C)) sum += wind_at(placed.zone, placed.at(time), point_C, time);
    }
    return sum;
  }

  // Of several the later one.
  std::optional<Surface> surface_over(const Vec3& point_C, double time) const {
    std::optional<Surface> over;
    if (!covers_) return over;
    for (const Placed& placed : zones_) {
      const auto* covers = std::get_if<effect::SurfaceOver>(&placed.zone.effect);
      if (covers == nullptr || !placed.may_hold(point_C)) continue;
      if (depth_in(placed.zone.shape, placed.at(time).back(point_C)) >= -kOnItsFace) over = covers->is;
    }
    return over;
  }

 private:
  // m that a face may lie outside: a zone that stands on a floor holds the floor, too.
  static constexpr double kOnItsFace = 1e-3;

  struct Placed {
    Zone zone;
    const PieceMotion* motion = nullptr;
    RigidPose frame;  // In the frame of its piece, if that moves.
    Box box;          // In that frame.

    RigidPose at(double time) const {
      if (motion == nullptr) return frame;
      const RigidPose piece = motion->pose_at(time);
      return {piece.point(frame.position_C), piece.rotation_CP * frame.rotation_CP};
    }
    bool may_hold(const Vec3& point_C) const { return motion != nullptr || box.contains(point_C); }
  };

  static Box around(const Box& own, const RigidPose& frame) {
    Box box;
    for (int corner = 0; corner < 8; ++corner) {
      const Vec3 p(corner & 1 ? own.high_C.x : own.low_C.x, corner & 2 ? own.high_C.y : own.low_C.y,
                   corner & 4 ? own.high_C.z : own.low_C.z);
      box.join(frame.point(p));
    }
    return box.grown(kOnItsFace);
  }

  std::vector<Placed> zones_;
  bool blows_ = false, covers_ = false;
};

}  // namespace lagniappe
