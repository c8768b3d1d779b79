// SPDX-License-Identifier: MIT
// What every part of a tick works with, and the capsule as the solver sees it.
#pragma once

#include <algorithm>
#include <array>

#include "geometry/tolerances.h"
#include "lagniappe/character_state.h"
#include "lagniappe/ledger.h"
#include "lagniappe/profile.h"
#include "lagniappe/world.h"

namespace lagniappe {

// The ways that pieces have moved a character in a tick, before it moved by itself.
struct Pushes {
  std::array<Vec3, kMostPlanes> shift_C;
  int count = 0;
  Vec3 carried_C = Vec3(0.0);  // What it went along with a piece, underfoot or around it.

  // What a way of one's own adds to them: who goes as fast as what pushes is not moved twice.
  Vec3 beyond(Vec3 way_C) const {
    for (int i = 0; i < count; ++i) {
      const double pushed = length(shift_C[i]);
      if (pushed <= 0.0) continue;
      const Vec3 along = shift_C[i] / pushed;
      way_C -= along * std::clamp(dot(way_C, along), 0.0, pushed);
    }
    return way_C;
  }
};

// Where a motion is to end before its time: at the contact with which something else begins. That is ground met
// in the air, a wall met there, a ceiling met while rising, the foot of a slope that is skidded down.
struct Stop {
  double least = 0.0;      // s; what is met sooner is gone along.
  double at = kNever;      // s after the beginning, if there was such a contact.
  bool rolls = false;      // Round the end of a wall, in stretches: meeting and losing it is no event.
  bool bends = false;      // The way bends beside a wall: its chord may pass what it would meet, or lead on
                           // where the wall it was bent by has ended.
  bool turned = false;     // A motion on the ground was turned along a face that it met.
  Vec3 way_C = Vec3(0.0);  // What a motion on the ground was to be, by itself.
  // Unit, across up, of the wall that one pushes against in the air: just before, and now; zero without.
  Vec3 known_C = Vec3(0.0), pressed_C = Vec3(0.0);
  static constexpr double kNever = 1e9;
};

// What pulls, at a point and an instant.
struct Felt {
  bool says = false;  // Whether the world has gravity of its own.
  Gravity gravity = {};
  double own_gravity = 0.0;  // m/s2 of the values in force, where nothing else pulls.
  Vec3 pull_C = Vec3(0.0);   // m/s2.
  Vec3 up_C = Vec3(0.0);     // Unit, against it; zero where nothing pulls.

  // The strength of the pull takes the place of gravity.
  void apply(Values& values) const {
    if (says) values.gravity = up_C != Vec3(0.0) ? length(gravity.of(values.gravity)) : 0.0;
  }
};

// A tick, or the part of one between two events.
struct StepContext {
  const InputFrame& input;
  const Values& profile;  // In force: with what the state overrides.
  const World& world;
  double dt;  // s of the part.
  Ledger* ledger;
  Moment now;            // The end of the part: moving pieces are there already.
  double share = 1.0;    // Of the tick's time.
  Stop* stop = nullptr;  // Null: goes on whatever is met.
  Pushes pushes = {};
  Vec2 look_back = Vec2(0.0);  // rad of yaw and pitch from the look to where it was in the middle of the part.
  bool throws = true;          // Launches do, in the present state.
  double pace = 1.0;           // Times the speeds on the ground: by zones.
  std::uint64_t barred = 0;    // A bit for each state that zones bar.
  Felt felt = {};              // Its up is what is judged by: ground and walls, and which way one falls.

  // Against the pull; where nothing is said of that, or nothing pulls, the body's.
  Vec3 up_of(const CharacterState& state) const { return felt.up_C != Vec3(0.0) ? felt.up_C : state.up_C(); }

  template <typename Entry>
  void note(const Entry& entry) const {
    if (ledger != nullptr) ledger->entries.emplace_back(entry);
  }
};

// The capsule, and the up that it is judged by, fixed for one part of a tick: the body may not have turned
// there yet, and leans. Sweeps use the profile's radius, so a character at rest touches: its foot is on the
// floor, not above it. The solid core is thinner by the margin; only what enters the core is an overlap that is
// pushed out, so rounding (ours, or a game's world in single precision) never shakes a character at rest.
struct Body {
  const World& world;
  Moment now;
  Vec3 up_C;
  double radius;
  double margin;
  double height;
  Vec3 low_C, high_C;  // From the foot to the ends of the axis: feet and head.

