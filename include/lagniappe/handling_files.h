// SPDX-License-Identifier: MIT
// What a profile comes to, as files: curves for papers and tables, and constants for games that do not embed
// the core.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "lagniappe/profile.h"

namespace lagniappe {

struct CurveDrawing {
  std::string name;   // "jump".
  std::string title;  // "Height of a jump over time".
  std::string x, y;   // What the axes are, with units: "time (s)".
  std::vector<Vec2> points;
};

// "walk", "air": speed over time of a push of 1 s and its release. "jump": height over time. "jump-cut": let go
// at once. "arc": height over way at walking speed. "slopes": speed over slope. "walls": share kept over
// approach.
std::span<const std::string_view> curve_names();

// REQUIRES: one of curve_names().
CurveDrawing curve_drawing(const Profile& profile, std::string_view name);

std::string curve_csv(const CurveDrawing& curve);
// To scale where both axes are metres.
std::string curve_svg(const CurveDrawing& curve);

// Every value and figure with its unit, range, default and what it is for, as JSON.
std::string profile_sheet(const Profile& profile, int tick_rate);

// The values that a game needs to reproduce the motion, with units in their names, and the figures with their
// formulas.
std::string constants_json(const Profile& profile);
// The same as a C++ header of constexpr doubles.
std::string constants_header(const Profile& profile);

}  // namespace lagniappe
