// SPDX-License-Identifier: MIT
#include "piece_sheet.h"

#include <fmt/format.h>

#include <array>
#include <nlohmann/json.hpp>

#include "lagniappe/field_kinds.h"
#include "lagniappe/piece_kinds.h"
#include "lagniappe/zone_kinds.h"

namespace lagniappe::cli {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::array<std::string_view, 6> kTypes = {"number", "whole", "size", "list", "text", "flag"};

std::string_view type_of(const DocumentKey& key) { return kTypes[static_cast<std::size_t>(key.type)]; }

bool has_range(const DocumentKey& key) { return key.type <= DocumentKey::Type::Size; }

Json json_of(const DocumentKey& key) {
  Json json = {{"name", key.name}, {"type", type_of(key)}, {"help", key.help}, {"needed", key.needed}};
  if (!key.unit.empty()) json["unit"] = key.unit;
  if (!has_range(key)) return json;
  json["range"] = {key.low, key.high};
  json["above_low"] = key.above_low;
  if (key.least > 0.0) json["least"] = key.least;
  return json;
}

Json json_of(std::span<const DocumentKind> all) {
  Json kinds = Json::array();
  for (const DocumentKind& kind : all) {
    Json row = {{"kind", kind.name}, {"help", kind.help}, {"keys", Json::array()}};
    for (const DocumentKey& key : kind.keys) row["keys"].push_back(json_of(key));
    kinds.push_back(row);
  }
  return kinds;
}

std::string range_text(const DocumentKey& key) {
  if (!has_range(key)) return std::string(type_of(key));
  const std::string three = key.type == DocumentKey::Type::Size ? "3 \u00d7 " : "";
  const std::string least = key.least > 0.0 ? fmt::format(", not below {:.6g}", key.least) : "";
  return fmt::format("{}{}{:.6g} .. {:.6g}{}", three, key.above_low ? "above " : "", key.low, key.high, least);
}

int show(std::span<const DocumentKind> kinds, bool json, const char* common) {
  if (json) {
    fmt::print("{}\n", json_of(kinds).dump(2));
    return 0;
  }
  fmt::print("{}\n", common);
  for (const DocumentKind& kind : kinds) {
    fmt::print("\n{}: {}\n", kind.name, kind.help);
    for (const DocumentKey& key : kind.keys)
      fmt::print("  {:<12} {:<22} {:<8} {}{}\n", key.name, range_text(key), key.unit, key.help,
                 key.needed ? "" : " May be left out.");
  }
  return 0;
}

}  // namespace

int show_pieces(bool json) {
  return show(
      piece_kinds(), json,
      "All pieces have id, kind and at (3 numbers, m), and may have turn (3 numbers, degrees), surface and "
      "motion.");
}

int show_zones(bool json) {
  if (json) {
    fmt::print(
        "{}\n",
        Json{{"shapes", json_of(zone_shape_kinds())}, {"effects", json_of(zone_effect_kinds())}}.dump(2));
    return 0;
  }
  show(zone_shape_kinds(), false,
       "All zones have id, at (3 numbers, m: the centre of their base), shape and effect, and may have turn (3 "
       "numbers, degrees)\nand on (a piece). They act in the order of the list.\n\nShapes:");
  return show(zone_effect_kinds(), false, "\nEffects:");
}

int show_fields(bool json) {
  return show(
      field_kinds(), json,
      "All fields have id, kind and at (3 numbers, m: their centre), and may have turn (3 numbers, "
      "degrees),\nstrength (times the profile's gravity at the surface; negative pushes away) or "
      "acceleration (m/s2),\nfalloff (constant, linear, inverse, inverse-square, or points [m from the "
      "surface, share]),\nreach (m from the surface) and fade (the last m of it), combine (replaces, adds), "
      "priority, and on (a piece).");
}

}  // namespace lagniappe::cli
