// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include "lagniappe/profile_fields.h"

namespace lagniappe {
namespace {

std::string path_of(std::string_view section, std::string_view key) {
  std::string path(section);
  for (char& c : path) c = c == '/' ? '.' : c;
  return path.empty() ? std::string(key) : path + "." + std::string(key);
}

// To six digits, so that what degrees and radians do to the last bit is not shown.
std::string number_text(double value) { return fmt::format("{:.6g}", value); }

std::string points_text(const Curve& curve) {
  std::string text;
  for (int i = 0; i < curve.count; ++i)
    text += fmt::format("({:.6g}, {:.6g})", curve.points[i].x, curve.points[i].y);
  return text.empty() ? "no points" : text;
}

std::string choice_text(const ProfileChoice& field, int value) {
  if (field.words.empty()) return value != 0 ? "true" : "false";
  return std::string(field.words[static_cast<std::size_t>(value)]);
}

}  // namespace

std::string_view text_of(Unit unit) {
  constexpr std::string_view kTexts[] = {"m", "s", "m/s", "m/s2", "deg", "deg/s", ""};
  return kTexts[static_cast<std::size_t>(unit)];
}

std::vector<ProfileDifference> differences(const Profile& from, const Profile& to) {
  std::vector<ProfileDifference> found;
  Profile a = from, b = to;  // The tables give references.
  for (const ProfileField& field : profile_fields()) {
    const double x = field.value(a), y = field.value(b), scale = field.is_angle() ? degrees(1.0) : 1.0;
    if (x != y)
      found.push_back({path_of(field.section, field.key), number_text(x * scale), number_text(y * scale),
                       text_of(field.unit)});
  }
  for (const ProfileCurve& field : profile_curves()) {
    const std::string x = points_text(field.curve(a)), y = points_text(field.curve(b));
    if (x != y) found.push_back({path_of(field.section, field.key), x, y, ""});
  }
  for (const ProfileChoice& field : profile_choices()) {
    if (field.get(from) != field.get(to))
      found.push_back({path_of(field.section, field.key), choice_text(field, field.get(from)),
                       choice_text(field, field.get(to)), ""});
  }
  if (from.jump.air_jumps != to.jump.air_jumps)
    found.push_back(
        {"jump.air_jumps", std::to_string(from.jump.air_jumps), std::to_string(to.jump.air_jumps), ""});
  return found;
}

}  // namespace lagniappe
