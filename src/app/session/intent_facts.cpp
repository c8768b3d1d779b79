// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/intent_facts.h"

namespace lagniappe::app {
namespace {

constexpr double kNoDirection = 1e-6;

// Two axes of the ground's plane and a stick in them.
Vec3 along(const Vec3& right_C, const Vec3& away_C, const Vec2& stick) {
  return right_C * stick.x + away_C * stick.y;
}

std::optional<Vec3> by_projecting(const Eye& eye, const Vec3& up, const Vec2& stick) {
  const Vec3 away = across(eye.forward_C, up), right = across(eye.right_C(), up);
  if (length(away) < kNoDirection || length(right) < kNoDirection) return std::nullopt;
  return along(glm::normalize(right), glm::normalize(away), stick);
}

std::optional<Vec3> by_crossing(const Eye& eye, const Vec3& up, const Vec2& stick) {
  const Vec3 right = cross(eye.forward_C, up);
  if (length(right) < kNoDirection) return std::nullopt;
  const Vec3 unit = glm::normalize(right);
  return along(unit, cross(up, unit), stick);
}

}  // namespace

Vec3 IntentFacts::on_slope_C() const {
  if (!normal_C) return Vec3(0.0);
  return laid_C - *normal_C * dot(laid_C, *normal_C);
}

std::optional<IntentFacts> intent_facts(const DriveSession& session) {
  if (!session.has_shown() || session.playhead() == 0) return std::nullopt;
  const Recording& shown = session.shown();
  const CharacterState& state = session.current();
  IntentFacts facts{eye_at(state.foot_C, state.frame_CB, {state.yaw, state.pitch}), state.judged_up_C()};
  facts.raw = shown.take.inputs[session.playhead() - 1].move;
  facts.stick = shaped_stick(facts.raw, shown.take.profile.look.dead_zone);
  const StickAxes axes = stick_axes(facts.eye, facts.up_C);
  facts.laid_C = along(axes.right_C, axes.away_C, facts.stick);
  facts.projected_C = by_projecting(facts.eye, facts.up_C, facts.stick);
  facts.crossed_C = by_crossing(facts.eye, facts.up_C, facts.stick);
  for (const LedgerEntry& entry : session.last_ledger().entries) {
    if (const auto* intent = std::get_if<entry::Intent>(&entry)) facts.asked_C = intent->velocity_C;
  }
  if (state.ground.verdict != Verdict::None) facts.normal_C = state.ground.normal_C;
  return facts;
}

}  // namespace lagniappe::app
