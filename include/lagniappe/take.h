// SPDX-License-Identifier: MIT
// A recorded run: all that is needed to run it again, anywhere.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "lagniappe/course.h"
#include "lagniappe/input_frame.h"
#include "lagniappe/profile.h"
#include "lagniappe/state_parts.h"

namespace lagniappe {

// No take is longer: its run takes about 0.6 kB a tick, an hour of 480 ticks/s a gigabyte.
inline constexpr std::size_t kMostTicks = 2'000'000;

// Time of a drawn frame that no tick was done for, because making it up would have taken too long.
struct DroppedTime {
  std::uint64_t after_tick;  // Counted from the take's start.
  double seconds;
};

// From which tick on another device drove; counted from the take's start.
struct DeviceUse {
  std::uint64_t from_tick;
  std::string device;  // "keys and mouse", a pad's name.
  bool operator==(const DeviceUse&) const = default;
};

// What people say about a take, and what is shown of it before it is opened.
struct TakeAbout {
  std::string name;        // "sluice stairs, sprint, 12 s".
  std::string note;        //
  bool star = false;       //
  std::string recorded;    // ISO 8601, UTC, when the recording began.
  std::vector<Vec2> path;  // m, x and z of the foot in the course frame: a few points of the way, in order.
  std::uint64_t ticks = 0;
  // What it was driven on, with and by, for lists; takes of before do not say.
  std::string course, profile;
  std::vector<std::string> devices;
  int tick_rate = 0;
};

struct Take {
  CharacterState start;
  int tick_rate = 60;
  std::vector<InputFrame> inputs;  // One a tick.

  // What it ran on. REQUIRES: course is not null where a take is written.
  std::shared_ptr<const Course> course;
  Profile profile;
  std::uint64_t course_identity = 0;  // See identity_of().
  std::uint64_t profile_identity = 0;
  std::string course_file, profile_file;  // Where those came from; may be empty.

  // part_hashes() of the state after each tick, of the parts that the take knows; empty, or as many as inputs.
  PartVersions parts = present_parts();
  std::vector<PartHashes> hashes;
  // undivided_hash() instead, of takes from before parts had hashes of their own.
  std::vector<std::uint64_t> undivided_hashes;
  std::vector<DroppedTime> dropped;
  std::vector<DeviceUse> devices;  // In the order of ticks; empty where it is not known.
  TakeAbout about;

  bool is_hashed() const { return !hashes.empty() || !undivided_hashes.empty(); }
  double seconds() const { return static_cast<double>(inputs.size()) / tick_rate; }
};

// Returns a number that is equal for places in which every run is the same, and hardly ever for others: a hash
// of triangles, piece names and limits.
std::uint64_t identity_of(const TriangleWorld& world);
// The same for profiles: a hash of every value, names aside.
std::uint64_t identity_of(const Profile& profile);

// Returns inputs for `to_rate` that do over each time what `inputs` do at `from_rate`: what a hand turned is
// shared out by time; sticks move, looks are set, buttons go down and up at their instants, and no press is
// lost.
std::vector<InputFrame> inputs_at_rate(const std::vector<InputFrame>& inputs, int from_rate, int to_rate);

// Notes that a device drives from that tick on. REQUIRES: no earlier one than noted before.
void note_device(std::vector<DeviceUse>& devices, std::uint64_t from_tick, const std::string& device);
// Returns each device of the list once, in the order in which they first drove.
std::vector<std::string> names_of(const std::vector<DeviceUse>& devices);

// Returns ticks [first, last) of a take as one of its own, that begins with `start`: the state before its first
// tick. REQUIRES: first <= last <= inputs.size().
Take part_of(const Take& take, std::size_t first, std::size_t last, const CharacterState& start);

}  // namespace lagniappe
