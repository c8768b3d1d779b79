// SPDX-License-Identifier: MIT
// Volumes that do something to who touches them, and are not solid.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "lagniappe/capsule_queries.h"
#include "lagniappe/rigid_pose.h"
#include "lagniappe/surface.h"

namespace lagniappe {

// Shapes of zones, each on its base centre at the origin of its own frame, whose +Y is up. Sizes in metres,
// above 0 (a pill's length may be 0).
namespace zone {

struct Box {
  Vec3 size;
};
struct Cylinder {
  double radius, height;
};
struct Ball {
  double radius;
};
// Along Y; `length` is between the centres of its ends.
struct Pill {
  double radius, length;
};

}  // namespace zone

using ZoneShape = std::variant<zone::Box, zone::Cylinder, zone::Ball, zone::Pill>;

// What zones do.
namespace effect {

// Whose right, up and forward (-Z) a vector is given along.
enum class Frame : std::uint8_t { Zone, View, Facing, Course };

// Gives a velocity, once, until it is left.
struct Launch {
  Vec3 velocity = Vec3(0.0);  // m/s to the right, up and forward; against the piece that the zone goes with.
  Frame frame = Frame::Zone;
  bool pitch = false;                       // In the view: along the look, not its heading alone.
  bool sets_up = true, sets_across = true;  // Else it is added.
  double again_after = 0.0;                 // s after which it throws again who is still there; 0: never.
  std::string to;                           // A mark to throw to instead.
  double apex = 0.0;                        // m over the higher end of that way.
  Vec3 target_C = Vec3(0.0);                // Where the mark is; not in documents.
  bool operator==(const Launch&) const = default;
};

// Moves the air. In gusts it is velocity * (1 + share * sin(2 pi time / period)).
struct Wind {
  struct Gust {
    double period = 0.0;  // s; 0: none.
    double share = 0.0;
    bool operator==(const Gust&) const = default;
  };
  Vec3 velocity = Vec3(0.0);  // m/s to the right, up and forward.
  Frame frame = Frame::Zone;  // Zone or Course.
  double fade = 0.0;          // m inwards from its surface, over which it comes to its whole.
  Gust gust;
  bool operator==(const Wind&) const = default;
};

// Times the speeds on the ground.
struct Pace {
  double times = 1.0;
  bool operator==(const Pace&) const = default;
};

// What all faces in it count as.
struct SurfaceOver {
  std::string surface;  // Of the course.
  Surface is = {};      // What that name means; not in documents.
  bool operator==(const SurfaceOver&) const = default;
};

// These states are not entered, and not stayed in.
struct Barred {
  std::vector<std::string> states;
  bool operator==(const Barred&) const = default;
};

// From here on one is put home to its base.
struct Checkpoint {
  bool operator==(const Checkpoint&) const = default;
};
// Puts home.
struct SendHome {
  bool operator==(const SendHome&) const = default;
};
// Does nothing: tables and tests may ask for it.
struct Signal {
  bool operator==(const Signal&) const = default;
};

}  // namespace effect

using ZoneEffect = std::variant<effect::Launch, effect::Wind, effect::Pace, effect::SurfaceOver, effect::Barred,
                                effect::Checkpoint, effect::SendHome, effect::Signal>;

struct Zone {
  std::string id;
  ZoneShape shape;
  Vec3 at_C = Vec3(0.0);  // Centre of the base.
  Vec3 turn = Vec3(0.0);  // Yaw, pitch, roll in radians, applied roll first.
  std::string on;         // The piece that it moves with; empty: none.
  ZoneEffect effect = effect::Signal{};
};

// The frame of a zone that moves with nothing.
RigidPose frame_of(const Zone& zone);

// A capsule's way in a stretch of time, straight; its axis at the begin and at the end.
struct CapsuleWay {
  Segment from, to;
  double radius;
};

// Whether the capsule touches the shape somewhere on its way, in the shape's own frame. Exact to 1e-9 m where
// the axis does not turn on it, else the volume between its ends counts.
bool touches(const ZoneShape& shape, const CapsuleWay& way);

// m that a point of the shape's frame lies under its surface; negative outside, where only the sign counts.
double depth_in(const ZoneShape& shape, const Vec3& point);

// The box of the shape in its own frame.
Box bounds(const ZoneShape& shape);

// m/s of the air at a point, in the frame of `zone`, which is where `frame` is at the time; zero without wind.
Vec3 wind_at(const Zone& zone, const RigidPose& frame, const Vec3& point_C, double time);

// A throw that comes down at a target: up against an even pull, straight across it.
struct Throw {
  Vec3 velocity_C;  // m/s, to begin with.
  double seconds;   // Until it is there.
  double apex;      // m over where it begins.
  double to_apex;   // s.
  double landing;   // m/s downwards, at the end.
  bool terminal;    // It falls as fast as one may: the end of its way is straight.
};

// What throws.
struct ThrowPull {
  double gravity;         // m/s2 upwards, above 0;
  double fall_gravity;    // and down from the apex.
  double terminal_speed;  // m/s.
};

// Returns the throw from one place to another over an apex that lies `apex` m over the higher of them. Closed
// form: rise sqrt(2 g H), then a fall to the target, as much of it as there is at the terminal speed. Nothing
// where nothing pulls. REQUIRES: apex > 0, up_C is unit.
std::optional<Throw> throw_to(const Vec3& from_C, const Vec3& to_C, const Vec3& up_C, double apex,
                              const ThrowPull& pull);

}  // namespace lagniappe
