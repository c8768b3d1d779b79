// SPDX-License-Identifier: MIT
// Every value of a profile as tables: its name in files, unit, range, and where it lies. Reader, schema test,
// identity and (in the app) every list of values go by it, so that none forgets one.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

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

// Curves, written as lists of [x, y].
struct ProfileCurve {
  std::string_view section, key;
  double lowest_x, highest_x, lowest_y, highest_y;  // Included. x in degrees, y a share.
  Curve& (*curve)(Profile&);
};
std::span<const ProfileCurve> profile_curves();

// Choices among words, and yes or no where there is one word or none.
struct ProfileChoice {
  std::string_view section, key;
  std::span<const std::string_view> words;  // Empty: true or false.
  int (*get)(const Profile&);
  void (*set)(Profile&, int);
};
std::span<const ProfileChoice> profile_choices();

std::string_view text_of(Unit unit);  // "m/s"; empty for a share.

// A value that two profiles have differently, as both would write it in a file.
struct ProfileDifference {
  std::string path;  // "ground.speed".
  std::string from, to;
  std::string_view unit;
};
std::vector<ProfileDifference> differences(const Profile& from, const Profile& to);

}  // namespace lagniappe
