// SPDX-License-Identifier: MIT
#include <algorithm>
#include <optional>

#include "io/json_document.h"
#include "lagniappe/files.h"
#include "lagniappe/profile_fields.h"

namespace lagniappe {
namespace {

const std::vector<std::string_view> kSections = {"capsule", "ground", "air",      "jump",
                                                 "fly",     "look",   "smoothing"};
const std::vector<std::string_view> kResponseModels = {"instant", "steady", "exponential", "smooth"};

// Keys of a section that are no numbers of the table.
std::vector<std::string_view> other_keys(std::string_view section) {
  if (section.empty()) {
    std::vector<std::string_view> keys = kSections;
    keys.push_back("name");
    return keys;
  }
  if (section == "ground" || section == "air") return {"response"};
  if (section == "ground/response" || section == "air/response") return {"model"};
  if (section == "jump") return {"air_jumps"};
  return {};
}

// Reads the section's numbers; what is missing keeps its default.
void read_numbers(const JsonCursor& cursor, std::string_view section, Profile& profile) {
  std::vector<std::string_view> known = other_keys(section);
  for (const ProfileField& field : profile_fields()) {
    if (field.section == section) known.push_back(field.key);
  }
  cursor.only_keys(known);
  for (const ProfileField& field : profile_fields()) {
    if (field.section != section || !cursor.has(field.key)) continue;
    const double number = cursor.at(field.key).number({field.low, field.high});
    field.value(profile) = field.is_angle() ? radians(number) : number;
  }
}

void read_response(const JsonCursor& section, std::string_view name, Response& response, Profile& profile) {
  if (!section.has("response")) return;
  const JsonCursor cursor = section.at("response");
  read_numbers(cursor, name, profile);
  if (!cursor.has("model")) return;
  response.model = static_cast<Response::Model>(cursor.at("model").one_of(kResponseModels));
}

// Defaults that follow another value where the file names only that one, and what must fit together.
void fit_together(const JsonCursor& document, Profile& profile) {
  const auto named = [&](std::string_view section, std::string_view key) {
    return document.has(section) && document.at(section).has(key);
  };
  auto& [radius, height, eye_height, margin] = profile.capsule;
  if (height < 2.0 * radius) {
    document.at("capsule").fail("the height must be at least twice the radius, else it is no capsule");
  }
  if (!named("capsule", "eye_height")) eye_height = std::min(eye_height, 0.92 * height);
  if (eye_height > height)
    document.at("capsule").at("eye_height").fail("the eyes must not be above the capsule's height");
  if (!named("capsule", "margin")) margin = std::min(margin, radius / 2.0);
  if (margin > radius / 2.0)
    document.at("capsule").at("margin").fail("the margin must be at most half the radius");
  if (!named("ground", "sprint_speed"))
    profile.ground.sprint_speed = std::max(profile.ground.sprint_speed, profile.ground.speed);
  if (!named("fly", "sprint_speed"))
    profile.fly.sprint_speed = std::max(profile.fly.sprint_speed, profile.fly.speed);
}

Profile read(const JsonCursor& document) {
  Profile profile;
  read_numbers(document, "", profile);
  if (document.has("name")) profile.name = document.at("name").name();
  for (const std::string_view section : kSections) {
    if (document.has(section)) read_numbers(document.at(section), section, profile);
  }
  if (document.has("ground"))
    read_response(document.at("ground"), "ground/response", profile.ground.response, profile);
  if (document.has("air")) read_response(document.at("air"), "air/response", profile.air.response, profile);
  if (document.has("jump") && document.at("jump").has("air_jumps")) {
    profile.jump.air_jumps = document.at("jump").at("air_jumps").integer(0, 100);
  }
  fit_together(document, profile);
  return profile;
}

}  // namespace

Result<Profile> parse_profile(std::string_view text, const std::string& file) {
  return read_document(text, file, "profile", read);
}

Result<Profile> read_profile(const std::string& path) {
  return read_text(path).and_then([&](const std::string& text) { return parse_profile(text, path); });
}

}  // namespace lagniappe
