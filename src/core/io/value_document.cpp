// SPDX-License-Identifier: MIT
#include "io/value_document.h"

#include <fmt/format.h>

#include <cmath>

#include "io/exact_degrees.h"

namespace lagniappe {

double read_number(const JsonCursor& cursor, const ProfileField& field) {
  if (field.unit == Unit::Count) return cursor.integer(int(field.low), int(field.high));
  return cursor.number({field.low, field.high});
}

Curve read_curve(const JsonCursor& cursor, const ProfileCurve& field) {
  Curve curve;
  const auto points = cursor.elements();
  if (points.size() > Curve::kMostPoints)
    cursor.fail(fmt::format("a curve has at most {} points, not {}", Curve::kMostPoints, points.size()));
  for (const JsonCursor& point : points) {
    const auto pair = point.elements();
    if (pair.size() != 2) point.fail("a point of a curve is [x, y]");
    const Vec2 p(pair[0].number({field.lowest_x, field.highest_x}),
                 pair[1].number({field.lowest_y, field.highest_y}));
    if (curve.count > 0 && p.x <= curve.points[curve.count - 1].x)
      pair[0].fail("the points of a curve must come in rising order");
    curve.points[curve.count++] = p;
  }
  return curve;
}

int read_choice(const JsonCursor& cursor, const ProfileChoice& field) {
  if (field.words.empty()) return int(cursor.truth());
  return static_cast<int>(cursor.one_of({field.words.begin(), field.words.end()}));
}

Json number_json(const ProfileField& field, const Values& values) {
  constexpr double kMostWhole = 1e9;
  const double value = field.get(values);
  if (field.unit == Unit::Count && std::abs(value) <= kMostWhole) return static_cast<int>(value);
  return field.is_angle() ? exact_degrees(value) : value;
}

Json curve_json(const ProfileCurve& field, const Values& values) {
  const Curve& curve = field.get(values);
  Json points = Json::array();
  for (int i = 0; i < curve.count; ++i) points.push_back({curve.points[i].x, curve.points[i].y});
  return points;
}

Json choice_json(const ProfileChoice& field, const Values& values) {
  const int choice = field.get(values);
  return field.words.empty() ? Json(choice != 0) : Json(field.words[static_cast<std::size_t>(choice)]);
}

bool read_value(const JsonCursor& cursor, std::string_view path, Values& values) {
  if (const ProfileField* field = find_field(path)) {
    field->set_typed(values, read_number(cursor, *field));
  } else if (const ProfileCurve* curve = find_curve(path)) {
    curve->curve(values) = read_curve(cursor, *curve);
  } else if (const ProfileChoice* choice = find_choice(path)) {
    choice->set(values, read_choice(cursor, *choice));
  } else {
    return false;
  }
  return true;
}

}  // namespace lagniappe
