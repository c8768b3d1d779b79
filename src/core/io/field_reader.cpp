// SPDX-License-Identifier: MIT
#include "io/field_reader.h"

#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <set>

#include "fields/field_rows.h"
#include "io/row_values.h"
#include "lagniappe/field_kinds.h"

namespace lagniappe {
namespace {

const std::vector<std::string_view> kFieldKeys = {"id",       "kind",         "at",       "turn",
                                                  "strength", "acceleration", "falloff",  "reach",
                                                  "fade",     "combine",      "priority", "on"};
const std::vector<std::string_view> kCombineWords = {"replaces", "adds"};
constexpr double kMostStrength = 1000.0;
constexpr int kMostPriority = 1000;

template <std::size_t kIndex>
FieldShape read_as(const JsonCursor& cursor) {
  using Row = FieldRow<std::variant_alternative_t<kIndex, FieldShape>>;
  auto written = Row::written({});
  Row::fields(written, RowReader{cursor});
  if constexpr (requires { Row::fault(written); }) {
    if (const auto fault = Row::fault(written)) cursor.at(fault->key).fail(fault->what);
  }
  return Row::made(written);
}

template <std::size_t... kIndex>
FieldShape read_kind(std::size_t kind, const JsonCursor& cursor, std::index_sequence<kIndex...>) {
  FieldShape shape;
  ((kind == kIndex ? void(shape = read_as<kIndex>(cursor)) : void()), ...);
  return shape;
}

FieldShape read_shape(const JsonCursor& cursor) {
  std::vector<std::string_view> names, keys = kFieldKeys;
  for (const FieldKind& kind : field_kinds()) names.push_back(kind.name);
  const std::size_t kind = cursor.at("kind").one_of(names);
  for (const DocumentKey& key : field_kinds()[kind].keys) keys.push_back(key.name);
  cursor.only_keys(keys);
  return read_kind(kind, cursor, std::make_index_sequence<std::variant_size_v<FieldShape>>());
}

Curve read_curve(const JsonCursor& cursor) {
  Curve curve;
  for (const JsonCursor& point : cursor.elements()) {
    if (curve.count == Curve::kMostPoints)
      cursor.fail(fmt::format("a curve has at most {} points", Curve::kMostPoints));
    const Vec2 at = point.vec2({-1e5, 1e5});
    if (curve.count > 0 && at.x <= curve.points[curve.count - 1].x)
      point.fail("the distances of a curve must rise from point to point");
    curve.points[curve.count++] = at;
  }
  if (curve.count == 0) cursor.fail("a curve needs at least one point");
  return curve;
}

void read_strength(const JsonCursor& cursor, Field& field) {
  if (cursor.has("strength") && cursor.has("acceleration"))
    cursor.at("acceleration").fail("a field has a strength or an acceleration, not both");
  cursor.number_if("strength", {-kMostStrength, kMostStrength}, field.strength);
  cursor.number_if("acceleration", {-kMostStrength, kMostStrength}, field.strength);
  field.absolute = cursor.has("acceleration");
}

void read_falloff(const JsonCursor& cursor, Field& field) {
  if (cursor.has("reach")) field.reach = cursor.at("reach").number({0.0, row_key::kMostSize});
  cursor.number_if("fade", {0.0, row_key::kMostSize}, field.fade);
  if (!cursor.has("falloff")) return;
  const JsonCursor falloff = cursor.at("falloff");
  if (falloff.is_list()) {
    field.falloff = Field::Falloff::Curve;
    field.curve = read_curve(falloff);
    return;
  }
  field.falloff = static_cast<Field::Falloff>(falloff.one_of({kFalloffWords.begin(), kFalloffWords.end()}));
  if (field.falloff == Field::Falloff::Linear && !(field.reach && *field.reach > 0.0))
    falloff.fail("a pull that falls off evenly needs a \"reach\" above 0, where it comes to nothing");
}

Field read_field(const JsonCursor& cursor) {
  Field field;
  field.id = cursor.at("id").name();
  field.shape = read_shape(cursor);
  field.at_C = cursor.at("at").vec3(kAnyPosition);
  if (cursor.has("turn")) {
    const Vec3 turn = cursor.at("turn").vec3(kAnyDegrees);
    field.turn = {radians(turn.x), radians(turn.y), radians(turn.z)};
  }
  read_strength(cursor, field);
  read_falloff(cursor, field);
  if (cursor.has("combine")) field.adds = cursor.at("combine").one_of(kCombineWords) == 1;
  if (cursor.has("priority")) field.priority = cursor.at("priority").integer(-kMostPriority, kMostPriority);
  if (cursor.has("on")) field.on = cursor.at("on").name();
  return field;
}

}  // namespace

// Fields are a mere few: each is asked about at every tick.
void read_fields(const JsonCursor& list, Course& course) {
  std::set<std::string> seen;
  for (const JsonCursor& cursor : list.elements()) {
    if (course.fields.size() == kMostFields)
      list.fail(fmt::format("a course has at most {} fields", kMostFields));
    course.fields.push_back(read_field(cursor));
    must_be_new(cursor, course.fields.back().id, seen);
    const std::string& on = course.fields.back().on;
    const bool known = on.empty() || std::any_of(course.pieces.begin(), course.pieces.end(),
                                                 [&](const Piece& piece) { return piece.id == on; });
    if (!known) cursor.at("on").fail(fmt::format("there is no piece \"{}\"", on));
  }
}

Json field_json(const Field& field) {
  Json json = {
      {"id", field.id},
      {"at", RowWriter::list_of(field.at_C)},
      {"turn", {exact_degrees(field.turn.x), exact_degrees(field.turn.y), exact_degrees(field.turn.z)}},
      {field.absolute ? "acceleration" : "strength", field.strength},
      {"fade", field.fade},
      {"combine", kCombineWords[field.adds]},
      {"priority", field.priority}};
  json["kind"] = field_kinds()[field.shape.index()].name;
  std::visit(
      [&](const auto& shape) {
        using Row = FieldRow<std::decay_t<decltype(shape)>>;
        const auto written = Row::written(shape);
        Row::fields(written, RowWriter{json});
      },
      field.shape);
  if (field.reach) json["reach"] = *field.reach;
  if (!field.on.empty()) json["on"] = field.on;
  if (field.falloff != Field::Falloff::Curve) {
    json["falloff"] = kFalloffWords[static_cast<std::size_t>(field.falloff)];
    return json;
  }
  Json& curve = json["falloff"] = Json::array();
  for (int i = 0; i < field.curve.count; ++i)
    curve.push_back({field.curve.points[i].x, field.curve.points[i].y});
  return json;
}

}  // namespace lagniappe
