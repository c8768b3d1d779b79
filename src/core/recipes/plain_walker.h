// SPDX-License-Identifier: MIT
// A walker as it is commonly written, stage by stage, so that a recipe can take the place of one of them.
#pragma once

#include "lagniappe/drive.h"
#include "lagniappe/step.h"

namespace lagniappe {

struct PlainBody {
  Vec3 foot_C = Vec3(0.0), up_C = Vec3(0, 1, 0);
  Quat frame_CB = Quat(1, 0, 0, 0);
  double yaw = 0.0, height = 1.8, time = 0.0;
  Vec3 run_C = Vec3(0.0);  // m/s across up; on slopes along them.
  double rise = 0.0;       // m/s along up.
  bool grounded = false;
  Vec3 normal_C = Vec3(0, 1, 0);  // Of the ground.
  double off_ground = 0.0;        // s.
  bool jumped = false;            // Since it last stood.

  // What single recipes remember.
  double asked_at = -1.0;     // s, when ground was last asked for, where that is in a loop of its own.
  bool was_grounded = false;  // What was answered then.
  double behind = 0.0;        // m along up by which the body is smoothed, and of the foot that it follows.
  std::optional<double> followed;
};

struct PlainFrame {
  const InputFrame& input;
  const Profile& profile;
  const World& world;
  double dt;
};

// What it does in a frame, in this order. Each by default as soundly as the scheme allows.
struct PlainStages {
  void (*look)(PlainBody&, const PlainFrame&);
  Vec3 (*goal)(const PlainBody&, const PlainFrame&);               // m/s across up that are asked for.
  Vec3 (*run)(PlainBody&, const Vec3& goal_C, const PlainFrame&);  // Returns the way, m.
  void (*jump)(PlainBody&, const PlainFrame&);
  double (*fall)(PlainBody&, const PlainFrame&);  // Returns the way along up, m.
  void (*move)(PlainBody&, const Vec3& way_C, double up, const PlainFrame&);
  void (*ground)(PlainBody&, const PlainFrame&);
  void (*stance)(PlainBody&, const PlainFrame&);
};
extern const PlainStages kPlain;

void advance(PlainBody& body, const PlainStages& stages, const PlainFrame& frame);

// What stages share.
Segment axis_of(const PlainBody& body, const Profile& profile);
Vec3 limited_goal(const PlainBody& body, const Vec2& stick, const Profile& profile, bool sprints);
double take_off_speed(const Profile& profile);
// Moves and slides by the three questions of a world; returns whether something above was met.
bool slide(PlainBody& body, const Vec3& way_C, const PlainFrame& frame);
// Stands on ground that is at most `reach` below, and goes there or only takes it for ground.
void stand_on(PlainBody& body, double reach, const PlainFrame& frame, bool follows = true);
// m, deepest.
double overlap(const PlainBody& body, const Profile& profile, const World& world);

}  // namespace lagniappe
