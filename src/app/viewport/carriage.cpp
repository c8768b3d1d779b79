// SPDX-License-Identifier: GPL-3.0-or-later
#include "viewport/carriage.h"

#include <algorithm>
#include <cmath>

#include "lagniappe/pose_feed.h"

namespace lagniappe::app {
namespace {

constexpr double kFullSwingSpeed = 0.7;  // m/s from which on the legs stride out.
constexpr double kSquatTime = 0.28;      // s that a landing takes.

// How hard the last landing was, as far as it still shows.
double squat_of(const Recording& recording, std::size_t tick, const PoseFeed& feed) {
  if (feed.time_on_ground >= kSquatTime) return 0.0;
  const Run& run = recording.run;
  const auto ago = static_cast<std::size_t>(std::lround(feed.time_on_ground * run.tick_rate()));
  if (ago >= tick) return 0.0;
  const std::size_t landed = tick - ago;
  const double strength =
      pose_feed(run.state(landed - 1), run.state(landed), recording.take.profile, 1.0 / run.tick_rate())
          .landing;
  return strength * std::sin(kPi * feed.time_on_ground / kSquatTime);
}

Carriage carriage_of(const PoseFeed& feed, const Values& values, const Pose& pose) {
  Carriage carriage;
  carriage.standing_height = values.capsule.height;
  carriage.stride = pose.stride;
  carriage.step_length = feed.stride_length;
  carriage.swing = std::clamp(feed.speed / kFullSwingSpeed, 0.0, 1.0);
  carriage.lean = feed.lean;
  carriage.pose = feed.pose;
  return carriage;
}

constexpr double kBetweenHands = 0.22;  // m, half of it.
constexpr double kHandOver = 0.50;      // m along a rim for both hands to go on.
constexpr double kClimbReach = 0.16;    // m that a hand is over its middle at most, climbing.
constexpr double kOverHands = 0.32;     // m of that middle over where the wall is felt for.
constexpr double kHandReach = 0.09;     // m that a hand is ahead of its middle at most.

// Hand over hand: by how far along the rim it is, so that it stays when the body does.
void hang_from(const PoseFeed& feed, const RigidPose& frame, Carriage& carriage) {
  const double along = dot(feed.hold_rim_P, feed.hold_along_P) / kHandOver;
  carriage.handing = along - std::floor(along);
  carriage.wall = feed.hold_wall;
  const double ahead = kHandReach * std::sin(2.0 * kPi * carriage.handing);
  carriage.hands_C = {frame.point(feed.hold_rim_P + feed.hold_along_P * (ahead - kBetweenHands)),
                      frame.point(feed.hold_rim_P + feed.hold_along_P * (kBetweenHands - ahead))};
}

// Hands on the wall, one above the other in turn.
void climb_with_hands(const PoseFeed& feed, const RigidPose& frame, const Vec3& up_C, Carriage& carriage) {
  const Vec3 hands = frame.point(feed.hold_rim_P), away = frame.rotation_CP * feed.hold_away_P;
  const Vec3 right = unit_or(cross(up_C, away), Vec3(0.0));
  const Vec3 up_P = glm::conjugate(frame.rotation_CP) * up_C,
             right_P = glm::conjugate(frame.rotation_CP) * right;
  const double gone = (dot(feed.hold_rim_P, up_P) + dot(feed.hold_rim_P, right_P)) / kHandOver;
  carriage.handing = gone - std::floor(gone);
  carriage.wall = feed.hold_wall;
  const double over = kClimbReach * std::sin(2.0 * kPi * carriage.handing);
  carriage.hands_C = {hands - right * kBetweenHands + up_C * (kOverHands + over),
                      hands + right * kBetweenHands + up_C * (kOverHands - over)};
}

// Of a hand or a foot that goes from rung to rung in turn with the other: where it is, in rungs over the
// lowest, when the body is so many rungs high.
double rung_of(double high, int which, int last) {
  constexpr double kMoving = 0.35;  // Share of the way in which it is off its rung.
  const auto rung = [&](double pair) {
    return std::clamp(2.0 * pair + which, double(which), double(last - ((last - which) & 1)));
  };
  const double pair = 0.5 * (high - which) + 0.5, begun = std::floor(pair);
  const double t = std::min((pair - begun) / kMoving, 1.0);
  return std::lerp(rung(begun - 1.0), rung(begun), t * t * (3.0 - 2.0 * t));
}

// Hands and feet on the rungs.
void climb_rungs(const PoseFeed& feed, const RigidPose& frame, const Ladder& ladder, const Pose& pose,
                 Carriage& carriage) {
  constexpr double kUnderBody = 0.2, kStile = 0.09;  // m.
  const Vec3 up_C = pose.frame_CB * Vec3(0, 1, 0), hands = frame.point(feed.hold_rim_P);
  const Vec3 away = frame.rotation_CP * feed.hold_away_P;
  const Vec3 along = dot(ladder.along_C, up_C) < 0.0 ? -ladder.along_C : ladder.along_C;
  const Vec3 right =
      unit_or(cross(along, away), Vec3(0.0)) * std::min(kBetweenHands, 0.5 * ladder.width - kStile);
  const int last = std::max(static_cast<int>((ladder.height - ladder.first) / feed.hold_spacing + 1e-6), 1);
  const auto over_hands = [&](double high, int which) {
    return rung_of((feed.hold_over_rung + high) / feed.hold_spacing, which, last) * feed.hold_spacing -
           feed.hold_over_rung;
  };
  const double foot = dot(pose.foot_C - hands, along);
  carriage.hands_C = {hands - right + along * over_hands(kOverHands, 0),
                      hands + right + along * over_hands(kOverHands, 1)};
  carriage.feet = {over_hands(foot + kUnderBody, 1) - foot, over_hands(foot + kUnderBody, 0) - foot};
  carriage.wall = feed.hold_wall;
}

// Both hands on the rim, a shoulder's width apart, as its piece is drawn now.
void take_hold(const PoseFeed& feed, const World& world, double time, const Pose& pose, Carriage& carriage) {
  if (feed.hold.empty()) return;
  const RigidPose frame = world.piece_frame(feed.hold_piece, time);
  carriage.hold_phase = feed.hold_phase;
  if (feed.hold == name_of(Hold::Kind::Hang)) return hang_from(feed, frame, carriage);
  if (feed.hold == name_of(Hold::Kind::Climb)) {
    const auto ladder = feed.hold_spacing > 0.0 ? world.ladder(feed.hold_piece, {time}) : std::nullopt;
    return ladder ? climb_rungs(feed, frame, *ladder, pose, carriage)
                  : climb_with_hands(feed, frame, pose.frame_CB * Vec3(0, 1, 0), carriage);
  }
  const Vec3 up_P = unit_or(feed.hold_rim_P - feed.hold_from_P, Vec3(0, 1, 0));
  const Vec3 side_P = unit_or(cross(feed.hold_to_P - feed.hold_from_P, up_P), Vec3(0.0)) * kBetweenHands;
  carriage.hands_C = {frame.point(feed.hold_rim_P - side_P), frame.point(feed.hold_rim_P + side_P)};
  carriage.vaults = feed.hold == name_of(Hold::Kind::Vault);
}

}  // namespace

Carriage drawn_carriage(const DriveSession& session, const Pose& pose) {
  const int rate = session.has_shown() ? session.shown().run.tick_rate() : session.tick_rate();
  const PoseFeed feed = pose_feed(session.previous(), session.current(), session.shown_profile(), 1.0 / rate);
  Carriage carriage = carriage_of(feed, session.shown_profile(), pose);
  if (session.place() != nullptr)
    take_hold(feed, session.place()->world, session.moment().time, pose, carriage);
  if (session.has_shown()) carriage.squat = squat_of(session.shown(), session.playhead(), feed);
  return carriage;
}

Carriage carriage_at(const Recording& recording, const World& world, std::size_t tick, const Pose& pose) {
  const Run& run = recording.run;
  const PoseFeed feed = pose_feed(run.state(tick > 0 ? tick - 1 : 0), run.state(tick), recording.take.profile,
                                  1.0 / run.tick_rate());
  Carriage carriage = carriage_of(feed, recording.take.profile, pose);
  take_hold(feed, world, run.state(tick).time, pose, carriage);
  carriage.squat = squat_of(recording, tick, feed);
  return carriage;
}

}  // namespace lagniappe::app
