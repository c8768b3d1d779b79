// SPDX-License-Identifier: MIT
// What every part of a tick works with, and the capsule as the solver sees it.
#pragma once

#include "geometry/tolerances.h"
#include "lagniappe/step.h"

namespace lagniappe {

struct StepContext {
  const InputFrame& input;
  const Profile& profile;
  const World& world;
  double dt;
  Ledger* ledger;

  template <typename Entry>
  void note(const Entry& entry) const {
    if (ledger != nullptr) ledger->entries.emplace_back(entry);
  }
};

// The capsule with its up fixed for one tick. Sweeps use the profile's radius, so a character at rest touches:
// its foot is on the floor, not above it. The solid core is thinner by the margin; only what enters the core is
// an overlap that is pushed out, so rounding (ours, or a game's world in single precision) never shakes a
// character at rest.
struct Body {
  const World& world;
  Vec3 up_C;
  double radius;
  double margin;
  double height;

  Body(const StepContext& context, const CharacterState& state)
      : world(context.world),
        up_C(state.up_C()),
        radius(context.profile.capsule.radius),
        margin(context.profile.capsule.margin),
        height(state.capsule_height) {}

  Segment axis(const Vec3& foot_C) const { return capsule_axis(foot_C, up_C, radius, height); }
  std::optional<WorldHit> sweep(const Vec3& foot_C, const Vec3& motion_C) const {
    return world.sweep(axis(foot_C), radius, motion_C);
  }
  Vec3 flat(const Vec3& v_C) const { return across(v_C, up_C); }
};

// Returns `flat_C` (across up) laid onto the plane with `normal_C`, its length kept and its direction seen from
// above unchanged. REQUIRES: dot(normal_C, up_C) > 0.
inline Vec3 laid_on(const Vec3& flat_C, const Vec3& normal_C, const Vec3& up_C) {
  const Vec3 laid = flat_C - up_C * (dot(flat_C, normal_C) / dot(normal_C, up_C));
  return unit_or(laid, Vec3(0.0)) * length(flat_C);
}

// The reverse: a velocity along the ground seen as one across up of the same length.
inline Vec3 flattened(const Vec3& along_C, const Vec3& up_C) {
  return unit_or(across(along_C, up_C), Vec3(0.0)) * length(along_C);
}

}  // namespace lagniappe