  Body(const StepContext& context, const CharacterState& state)
      : world(context.world),
        now(context.now),
        up_C(context.up_of(state)),
        radius(context.profile.capsule.radius),
        margin(context.profile.capsule.margin),
        height(state.capsule_height) {
    const Segment axis = capsule_axis(state, radius);
    low_C = axis.a_C - state.foot_C;
    high_C = axis.b_C - state.foot_C;
  }

  // The same capsule where one piece is not there.
  Body without(PieceId piece) const {
    Body body = *this;
    body.now.without = piece;
    return body;
  }

  // The same where nothing is that moves.
  Body among_still() const {
    Body body = *this;
    body.now.still = true;
    return body;
  }

  Segment axis(const Vec3& foot_C) const { return {foot_C + low_C, foot_C + high_C}; }
  std::optional<WorldHit> sweep(const Vec3& foot_C, const Vec3& motion_C) const {
    return world.sweep(axis(foot_C), radius, motion_C, now);
  }
  std::optional<WorldRayHit> cast_ray(const Vec3& origin_C, const Vec3& motion_C) const {
    return world.cast_ray(origin_C, motion_C, now);
  }
  Vec3 flat(const Vec3& v_C) const { return across(v_C, up_C); }
};

// What the capsule touches, what bears most first.
struct Touching {
  std::array<WorldContact, kMostContacts> contact;
  std::size_t count = 0;

  Touching(const Body& body, const Vec3& foot_C) {
    Moment moment = body.now;
    moment.wanted_C = body.up_C;
    count = body.world.contacts(body.axis(foot_C), body.radius + kGroundTouch, contact, moment);
  }
  const WorldContact* begin() const { return contact.data(); }
  const WorldContact* end() const { return contact.data() + count; }
};

using SpeedOnSlopes = Profile::Ground::SpeedOnSlopes;

// By how much a speed as seen from above may be less than that along the surface: on what is steeper than 48
// degrees, as rungs are, the way up would else be a run.
inline constexpr double kMostOfLevel = 1.5;

// Returns `flat_C` (across up) laid onto the plane with `normal_C`, its direction seen from above unchanged.
// Its length is kept along the surface, or as seen from above. REQUIRES: dot(normal_C, up_C) > 0.
inline Vec3 laid_on(const Vec3& flat_C, const Vec3& normal_C, const Vec3& up_C,
                    SpeedOnSlopes measure = SpeedOnSlopes::Along) {
  const Vec3 laid = flat_C - up_C * (dot(flat_C, normal_C) / dot(normal_C, up_C));
  const double flat = length(flat_C);
  if (measure == SpeedOnSlopes::Level && length(laid) <= kMostOfLevel * flat) return laid;
  return unit_or(laid, Vec3(0.0)) * (measure == SpeedOnSlopes::Level ? kMostOfLevel * flat : flat);
}

// The reverse: a velocity along the ground seen as one across up of the same measure.
inline Vec3 flattened(const Vec3& along_C, const Vec3& up_C, SpeedOnSlopes measure = SpeedOnSlopes::Along) {
  const Vec3 flat = across(along_C, up_C);
  const double along = length(along_C);
  if (measure == SpeedOnSlopes::Level && along <= kMostOfLevel * length(flat)) return flat;
  return unit_or(flat, Vec3(0.0)) * (measure == SpeedOnSlopes::Level ? along / kMostOfLevel : along);
}

// The slope of the plane with `normal_C` in the direction `flat_C`: radians, uphill positive; 0 without a
// direction.
inline double slope_along(const Vec3& flat_C, const Vec3& normal_C, const Vec3& up_C) {
  const double across_up = length(flat_C), upright = dot(normal_C, up_C);
  return across_up > 0.0 ? std::atan2(-dot(flat_C, normal_C), upright * across_up) : 0.0;
}

}  // namespace lagniappe
