// SPDX-License-Identifier: MIT
#include "piece_sheet.h"

#include <fmt/format.h>

#include <array>
#include <nlohmann/json.hpp>

#include "lagniappe/piece_kinds.h"

namespace lagniappe::cli {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::array<std::string_view, 6> kTypes = {"number", "whole", "size", "list", "text", "flag"};

std::string_view type_of(const PieceKey& key) { return kTypes[static_cast<std::size_t>(key.type)]; }

bool has_range(const PieceKey& key) { return key.type <= PieceKey::Type::Size; }

Json json_of(const PieceKey& key) {
  Json json = {{"name", key.name}, {"type", type_of(key)}, {"help", key.help}, {"needed", key.needed}};
  if (!key.unit.empty()) json["unit"] = key.unit;
  if (!has_range(key)) return json;
  json["range"] = {key.low, key.high};
  json["above_low"] = key.above_low;
  if (key.least > 0.0) json["least"] = key.least;
  return json;
}

void print_json() {
  Json kinds = Json::array();
  for (const PieceKind& kind : piece_kinds()) {
    Json row = {{"kind", kind.name}, {"help", kind.help}, {"keys", Json::array()}};
    for (const PieceKey& key : kind.keys) row["keys"].push_back(json_of(key));
    kinds.push_back(row);
  }
  fmt::print("{}\n", kinds.dump(2));
}

std::string range_text(const PieceKey& key) {
  if (!has_range(key)) return std::string(type_of(key));
  const std::string three = key.type == PieceKey::Type::Size ? "3 \u00d7 " : "";
  const std::string least = key.least > 0.0 ? fmt::format(", not below {:.6g}", key.least) : "";
  return fmt::format("{}{}{:.6g} .. {:.6g}{}", three, key.above_low ? "above " : "", key.low, key.high, least);
}

}  // namespace

int show_pieces(bool json) {
  if (json) {
    print_json();
    return 0;
  }
  fmt::print(
      "All pieces have id, kind and at (3 numbers, m), and may have turn (3 numbers, degrees), surface and "
      "motion.\n");
  for (const PieceKind& kind : piece_kinds()) {
    fmt::print("\n{}: {}\n", kind.name, kind.help);
    for (const PieceKey& key : kind.keys)
      fmt::print("  {:<12} {:<22} {:<8} {}{}\n", key.name, range_text(key), key.unit, key.help,
                 key.needed ? "" : " May be left out.");
  }
  return 0;
}

}  // namespace lagniappe::cli
