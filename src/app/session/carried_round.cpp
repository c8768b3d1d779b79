// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/carried_round.h"

#include <cmath>

#include "lagniappe/turns.h"

namespace lagniappe::app {
namespace {

constexpr double kHere = 0.75, kAway = 3.0;  // m.
constexpr std::size_t kMostTicks = 36000;    // That are looked back over.

Vec3 heading(const CharacterState& state, double yaw) {
  return state.frame_CB * Vec3(-std::sin(yaw), 0.0, -std::cos(yaw));
}

}  // namespace

std::optional<CarriedRound> carried_round(const DriveSession& session) {
  if (!session.has_shown()) return std::nullopt;
  const Run& run = session.shown().run;
  const std::size_t now = session.playhead();
  const CharacterState& here = run.state(now);
  double by_hand = 0.0, nearest = kHere;
  bool away = false;
  std::optional<CarriedRound> found;
  for (std::size_t t = now; t > 0 && now - t < kMostTicks; --t) {
    const CharacterState &after = run.state(t), &before = run.state(t - 1);
    if (after.times_put_home != before.times_put_home) break;
    by_hand += wrap_angle(after.yaw - before.yaw);
    const double apart = length(before.foot_C - here.foot_C);
    away = away || apart > kAway;
    if (found && apart > kAway) break;
    if (!away || apart >= nearest) continue;
    nearest = apart;
    const Vec3 up = here.up_C(), was = across(heading(before, before.yaw), up),
               is = across(heading(here, here.yaw - by_hand), up);
    found = CarriedRound{t - 1, std::atan2(dot(cross(was, is), up), dot(was, is))};
  }
  return found;
}

}  // namespace lagniappe::app
