// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/carriage.h"

#include <algorithm>

#include "lagniappe/pose_feed.h"

namespace lagniappe::app {
namespace {

constexpr double kFullSwingSpeed = 0.7;  // m/s from which on the legs stride out.
constexpr double kSquatTime = 0.28;      // s that a landing takes.

// How hard the last landing was, as far as it still shows.
double squat_of(const DriveSession& session, const PoseFeed& feed) {
  if (!session.has_shown() || feed.time_on_ground >= kSquatTime) return 0.0;
  const Run& run = session.shown().run;
  const auto ago = static_cast<std::size_t>(std::lround(feed.time_on_ground * run.tick_rate()));
  if (ago >= session.playhead()) return 0.0;
  const std::size_t landed = session.playhead() - ago;
  const double strength =
      pose_feed(run.state(landed - 1), run.state(landed), session.shown_profile(), 1.0 / run.tick_rate())
          .landing;
  return strength * std::sin(kPi * feed.time_on_ground / kSquatTime);
}

}  // namespace

Carriage drawn_carriage(const DriveSession& session, const Pose& pose) {
  const int rate = session.has_shown() ? session.shown().run.tick_rate() : session.tick_rate();
  const PoseFeed feed = pose_feed(session.previous(), session.current(), session.shown_profile(), 1.0 / rate);
  Carriage carriage;
  carriage.standing_height = session.shown_profile().capsule.height;
  carriage.stride = pose.stride;
  carriage.step_length = feed.stride_length;
  carriage.swing = std::clamp(feed.speed / kFullSwingSpeed, 0.0, 1.0);
  carriage.lean = feed.lean;
  carriage.squat = squat_of(session, feed);
  carriage.pose = feed.pose;
  return carriage;
}

Carriage ghost_carriage(const Recording& recording, const Pose& pose) {
  const Values& values = recording.take.profile;
  Carriage carriage;
  carriage.standing_height = values.capsule.height;
  carriage.stride = pose.stride;
  carriage.step_length = values.gait.walking_stride;
  carriage.swing = 0.5;
  return carriage;
}

}  // namespace lagniappe::app
