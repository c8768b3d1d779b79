// SPDX-License-Identifier: MIT
#include "lagniappe/pose.h"

namespace lagniappe {
namespace {

double round_part(double turns) { return turns - std::floor(turns); }

double mix_angle(double a, double b, double blend) { return wrap_angle(a + wrap_angle(b - a) * blend); }

}  // namespace

Pose interpolate(const CharacterState& previous, const CharacterState& current, double blend) {
  const CharacterState& from = current.times_put_home != previous.times_put_home ? current : previous;
  const Vec3 a = from.foot_C + from.up_C() * from.eye_offset,
             b = current.foot_C + current.up_C() * current.eye_offset;
  return {a + (b - a) * blend,
          glm::slerp(from.frame_CB, current.frame_CB, blend),
          mix_angle(from.facing, current.facing, blend),
          from.travelled + (current.travelled - from.travelled) * blend,
          from.capsule_height + (current.capsule_height - from.capsule_height) * blend,
          from.lie_length + double(current.lie_length - from.lie_length) * blend,
          from.lie_pitch + double(current.lie_pitch - from.lie_pitch) * blend,
          round_part(from.stride + std::remainder(double(current.stride - from.stride), 1.0) * blend)};
}

Vec3 eyes_of(const Pose& pose, const Values::Capsule& capsule) {
  const Vec3 upright = pose.foot_C + pose.up_C() * (capsule.eye_height * pose.capsule_height / capsule.height);
  return upright + look_direction(pose.frame_CB, pose.facing, pose.lie_pitch) * (0.5 * pose.lie_length);
}

}  // namespace lagniappe
