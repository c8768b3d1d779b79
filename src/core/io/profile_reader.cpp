// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>

#include "io/document_writers.h"
#include "io/old_words.h"
#include "io/states_document.h"
#include "io/value_document.h"
#include "lagniappe/files.h"
#include "lagniappe/profile_fields.h"

namespace lagniappe {
namespace {

const std::vector<std::string_view> kSections = {
    "capsule", "ground", "ledge",   "hang",  "climb", "mantle",    "walls",  "air",     "skid",
    "jump",    "fly",    "upright", "float", "look",  "smoothing", "camera", "stances", "gait"};

// Keys of a section that are in none of the tables.
std::vector<std::string_view> other_keys(std::string_view section) {
  if (section.empty()) {
    std::vector<std::string_view> keys = kSections;
    keys.push_back("name");
    keys.push_back("notes");
    keys.insert(keys.end(), std::begin(kStateKeys), std::end(kStateKeys));
    return keys;
  }
  if (section == "ground") return {"response", "gather"};
  if (section == "air") return {"response"};
  return {};
}

// Calls `f` for each entry of the table that lies in the section.
template <typename Table, typename F>
void each_of(const Table& table, std::string_view section, const F& f) {
  for (const auto& field : table) {
    if (field.section == section) f(field);
  }
}

// Reads the section's values; what is missing keeps its default.
void read_values(const JsonCursor& cursor, std::string_view section, Profile& profile) {
  std::vector<std::string_view> known = other_keys(section);
  const auto know = [&](const auto& field) { known.push_back(field.key); };
  for (const OldPath& path : kOldPaths) {
    if (path.section == section) known.push_back(path.key);
  }
  each_of(profile_fields(), section, know);
  each_of(profile_curves(), section, know);
  each_of(profile_choices(), section, know);
  cursor.only_keys(known);
  each_of(profile_fields(), section, [&](const ProfileField& field) {
    const std::string_view before = old_key(section, field.key);
    const std::string_view key = cursor.has(field.key) || before.empty() ? field.key : before;
    if (!cursor.has(key)) return;
    field.set_typed(profile, read_number(cursor.at(key), field));
  });
  each_of(profile_curves(), section, [&](const ProfileCurve& field) {
    if (cursor.has(field.key)) field.curve(profile) = read_curve(cursor.at(field.key), field);
  });
  each_of(profile_choices(), section, [&](const ProfileChoice& field) {
    if (cursor.has(field.key)) field.set(profile, read_choice(cursor.at(field.key), field));
  });
}

void read_response(const JsonCursor& section, std::string_view name, Response& response, Profile& profile) {
  if (!section.has("response")) return;
  const JsonCursor cursor = section.at("response");
  read_values(cursor, name, profile);
  if (!cursor.has("turn_acceleration")) response.turn_acceleration = response.acceleration;
  if (!cursor.has("turn_time")) response.turn_time = response.time;
}

void read_notes(const JsonCursor& cursor, Profile& profile) {
  const std::vector<std::string> paths = profile_paths();
  cursor.only_keys(with_old_paths(paths));
  for (const std::string& path : paths) {
    const std::string key = key_of_path(cursor, path);
    if (!cursor.has(key)) continue;
    const std::string note = cursor.at(key).text();
    if (!note.empty()) profile.notes[path] = note;
  }
}

// Defaults that follow another value where the file names only that one.
void follow_defaults(const JsonCursor& document, Profile& profile) {
  const auto named = [&](std::string_view section, std::string_view key) {
    return document.has(section) && document.at(section).has(key);
  };
  auto& [radius, height, eye_height, centre_of_mass, margin, longest_push_out] = profile.capsule;
  if (!named("capsule", "eye_height")) eye_height = std::min(eye_height, 0.92 * height);
  if (!named("capsule", "centre_of_mass")) centre_of_mass = std::min(centre_of_mass, 0.53 * height);
  if (!named("capsule", "margin")) margin = std::min(margin, radius / 2.0);
  if (!named("ground", "sprint_speed"))
    profile.ground.sprint_speed = std::max(profile.ground.sprint_speed, profile.ground.speed);
  if (!named("fly", "sprint_speed"))
    profile.fly.sprint_speed = std::max(profile.fly.sprint_speed, profile.fly.speed);
}

// What must fit together: where it is told, and what is wrong else.
struct Fit {
  std::string_view pointer;
  bool (*holds)(const Values&);
  std::string_view what;
};
constexpr Fit kFits[] = {
    {"/capsule", [](const Values& v) { return v.capsule.height >= 2.0 * v.capsule.radius; },
     "the height must be at least twice the radius, else it is no capsule"},
    {"/capsule/eye_height", [](const Values& v) { return v.capsule.eye_height <= v.capsule.height; },
     "the eyes must not be above the capsule's height"},
    {"/capsule/centre_of_mass", [](const Values& v) { return v.capsule.centre_of_mass <= v.capsule.height; },
     "the centre of mass must not be above the capsule's height"},
    {"/capsule/margin", [](const Values& v) { return v.capsule.margin <= v.capsule.radius / 2.0; },
     "the margin must be at most half the radius"},
    {"/ground/gather", [](const Values& v) { return v.ground.gather.highest >= v.ground.gather.lowest; },
     "the highest speed must not be below the lowest"},
};

}  // namespace

void must_fit_together(const Values& values) {
  for (const Fit& fit : kFits) {
    if (!fit.holds(values)) throw ReadFailure{std::string(fit.pointer), std::string(fit.what)};
  }
}

Profile read_profile_document(const JsonCursor& document) {
  Profile profile;
  read_values(document, "", profile);
  if (document.has("name")) profile.name = document.at("name").name();
  if (document.has("notes")) read_notes(document.at("notes"), profile);
  for (const std::string_view section : kSections) {
    if (document.has(section)) read_values(document.at(section), section, profile);
  }
  if (document.has("ground"))
    read_response(document.at("ground"), "ground/response", profile.ground.response, profile);
  if (document.has("ground") && document.at("ground").has("gather"))
    read_values(document.at("ground").at("gather"), "ground/gather", profile);
  if (document.has("air")) read_response(document.at("air"), "air/response", profile.air.response, profile);
  follow_defaults(document, profile);
  must_fit_together(profile);
  profile.states = read_states(document);
  return profile;
}

Result<Profile> parse_profile(std::string_view text, const std::string& file) {
  return read_document(text, file, "profile", read_profile_document);
}

Result<Profile> read_profile(const std::string& path) {
  return read_text(path).and_then([&](const std::string& text) { return parse_profile(text, path); });
}

}  // namespace lagniappe
