// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>

#include "lagniappe/profile_fields.h"
#include "lagniappe/states.h"

namespace lagniappe {
namespace {

std::string points_text(const Curve& curve) {
  std::string text = "[";
  for (int i = 0; i < curve.count; ++i)
    text += fmt::format("{}[{:.6g}, {:.6g}]", i > 0 ? ", " : "", curve.points[i].x, curve.points[i].y);
  return text + "]";
}

std::string choice_text(const ProfileChoice& field, int value) {
  if (field.words.empty()) return value != 0 ? "true" : "false";
  return std::string(field.words[static_cast<std::size_t>(value)]);
}

// At most kMostPoints of the points of both, in order; the last of too many give way.
Curve blended(const Curve& from, const Curve& to, double share, double empty) {
  if (from.count == 0 && to.count == 0) return {};
  std::vector<double> at;
  for (const Curve* curve : {&from, &to}) {
    for (int i = 0; i < curve->count; ++i) at.push_back(curve->points[i].x);
  }
  std::sort(at.begin(), at.end());
  at.erase(std::unique(at.begin(), at.end()), at.end());
  const auto value = [&](const Curve& curve, double x) { return curve.count > 0 ? curve.at(x) : empty; };
  Curve between;
  for (const double x : at) {
    if (between.count == Curve::kMostPoints) break;
    between.points[between.count++] = Vec2(x, glm::mix(value(from, x), value(to, x), share));
  }
  return between;
}

}  // namespace

std::string_view text_of(Unit unit) {
  constexpr std::string_view kTexts[] = {"m", "s", "m/s", "m/s2", "deg", "deg/s", "", ""};
  return kTexts[static_cast<std::size_t>(unit)];
}

std::string value_text(const Profile& profile, std::string_view path) {
  if (const ProfileField* field = find_field(path)) return fmt::format("{:.6g}", field->typed(profile));
  if (const ProfileCurve* field = find_curve(path)) return points_text(field->get(profile));
  if (const ProfileChoice* field = find_choice(path)) return choice_text(*field, field->get(profile));
  return {};
}

namespace {

std::string states_summary(const StateTable& table) {
  if (table == built_in_states()) return "built in";
  return fmt::format("{} states, {} transitions", table.states.size(), table.transitions.size());
}

}  // namespace

std::vector<ProfileDifference> differences(const Profile& from, const Profile& to) {
  std::vector<ProfileDifference> found;
  const auto add = [&](const auto& field, std::string_view unit) {
    const std::string path = path_of(field.section, field.key);
    found.push_back({path, value_text(from, path), value_text(to, path), unit});
  };
  for (const ProfileField& field : profile_fields()) {
    if (field.get(from) != field.get(to)) add(field, text_of(field.unit));
  }
  for (const ProfileCurve& field : profile_curves()) {
    if (points_text(field.get(from)) != points_text(field.get(to))) add(field, "");
  }
  for (const ProfileChoice& field : profile_choices()) {
    if (field.get(from) != field.get(to)) add(field, "");
  }
  const StateTable &a = chart_of(from).table(), &b = chart_of(to).table();
  if (a != b) found.push_back({std::string(kStatesPath), states_summary(a), states_summary(b), ""});
  return found;
}

Profile blended(const Profile& from, const Profile& to, double share) {
  const bool nearer_to = share >= 0.5;
  Profile between = nearer_to ? to : from;
  between.name = from.name;
  if (share <= 0.0 || share >= 1.0) return between;
  for (const ProfileField& field : profile_fields()) {
    if (field.unit != Unit::Count) field.set(between, glm::mix(field.get(from), field.get(to), share));
  }
  for (const ProfileCurve& field : profile_curves()) {
    // Without points air jumps are as high as the first one, and shares are 1.
    const bool air_jumps = field.y_unit == "m";
    const double empty = air_jumps ? between.jump.height : 1.0;
    field.curve(between) = blended(field.get(from), field.get(to), share, empty);
  }
  return between;
}

}  // namespace lagniappe
