// SPDX-License-Identifier: MIT
#include "io/document_writers.h"
#include "io/json_patch.h"
#include "io/old_words.h"
#include "io/states_document.h"
#include "io/value_document.h"
#include "lagniappe/files.h"
#include "lagniappe/profile_fields.h"

namespace lagniappe {
namespace {

// The object of a section such as "", "ground" or "ground/response".
Json& section_of(Json& document, std::string_view section) {
  Json* at = &document;
  while (!section.empty()) {
    const auto slash = section.find('/');
    at = &(*at)[std::string(section.substr(0, slash))];
    section = slash == std::string_view::npos ? "" : section.substr(slash + 1);
  }
  return *at;
}

// Puts a value where a path such as "ground.response.model" points; every part but the last must be there.
void put(Json& document, std::string_view path, const Json& value) {
  Json* at = &document;
  std::string pointer;
  for (auto dot = path.find('.'); dot != std::string_view::npos; dot = path.find('.')) {
    const std::string section(path.substr(0, dot));
    pointer += "/" + section;
    if (!at->contains(section) || !(*at)[section].is_object())
      throw ReadFailure{pointer, "a profile has no such part"};
    at = &(*at)[section];
    path.remove_prefix(dot + 1);
  }
  (*at)[std::string(path)] = value;
}

}  // namespace

namespace {

// Of what has no row, such as the name; and where it says that there is no such value.
Profile with_value_of_document(const Profile& profile, std::string_view path, const Json& value) {
  Json document = profile_json(profile);
  put(document, path, value);
  return read_profile_document(JsonCursor(document, ""));
}

// "ground.response.time" as a JSON pointer.
std::string pointer_of(std::string_view path) {
  std::string pointer = "/" + std::string(path);
  for (char& c : pointer) c = c == '.' ? '/' : c;
  return pointer;
}

std::string place_of(const ReadFailure& failure) {
  return failure.pointer.empty() ? "the profile" : failure.pointer;
}

}  // namespace

Result<Profile> with_value(const Profile& profile, const std::string& assignment) {
  const auto equals = assignment.find('=');
  try {
    if (equals == std::string::npos || equals == 0)
      throw ReadFailure{"", "it should be NAME=VALUE, as in ground.speed=5.2"};
    const std::string path = assignment.substr(0, equals), text = assignment.substr(equals + 1);
    Json value = Json::parse(text, nullptr, false);
    if (value.is_discarded()) value = text;
    Profile changed = profile;
    if (!read_value(JsonCursor(value, pointer_of(path)), present_path(path), changed))
      return with_value_of_document(profile, path, value);
    must_fit_together(changed);
    return changed;
  } catch (const ReadFailure& failure) {
    return refuse({assignment, place_of(failure), failure.what});
  }
}

namespace {

std::string with_changed(std::string text, const Profile& from, const Profile& to) {
  const Json json = profile_json(to);
  if (from.name != to.name) text = with_json_value(std::move(text), "/name", dumped(Json(to.name)));
  for (const ProfileDifference& d : differences(from, to)) {
    if (d.path == kStatesPath) continue;
    const std::string pointer = pointer_of(d.path);
    text = with_json_value(std::move(text), pointer, dumped(json.at(Json::json_pointer(pointer))));
  }
  const bool was_based = from.states != nullptr && from.states->table().based_on_built_in;
  const bool put_in = to.states != nullptr && from.states == nullptr;
  if (put_in || chart_of(from).table() != chart_of(to).table()) {
    for (const auto& [key, value] : states_text(chart_of(to).table(), "  ", was_based))
      text = with_json_value(std::move(text), "/" + key, value);
  }
  for (const auto& [path, note] : to.notes) {
    const auto old = from.notes.find(path);
    if (old == from.notes.end() || old->second != note)
      text = with_json_value(std::move(text), "/notes/" + path, dumped(Json(note)));
  }
  for (const auto& [path, note] : from.notes) {
    if (!to.notes.contains(path)) text = with_json_value(std::move(text), "/notes/" + path, "\"\"");
  }
  return text;
}

}  // namespace

Result<std::string> profile_text(const Profile& profile, std::string_view text, const std::string& file) {
  std::string now = with_present_paths(std::string(text));
  // Some defaults follow other values: what a change takes along is put right in another round.
  for (int round = 0; round < 3; ++round) {
    const auto read = parse_profile(now, file);
    if (!read) return refuse(read.error());
    std::string next = with_changed(now, *read, profile);
    if (next == now) return now;
    now = std::move(next);
  }
  return now;
}

Result<std::string> profile_text(const Profile& profile) {
  return profile_text(profile, "{\n  \"lagniappe\": \"profile\",\n  \"version\": 1\n}\n", profile.name);
}

Result<Profile> checked(const Profile& profile, const StateChart* known) {
  try {
    Profile read = profile;
    (void)JsonCursor(Json(profile.name), "/name").name();
    const auto again = [&](const auto& field, const Json& value) {
      const std::string path = path_of(field.section, field.key);
      (void)read_value(JsonCursor(value, pointer_of(path)), path, read);
    };
    for (const ProfileField& field : profile_fields()) again(field, number_json(field, profile));
    for (const ProfileCurve& field : profile_curves()) again(field, curve_json(field, profile));
    must_fit_together(read);
    if (profile.states == nullptr || profile.states.get() == known) return read;
    Json table = Json::object();
    put_states(profile.states->table(), table);
    read.states = read_states(JsonCursor(table, ""));
    return read;
  } catch (const ReadFailure& failure) {
    return refuse({profile.name, place_of(failure), failure.what});
  }
}

Json profile_json(const Profile& profile) {
  Json json = {{"lagniappe", "profile"}, {"version", 1}, {"name", profile.name}};
  if (!profile.notes.empty()) json["notes"] = profile.notes;
  const auto at = [&](const auto& field) -> Json& {
    return section_of(json, field.section)[std::string(field.key)];
  };
  for (const ProfileField& field : profile_fields()) at(field) = number_json(field, profile);
  for (const ProfileCurve& field : profile_curves()) at(field) = curve_json(field, profile);
  for (const ProfileChoice& field : profile_choices()) at(field) = choice_json(field, profile);
  if (profile.states) put_states(profile.states->table(), json);
  return json;
}

}  // namespace lagniappe
