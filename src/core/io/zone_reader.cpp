// SPDX-License-Identifier: MIT
#include "io/zone_reader.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "fields/zone_rows.h"
#include "io/row_values.h"
#include "lagniappe/zone_kinds.h"

namespace lagniappe {
namespace {

constexpr std::size_t kMostZones = 10'000;

struct ZoneReader : RowReader {
  using RowReader::operator();
  void operator()(const DocumentKey& key, SetsOf<bool> sets) const {
    if (left_out(key)) return;
    sets.up = sets.across = false;
    for (const JsonCursor& word : row.at(key.name).elements())
      (word.one_of({"up", "across"}) == 0 ? sets.up : sets.across) = true;
  }
  void operator()(const DocumentKey& key, effect::Wind::Gust& gust) const {
    if (left_out(key)) return;
    const JsonCursor cursor = row.at(key.name);
    cursor.only_keys({"period", "share"});
    gust.period = cursor.at("period").number({0.0, 3600.0, true});
    gust.share = cursor.at("share").number({0.0, 10.0});
  }
};

struct ZoneWriter : RowWriter {
  using RowWriter::operator();
  // What may be left out is left out where it says nothing.
  void operator()(const DocumentKey& key, const Vec3& v) const {
    if (key.needed || v != Vec3(0.0)) RowWriter::operator()(key, v);
  }
  void operator()(const DocumentKey& key, SetsOf<const bool> sets) const {
    Json& list = json[std::string(key.name)] = Json::array();
    if (sets.up) list.push_back("up");
    if (sets.across) list.push_back("across");
  }
  void operator()(const DocumentKey& key, const effect::Wind::Gust& gust) const {
    if (gust.period > 0.0) json[std::string(key.name)] = {{"period", gust.period}, {"share", gust.share}};
  }
};

template <typename Part>
Part read_as(const JsonCursor& cursor) {
  using Row = ZoneRow<Part>;
  Part part{};
  Row::fields(part, ZoneReader{{cursor}});
  if constexpr (requires { Row::fault(part); }) {
    if (const auto fault = Row::fault(part))
      (cursor.has(fault->key) ? cursor.at(fault->key) : cursor).fail(fault->what);
  }
  return part;
}

// A variant, by its "kind".
template <typename... Part>
void read_part(const JsonCursor& cursor, std::span<const DocumentKind> kinds, std::variant<Part...>& out) {
  std::vector<std::string_view> names, keys = {"kind"};
  for (const DocumentKind& kind : kinds) names.push_back(kind.name);
  const std::size_t is = cursor.at("kind").one_of(names);
  for (const DocumentKey& key : kinds[is].keys) keys.push_back(key.name);
  cursor.only_keys(keys);
  std::size_t index = 0;
  ((index++ == is ? void(out = read_as<Part>(cursor)) : void()), ...);
}

template <typename Variant>
Json part_json(const Variant& variant) {
  return std::visit(
      [](const auto& part) {
        using Row = ZoneRow<std::decay_t<decltype(part)>>;
        Json json = {{"kind", Row::kKind}};
        Row::fields(part, ZoneWriter{{json}});
        return json;
      },
      variant);
}

template <typename List>
bool names(const List& list, const std::string& id) {
  return std::any_of(list.begin(), list.end(), [&](const auto& row) { return row.id == id; });
}

Zone read_zone(const JsonCursor& cursor, const Course& course) {
  cursor.only_keys({"id", "shape", "at", "turn", "on", "effect"});
  Zone zone;
  zone.id = cursor.at("id").name();
  read_part(cursor.at("shape"), zone_shape_kinds(), zone.shape);
  read_part(cursor.at("effect"), zone_effect_kinds(), zone.effect);
  zone.at_C = cursor.at("at").vec3(kAnyPosition);
  if (cursor.has("turn")) {
    const Vec3 turn = cursor.at("turn").vec3(kAnyDegrees);
    zone.turn = {radians(turn.x), radians(turn.y), radians(turn.z)};
  }
  if (cursor.has("on")) zone.on = cursor.at("on").name();
  if (!zone.on.empty() && !names(course.pieces, zone.on))
    cursor.at("on").fail(fmt::format("there is no piece \"{}\"", zone.on));
  if (const auto* launch = std::get_if<effect::Launch>(&zone.effect)) {
    if (!launch->to.empty() && !names(course.marks, launch->to))
      cursor.at("effect").at("to").fail(fmt::format("there is no mark \"{}\"", launch->to));
  }
  if (const auto* over = std::get_if<effect::SurfaceOver>(&zone.effect)) {
    if (!names(course.surfaces, over->surface))
      cursor.at("effect").at("surface").fail(fmt::format("\"{}\" is not among \"surfaces\"", over->surface));
  }
  return zone;
}

}  // namespace

void read_zones(const JsonCursor& list, Course& course) {
  std::set<std::string> seen;
  for (const JsonCursor& cursor : list.elements()) {
    if (course.zones.size() == kMostZones) list.fail(fmt::format("a course has at most {} zones", kMostZones));
    course.zones.push_back(read_zone(cursor, course));
    must_be_new(cursor, course.zones.back().id, seen);
  }
}

Json zone_json(const Zone& zone) {
  Json json = {{"id", zone.id},
               {"shape", part_json(zone.shape)},
               {"at", RowWriter::list_of(zone.at_C)},
               {"turn", {exact_degrees(zone.turn.x), exact_degrees(zone.turn.y), exact_degrees(zone.turn.z)}},
               {"effect", part_json(zone.effect)}};
  if (!zone.on.empty()) json["on"] = zone.on;
  return json;
}

}  // namespace lagniappe
