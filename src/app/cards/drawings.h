// SPDX-License-Identifier: GPL-3.0-or-later
// The drawings that cards are made of.
#pragma once

#include "cards/drawing.h"

namespace lagniappe::app {

// The two of height, time to apex, gravity and take-off speed that stay when another changes.
struct JumpLocks {
  JumpValue first = JumpValue::Height, second = JumpValue::Gravity;
  bool has(JumpValue v) const { return v == first || v == second; }
};

// Returns the profile with one of the four set: it and one of the locked two stay, the others follow.
std::optional<Profile> with_jump_value(const Profile& profile, const JumpLocks& locks, JumpValue which,
                                       double value);

std::unique_ptr<CardDrawing> body_drawing();
std::unique_ptr<CardDrawing> walk_drawing();
std::unique_ptr<CardDrawing> air_drawing();
std::unique_ptr<CardDrawing> jump_drawing(const JumpLocks& locks);  // Which it follows; must outlive it.
std::unique_ptr<CardDrawing> slope_drawing();
std::unique_ptr<CardDrawing> step_drawing();
std::unique_ptr<CardDrawing> ledge_drawing();
std::unique_ptr<CardDrawing> mantle_drawing();
std::unique_ptr<CardDrawing> hang_drawing();
std::unique_ptr<CardDrawing> climb_drawing();
std::unique_ptr<CardDrawing> heights_drawing();  // What is done with each height of an obstacle.
std::unique_ptr<CardDrawing> stick_drawing();
std::unique_ptr<CardDrawing> camera_drawing();
// A curve of the profile, by its path, as one edits it.
std::unique_ptr<CardDrawing> curve_editor(const char* path);

}  // namespace lagniappe::app
