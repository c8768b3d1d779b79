// SPDX-License-Identifier: MIT
// Every value of a profile as tables: its name in files, unit, ranges, what it is for, and where it lies.
// Reader, writer, identity, the command line and the cards all go by them, so that none forgets a value.
#pragma once

#include <optional>
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
  Share,
  Count,  // A whole number.
};
std::string_view text_of(Unit unit);  // "m/s"; empty for shares and counts.

// "ground/response" and "time" as people and command lines write it: "ground.response.time".
std::string path_of(std::string_view section, std::string_view key);

struct ProfileField {
  std::string_view section;  // "" for the top, else as "ground" or "ground/response".
  std::string_view key;
  Unit unit;
  double low, high;               // What is taken, included, in the file's unit (angles in degrees).
  double sane_low, sane_high;     // What a walking character is tuned within.
  std::string_view help;          // What the value is, as a sentence.
  std::string_view below, above;  // What breaks outside the sane range; empty where nothing does.
  double (*get)(const Values&);   // Angles in radians.
  void (*set)(Values&, double);

  bool is_angle() const { return unit == Unit::Degrees || unit == Unit::DegreesPerSecond; }
  // The same in the file's unit.
  double typed(const Values& p) const { return is_angle() ? degrees(get(p)) : get(p); }
  void set_typed(Values& p, double value) const { set(p, is_angle() ? radians(value) : value); }
};

// All numbers, in the order of the struct.
std::span<const ProfileField> profile_fields();

// Curves, written as lists of [x, y].
struct ProfileCurve {
  std::string_view section, key;
  double lowest_x, highest_x, lowest_y, highest_y;  // Included.
  std::string_view x_unit, y_unit;                  // "deg", "m"; empty for shares and counts.
  std::string_view help;
  const Curve& (*get)(const Values&);
  Curve& (*curve)(Values&);
};
std::span<const ProfileCurve> profile_curves();

// Choices among words, and yes or no where there are no words.
struct ProfileChoice {
  std::string_view section, key;
  std::span<const std::string_view> words;  // Empty: true or false.
  std::string_view help;
  int (*get)(const Values&);
  void (*set)(Values&, int);
};
std::span<const ProfileChoice> profile_choices();

// Returns the entry with the path; null where there is none.
const ProfileField* find_field(std::string_view path);
const ProfileCurve* find_curve(std::string_view path);
const ProfileChoice* find_choice(std::string_view path);

// Returns every path, in the order of the tables.
std::vector<std::string> profile_paths();

// Returns the value as a file has it: "4", "[[0, 1], [90, 0.5]]", "travel", "true"; numbers to six digits, so
// that what degrees and radians do to the last bit is not shown. Empty for a path that is none.
std::string value_text(const Profile& profile, std::string_view path);

// A value that two profiles have differently.
struct ProfileDifference {
  std::string path;  // "ground.speed".
  std::string from, to;
  std::string_view unit;
};
// Tables of states differ as a whole, under the path "states".
inline constexpr std::string_view kStatesPath = "states";
std::vector<ProfileDifference> differences(const Profile& from, const Profile& to);

// Returns the profile at `share` of the way from one to the other: numbers and curves in proportion (a curve at
// the points of both), choices and whole numbers from the nearer one. The name is `from`'s. Whatever the
// readers guarantee of both holds for what is between.
Profile blended(const Profile& from, const Profile& to, double share);

}  // namespace lagniappe
