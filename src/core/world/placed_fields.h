// SPDX-License-Identifier: MIT
// The fields of a world, those that go with pieces where these are.
#pragma once

#include <algorithm>
#include <array>
#include <cassert>
#include <string>
#include <utility>
#include <vector>

#include "lagniappe/field.h"
#include "lagniappe/piece_motion.h"
#include "lagniappe/world.h"

namespace lagniappe {

class PlacedFields {
 public:
  // `motion_of`: of the piece with a name, null for one that never moves; must outlive this.
  template <typename MotionOf>
  PlacedFields(FieldSum sum, const MotionOf& motion_of) : sum_(std::move(sum)) {
    assert(sum_.fields().size() <= kMostFields);
    for (std::size_t i = 0; i < sum_.fields().size(); ++i) {
      const Field& field = sum_.fields()[i];
      const PieceMotion* motion = field.on.empty() ? nullptr : motion_of(field.on);
      if (motion == nullptr) continue;
      const RigidPose rest{motion->at_C, rotation_of(motion->turn)}, frame = frame_of(field);
      moving_.push_back(
          {i, motion, {rest.back(frame.position_C), glm::conjugate(rest.rotation_CP) * frame.rotation_CP}});
    }
  }

  const FieldSum& sum() const { return sum_; }

  Gravity at(const Vec3& point_C, double time) const {
    if (moving_.empty()) return sum_.at(point_C);
    std::array<RigidPose, kMostFields> frames;
    const std::span<RigidPose> used(frames.data(), sum_.fields().size());
    place(time, used);
    return sum_.at(point_C, used);
  }

  // As World::field_shares().
  std::size_t shares(const Vec3& point_C, double time, std::span<FieldShare> out) const {
    std::array<RigidPose, kMostFields> frames;
    std::array<double, kMostFields> of;
    const std::size_t count = sum_.fields().size();
    place(time, {frames.data(), count});
    const double below = sum_.shares(point_C, {of.data(), count}, {frames.data(), count});
    std::array<FieldShare, kMostFields + 1> all;
    std::size_t some = 0;
    for (std::size_t i = 0; i < count; ++i) {
      if (of[i] > 0.0) all[some++] = {static_cast<std::uint16_t>(i), of[i]};
    }
    if (below > 0.0 && sum_.below() != Vec3(0.0)) all[some++] = {kBelowFields, below};
    std::sort(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(some),
              [](const FieldShare& a, const FieldShare& b) {
                return a.share != b.share ? a.share > b.share : a.field < b.field;
              });
    some = std::min(some, out.size());
    std::copy_n(all.begin(), some, out.begin());
    return some;
  }

  void place(double time, std::span<RigidPose> out) const {
    for (std::size_t i = 0; i < out.size(); ++i) out[i] = sum_.rest_frame(i);
    for (const Moving& m : moving_) {
      const RigidPose piece = m.motion->pose_at(time);
      out[m.field] = {piece.point(m.frame_P.position_C), piece.rotation_CP * m.frame_P.rotation_CP};
    }
  }

 private:
  struct Moving {
    std::size_t field;
    const PieceMotion* motion;
    RigidPose frame_P;  // In the piece's own frame.
  };
  FieldSum sum_;
  std::vector<Moving> moving_;
};

}  // namespace lagniappe
