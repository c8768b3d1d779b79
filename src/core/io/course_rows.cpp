// SPDX-License-Identifier: MIT
#include "lagniappe/course_rows.h"

#include <fmt/format.h>

#include <algorithm>

#include "io/document_writers.h"
#include "io/field_reader.h"
#include "io/json_patch.h"
#include "io/zone_reader.h"
#include "lagniappe/files.h"

namespace lagniappe {
namespace {

std::string_view name_of(CourseList list) { return list == CourseList::Fields ? "fields" : "zones"; }

Json row_json(const Course& course, CourseList list, std::size_t index) {
  return list == CourseList::Fields ? field_json(course.fields[index]) : zone_json(course.zones[index]);
}

Json rows_json(const Course& course, CourseList list) {
  Json rows = Json::array();
  for (std::size_t i = 0; i < row_count(course, list); ++i) rows.push_back(row_json(course, list, i));
  return rows;
}

void read_rows(const JsonCursor& rows, CourseList list, Course& course) {
  if (list == CourseList::Fields) {
    course.fields.clear();
    read_fields(rows, course);
  } else {
    course.zones.clear();
    read_zones(rows, course);
  }
}

// As people write it: the keys in an order to be read in, without what goes without saying.
std::string written(const Json& row) {
  static const Json kSilent = {{"turn", {0.0, 0.0, 0.0}}, {"fade", 0.0},    {"strength", 1.0},
                               {"combine", "replaces"},   {"priority", 0},  {"falloff", "constant"},
                               {"again_after", 0.0},      {"pitch", false}, {"apex", 0.0}};
  nlohmann::ordered_json ordered = nlohmann::ordered_json::object();
  const auto put = [&](const std::string& key) {
    if (!row.contains(key) || (kSilent.contains(key) && kSilent[key] == row[key])) return;
    ordered[key] = nlohmann::ordered_json::parse(dumped(row[key]));
  };
  for (const char* key : {"id", "kind", "shape", "at", "turn"}) put(key);
  for (const auto& item : row.items()) {
    if (!ordered.contains(item.key())) put(item.key());
  }
  const std::string text = dumped(ordered);
  // A space behind colons and commas that are no part of a text.
  std::string spaced;
  bool quoted = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    spaced += text[i];
    if (quoted && text[i] == '\\') {
      spaced += text[++i];  // What is escaped ends no text.
      continue;
    }
    if (text[i] == '"') quoted = !quoted;
    if (!quoted && (text[i] == ':' || text[i] == ',')) spaced += ' ';
  }
  return spaced;
}

// What lies between the rows that both begin with and those that both end with.
std::string with_rows(std::string text, CourseList list, const Json& before, const Json& now) {
  if (before == now) return text;
  const std::string pointer = "/" + std::string(name_of(list));
  if (before.empty()) {
    std::string rows;
    for (const Json& row : now) rows += (rows.empty() ? "\n    " : ",\n    ") + written(row);
    return with_json_value(std::move(text), pointer, "[" + rows + "\n  ]");
  }
  std::size_t same = 0, alike = 0;
  while (same < std::min(before.size(), now.size()) && before[same] == now[same]) ++same;
  while (alike + same < std::min(before.size(), now.size()) &&
         before[before.size() - 1 - alike] == now[now.size() - 1 - alike])
    ++alike;
  for (std::size_t i = same; i + alike < now.size(); ++i)
    text = with_json_element(std::move(text), pointer, i, written(now[i]));
  for (std::size_t n = before.size() - alike - same; n > 0; --n)
    text = without_json_element(std::move(text), pointer, now.size() - alike);
  return text;
}

}  // namespace

std::size_t row_count(const Course& course, CourseList list) {
  return list == CourseList::Fields ? course.fields.size() : course.zones.size();
}

std::string row_text(const Course& course, CourseList list, std::size_t index) {
  return dumped(row_json(course, list, index));
}

Result<Course> with_row(const Course& course, CourseList list, std::size_t index, std::string_view row) {
  const std::string place = fmt::format("the {} of {}", name_of(list), course.name);
  const Result<Json> read = parse_json(row, place);
  if (!read) return refuse(read.error());
  Json document = Json::object();
  Json& rows = document[std::string(name_of(list))] = rows_json(course, list);
  index < rows.size() ? void(rows[index] = *read) : rows.push_back(*read);
  try {
    Course changed = course;
    read_rows(JsonCursor(document, "").at(name_of(list)), list, changed);
    return changed;
  } catch (const ReadFailure& failure) {
    return refuse({place, failure.pointer, failure.what});
  }
}

Course without_row(const Course& course, CourseList list, std::size_t index) {
  Course changed = course;
  const auto drop = [&](auto& rows) { rows.erase(rows.begin() + static_cast<std::ptrdiff_t>(index)); };
  list == CourseList::Fields ? drop(changed.fields) : drop(changed.zones);
  return changed;
}

Result<std::string> course_text(const Course& course, std::string_view text, const std::string& file,
                                const std::string& folder) {
  const Result<Course> before = parse_course(text, file, folder);
  if (!before) return refuse(before.error());
  std::string now(text);
  for (const CourseList list : {CourseList::Fields, CourseList::Zones})
    now = with_rows(std::move(now), list, rows_json(*before, list), rows_json(course, list));
  const Result<Course> after = parse_course(now, file, folder);
  if (!after) return refuse(after.error());
  return now;
}

}  // namespace lagniappe
