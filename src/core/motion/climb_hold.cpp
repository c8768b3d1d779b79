// SPDX-License-Identifier: MIT
#include "motion/climb_hold.h"

#include <algorithm>

#include "motion/holding.h"

namespace lagniappe {

ClimbShape climb_shape(const StepContext& context, const CharacterState& state) {
  const Values& p = context.profile;
  ClimbShape shape;
  shape.up_C = state.up_C();
  shape.radius = p.capsule.radius;
  shape.height = state.capsule_height;
  shape.margin = p.capsule.margin;
  shape.gap = p.climb.gap;
  shape.hands = p.climb.hands;
  shape.most_back = p.climb.most_back;
  shape.most_over = p.climb.most_over;
  shape.steepest_floor = p.ground.steepest_walkable;
  shape.moment = context.now;
  return shape;
}

WallGrip grip_of(const StepContext& context, const CharacterState& state) {
  const Hold& hold = state.hold;
  const ClimbHold wall = hold.wall();
  const RigidPose frame = hold_frame(context, hold.piece);
  WallGrip grip;
  grip.foot_C = frame.point(hold.at_P);
  grip.normal_C = unit_or(frame.rotation_CP * Vec3(wall.normal_P), Vec3(0.0));
  grip.hands_C = frame.point(hold.at_P + Vec3(wall.hands_P));
  grip.piece = hold.piece;
  grip.spacing = wall.spacing;
  grip.over_rung = wall.over_rung;
  return grip;
}

void keep_grip(const StepContext& context, const WallGrip& grip, const ClimbHold& before,
               CharacterState& state) {
  Hold& hold = state.hold;
  const RigidPose frame = hold_frame(context, grip.piece);
  hold.piece = grip.piece;
  hold.at_P = frame.back(grip.foot_C);
  ClimbHold kept = before;
  kept.normal_P = glm::vec3(glm::conjugate(frame.rotation_CP) * grip.normal_C);
  kept.hands_P = glm::vec3(frame.back(grip.hands_C) - hold.at_P);
  kept.spacing = static_cast<float>(grip.spacing);
  kept.over_rung = static_cast<float>(grip.over_rung);
  hold.set(kept);
}

void note_grip(const StepContext& context, const WallGrip& grip, bool from_above) {
  context.note(entry::Gripped{grip.hands_C, grip.foot_C, from_above, grip.piece});
}

void take_grip(const StepContext& context, const WallGrip& grip, const Vec3& from_C, float bend,
               CharacterState& state) {
  state.hold = Hold{};
  state.hold.kind = Hold::Kind::Climb;
  state.hold.seconds = static_cast<float>(std::max(context.profile.climb.take_time, 1e-3));
  const RigidPose frame = hold_frame(context, grip.piece);
  ClimbHold kept;
  kept.pull_P = glm::vec3(glm::conjugate(frame.rotation_CP) * (from_C - grip.foot_C));
  kept.bend = bend;
  keep_grip(context, grip, kept, state);
  note_grip(context, grip, false);
}

Vec3 pull_left(const StepContext& context, const CharacterState& state) {
  const ClimbHold hold = state.hold.wall();
  const double share = state.hold.phase();
  const Quat turn = hold_frame(context, state.hold.piece).rotation_CP;
  const Vec3 pull = turn * Vec3(hold.pull_P);
  if (hold.bend == 0.0f) return pull * (1.0 - share);
  const Vec3 out = unit_or(across(turn * Vec3(hold.normal_P), state.up_C()), Vec3(0.0));
  const double off = dot(pull, out) * hold.bend;
  const Vec3 first = hold.bend > 0.0f ? out * std::min(off, 0.0) : pull + out * std::min(off, 0.0);
  const Vec3 last = pull - first;
  const double gone = share * (length(first) + length(last));
  if (gone < length(first)) return last + first * (1.0 - gone / length(first));
  return last * ((1.0 - share) * (length(first) + length(last)) / std::max(length(last), kTouch));
}

}  // namespace lagniappe
