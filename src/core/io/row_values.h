// SPDX-License-Identifier: MIT
// The values of a row, read and written as the row says.
#pragma once

#include <fmt/format.h>

#include <cmath>
#include <vector>

#include "course/shapes.h"
#include "fields/row_words.h"
#include "io/exact_degrees.h"
#include "io/json_document.h"

namespace lagniappe {

struct RowReader {
  const JsonCursor& row;

  static NumberRange range_of(const DocumentKey& key) { return {key.low, key.high, key.above_low}; }
  bool left_out(const DocumentKey& key) const { return !key.needed && !row.has(key.name); }
  void operator()(const DocumentKey& key, double& value) const {
    if (!left_out(key)) value = row.at(key.name).number(range_of(key));
  }
  void operator()(const DocumentKey& key, Vec3& value) const {
    if (!left_out(key)) value = row.at(key.name).vec3(range_of(key));
  }
  void operator()(const DocumentKey& key, int& value) const {
    value = row.at(key.name).integer(static_cast<int>(key.low), static_cast<int>(key.high));
  }
  void operator()(const DocumentKey& key, bool& value) const {
    if (!left_out(key)) value = row.at(key.name).truth();
  }
  void operator()(const DocumentKey& key, std::string& text) const {
    if (!left_out(key)) text = row.at(key.name).name();
  }
  void operator()(const DocumentKey& key, std::vector<std::string>& names) const {
    for (const JsonCursor& name : row.at(key.name).elements()) names.push_back(name.name());
  }
  template <typename Choice>
  void operator()(const DocumentKey& key, WordOf<Choice> choice) const {
    if (!left_out(key)) choice.is = static_cast<Choice>(row.at(key.name).one_of(choice.words));
  }
  void operator()(const DocumentKey& key, std::vector<Vec3>& values) const {
    for (const JsonCursor& v : row.at(key.name).elements()) values.push_back(v.vec3(range_of(key)));
  }
  void operator()(const DocumentKey& key, InDegrees<double> angle) const {
    const JsonCursor cursor = row.at(key.name);
    const double degrees = cursor.number(range_of(key));
    if (std::abs(degrees) < key.least)
      cursor.fail(fmt::format("it must be at least {} {} either way", key.least, key.unit));
    angle.radians = radians(degrees);
  }
};

struct RowWriter {
  Json& json;

  static Json list_of(const Vec3& v) { return {v.x, v.y, v.z}; }
  void operator()(const DocumentKey& key, const Vec3& v) const { json[std::string(key.name)] = list_of(v); }
  void operator()(const DocumentKey& key, const std::string& text) const {
    if (key.needed || !text.empty()) json[std::string(key.name)] = text;
  }
  void operator()(const DocumentKey& key, const std::vector<std::string>& names) const {
    json[std::string(key.name)] = names;
  }
  template <typename Choice>
  void operator()(const DocumentKey& key, WordOf<Choice> choice) const {
    json[std::string(key.name)] = choice.words[static_cast<std::size_t>(choice.is)];
  }
  void operator()(const DocumentKey& key, const std::vector<Vec3>& values) const {
    Json& list = json[std::string(key.name)] = Json::array();
    for (const Vec3& v : values) list.push_back(list_of(v));
  }
  void operator()(const DocumentKey& key, InDegrees<const double> angle) const {
    json[std::string(key.name)] = exact_degrees(angle.radians);
  }
  template <typename Number>
  void operator()(const DocumentKey& key, Number value) const {
    json[std::string(key.name)] = value;
  }
};

}  // namespace lagniappe
