// SPDX-License-Identifier: MIT
// Every number of a profile as a table: its name in files, unit, range, and where it lies. Reader, schema test,
// identity and (in the app) every list of values go by it, so that none forgets one.
#pragma once

#include <span>
#include <string_view>

#include "lagniappe/profile.h"

namespace lagniappe {

enum class Unit : std::uint8_t {
  Metres,
  Seconds,
  MetresPerSecond,
  MetresPerSecond2,
  Degrees,
  DegreesPerSecond,
  Share
};

struct ProfileField {
  std::string_view section;  // "" for the top, else as "ground" or "ground/response".
  std::string_view key;
  Unit unit;
  double low, high;            // Included, in the file's unit (angles in degrees).
  double& (*value)(Profile&);  // Angles in radians.

  bool is_angle() const { return unit == Unit::Degrees || unit == Unit::DegreesPerSecond; }
};

// All numbers but air_jumps, in the order of the struct.
std::span<const ProfileField> profile_fields();

}  // namespace lagniappe
