// SPDX-License-Identifier: GPL-3.0-or-later
// Places and takes that are ready to be shown: everything computed, nothing to wait for.
#pragma once

#include <QString>
#include <memory>
#include <optional>

#include "lagniappe/lagniappe.h"
#include "session/scene_mesh.h"

namespace lagniappe::app {

// A course that is ready to be driven. Never changed after it is made, so it may be shared with other threads.
struct Place {
  std::string path;
  Course course;
  TriangleWorld world;
  SceneMesh drawn;
  std::uint64_t identity = 0;
};

// Returns the place of a course; nothing if `wanted()` turned false on the way.
std::shared_ptr<const Place> make_place(const std::string& path, Course course,
                                        const std::function<bool()>& wanted = {});

// A take that has been run, with the place it ran on. A value; copies share the states.
struct Recording {
  Take take;
  std::shared_ptr<const Place> place;
  Run run;
  QString file;  // In the study; empty while it is not saved.
};

// Returns the time of day as takes keep it: ISO 8601, UTC.
std::string now_text();

// Returns a recording of no ticks that begins with `start`.
Recording begin_recording(const CharacterState& start, std::shared_ptr<const Place> place,
                          const Profile& profile, int tick_rate);

// Returns whether an input has anything in it; a stick within its dead zone is at rest.
bool has_input(const InputFrame& input, const Profile& profile);

// Returns whether somebody did something in it: a take of standing about is not worth keeping.
bool is_worth_keeping(const Recording& recording);

// Fills in the take what is known of its run: hashes, name (unless it has one), path.
void complete(Recording& recording);

// Returns the ledger of a tick; empty for the start.
Ledger ledger_at(const Recording& recording, std::size_t tick);

}  // namespace lagniappe::app
