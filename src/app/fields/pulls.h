// SPDX-License-Identifier: GPL-3.0-or-later
// What pulls in a course, asked without its pieces: at once after each change.
#pragma once

#include <vector>

#include "lagniappe/course.h"

namespace lagniappe::app {

class Pulls {
 public:
  Pulls(const Course& course, double gravity);  // m/s2 of the profile.

  Vec3 at(const Vec3& point_C, double time) const;  // m/s2.
  // The same with what it is made of.
  struct Sample {
    Vec3 pull_C;                    // m/s2.
    std::vector<double> parts;      // m/s2 that each field gives; behind them what is below all.
    std::vector<double> distances;  // m from the surface of each.
  };
  void sample(const Vec3& point_C, double time, Sample& out) const;
  // What a field would pull alone, m/s2.
  double alone(std::size_t field, const Vec3& point_C, double time) const;
  // m from its surface.
  double distance(std::size_t field, const Vec3& point_C, double time) const;

  std::span<const Field> fields() const;
  RigidPose frame(std::size_t field, double time) const;
  const TriangleWorld& world() const { return world_; }  // With the zones, and of pieces those that carry any.
  bool moves() const { return world_.has_movers(); }

 private:
  // Of one moment, which is mostly asked about again.
  const std::vector<RigidPose>& frames(double time) const;
  double strength_of(const Field& field) const { return field.absolute ? 1.0 : gravity_; }

  TriangleWorld world_;
  double gravity_;
  mutable std::vector<RigidPose> frames_;
  mutable double frames_time_ = -1.0;
};

}  // namespace lagniappe::app
