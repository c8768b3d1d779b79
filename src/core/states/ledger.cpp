// SPDX-License-Identifier: MIT
#include "lagniappe/ledger.h"

#include <algorithm>
#include <utility>

#include <nlohmann/json.hpp>

#include "states/ledger/ground_rows.h"
#include "states/ledger/hold_rows.h"
#include "states/ledger/jump_rows.h"
#include "states/ledger/moving_rows.h"
#include "states/ledger/slide_rows.h"
#include "states/ledger/stance_rows.h"
#include "states/ledger/table_rows.h"
#include "states/ledger/velocity_rows.h"
#include "states/ledger/zone_rows.h"

namespace lagniappe {
namespace {

using Json = nlohmann::ordered_json;

template <typename Entry>
using RowOf = EntryRow<std::decay_t<Entry>>;

struct FieldWriter {
  Json& json;
  const World& world;

  void operator()(const char* name, const Vec3& v) const { json[name] = {v.x, v.y, v.z}; }
  void operator()(const char* name, Named named) const { json[name] = world.piece_name(named.piece); }
  void operator()(const char* name, ZoneNamed named) const { json[name] = world.zone(named.zone, 0.0).name; }
  void operator()(const char* name, FieldNamed named) const { json[name] = field_name(world, named.field); }
  template <typename T>
  void operator()(const char* name, const T& value) const {
    json[name] = value;
  }
};

}  // namespace

std::string to_json(const LedgerEntry& entry, const World& world) {
  Json json;
  std::visit(
      [&](const auto& e) {
        json["kind"] = RowOf<decltype(e)>::kKind;
        RowOf<decltype(e)>::fields(e, FieldWriter{json, world});
      },
      entry);
  return json.dump(-1, ' ', false, Json::error_handler_t::replace);
}

std::string to_sentence(const LedgerEntry& entry, const World& world) {
  return std::visit([&](const auto& e) { return RowOf<decltype(e)>::tell(e, world); }, entry);
}

bool is_refusal(const LedgerEntry& entry) {
  return std::visit(
      [](const auto& e) {
        if constexpr (requires { RowOf<decltype(e)>::refuses(e); }) {
          return RowOf<decltype(e)>::refuses(e);
        } else {
          return false;
        }
      },
      entry);
}

PieceId piece_of(const LedgerEntry& entry) {
  return std::visit(
      [](const auto& e) {
        if constexpr (requires { e.piece; }) {
          return e.piece;
        } else {
          return kNoPiece;
        }
      },
      entry);
}

PieceId touched_piece(const LedgerEntry& entry) {
  return std::visit(
      [](const auto& e) {
        if constexpr (requires { RowOf<decltype(e)>::touched(e); }) {
          return PieceId(RowOf<decltype(e)>::touched(e));
        } else {
          return kNoPiece;
        }
      },
      entry);
}

void add_events(const LedgerEntry& entry, const CharacterState& before, Events& events) {
  std::visit(
      [&](const auto& e) {
        if constexpr (requires { RowOf<decltype(e)>::happens(e, before, events); })
          RowOf<decltype(e)>::happens(e, before, events);
      },
      entry);
}

std::vector<Vec3> places_of(const LedgerEntry& entry, const CharacterState& now) {
  return std::visit(
      [&](const auto& e) {
        if constexpr (requires { RowOf<decltype(e)>::places(e, now); }) {
          return RowOf<decltype(e)>::places(e, now);
        } else {
          return std::vector<Vec3>();
        }
      },
      entry);
}

Vec3 velocity_change(const LedgerEntry& entry) {
  if (const auto* gravity = std::get_if<entry::Gravity>(&entry)) return gravity->change_C;
  if (const auto* change = std::get_if<entry::Change>(&entry)) return change->change_C;
  return Vec3(0.0);
}

std::vector<VelocityPart> velocity_parts(const Ledger& ledger) {
  std::vector<VelocityPart> parts;
  for (const LedgerEntry& entry : ledger.entries) {
    const auto* change = std::get_if<entry::Change>(&entry);
    if (change == nullptr && !std::holds_alternative<entry::Gravity>(entry)) continue;
    const std::string_view cause = change ? kChangeNames[static_cast<std::size_t>(change->why)] : "gravity";
    const auto same = [&](const VelocityPart& part) { return part.cause == cause; };
    auto part = std::find_if(parts.begin(), parts.end(), same);
    if (part == parts.end()) part = parts.insert(part, {cause, Vec3(0.0)});
    part->change_C += velocity_change(entry);
  }
  return parts;
}

std::string velocity_sentence(const Vec3& before_C, const Vec3& after_C, const Ledger& ledger) {
  constexpr double kShown = 5e-3;  // m/s.
  std::string text = fmt::format("velocity {} to {} m/s", direction(before_C), direction(after_C));
  bool first = true;
  for (const VelocityPart& part : velocity_parts(ledger)) {
    const Vec3& v = part.change_C;
    if (length(v) < kShown) continue;
    text += fmt::format("{} {} {}", std::exchange(first, false) ? ":" : " +", part.cause, signed_parts(v));
  }
  return first ? text + ": nothing changed it" : text;
}

}  // namespace lagniappe
