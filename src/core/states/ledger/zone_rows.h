// SPDX-License-Identifier: MIT
// Entries about zones.
#pragma once

#include "lagniappe/zone_kinds.h"
#include "states/ledger/entry_row.h"

namespace lagniappe {

// As documents call what the zone does.
inline std::string_view effect_name(const World& world, ZoneId zone) {
  return zone_effect_kinds()[world.zone(zone, 0.0).effect->index()].name;
}

template <>
struct EntryRow<entry::ZoneEntered> {
  static constexpr std::string_view kKind = "zone_entered";
  static void fields(const entry::ZoneEntered& e, auto&& f) { f("zone", ZoneNamed{e.zone}); }
  static std::string tell(const entry::ZoneEntered& e, const World& world) {
    return fmt::format("enters the zone {} ({})", zone_name(world, e.zone), effect_name(world, e.zone));
  }
  static void happens(const entry::ZoneEntered&, const CharacterState&, Events& events) {
    events.set(Event::ZoneEntered);
  }
};

template <>
struct EntryRow<entry::ZoneLeft> {
  static constexpr std::string_view kKind = "zone_left";
  static void fields(const entry::ZoneLeft& e, auto&& f) { f("zone", ZoneNamed{e.zone}); }
  static std::string tell(const entry::ZoneLeft& e, const World& world) {
    return fmt::format("leaves the zone {}", zone_name(world, e.zone));
  }
  static void happens(const entry::ZoneLeft&, const CharacterState&, Events& events) {
    events.set(Event::ZoneLeft);
  }
};

template <>
struct EntryRow<entry::Thrown> {
  static constexpr std::string_view kKind = "thrown";
  static void fields(const entry::Thrown& e, auto&& f) {
    f("zone", ZoneNamed{e.zone});
    f("from", e.from_C);
    f("velocity", e.velocity_C);
    if (!e.aimed) return;
    f("to", e.to_C);
    f("apex_m", e.apex);
    f("flight_s", e.seconds);
    f("terminal", e.terminal);
  }
  static std::string tell(const entry::Thrown& e, const World& world) {
    std::string text = fmt::format("thrown by {} at {:.2f} m/s towards {}", zone_name(world, e.zone),
                                   length(e.velocity_C), direction(unit_or(e.velocity_C, Vec3(0.0))));
    if (!e.aimed) return text;
    text += fmt::format(": over an apex of {} to ({:.2f}, {:.2f}, {:.2f}) in {:.2f} s", metres(e.apex),
                        e.to_C.x, e.to_C.y, e.to_C.z, e.seconds);
    return e.terminal ? text + ", at terminal speed at its end" : text;
  }
  static void happens(const entry::Thrown&, const CharacterState&, Events& events) {
    events.set(Event::Thrown);
  }
  static std::vector<Vec3> places(const entry::Thrown& e, const CharacterState&) {
    return e.aimed ? std::vector<Vec3>{e.from_C, e.to_C} : std::vector<Vec3>{e.from_C};
  }
};

template <>
struct EntryRow<entry::ThrowWaits> {
  static constexpr std::string_view kKind = "throw_waits";
  static void fields(const entry::ThrowWaits& e, auto&& f) { f("zone", ZoneNamed{e.zone}); }
  static std::string tell(const entry::ThrowWaits& e, const World& world) {
    return fmt::format("not thrown by {}: who holds on or flies freely is left alone until he lets go",
                       zone_name(world, e.zone));
  }
  static bool refuses(const entry::ThrowWaits&) { return true; }
};

template <>
struct EntryRow<entry::HomeMoved> {
  static constexpr std::string_view kKind = "home_moved";
  static void fields(const entry::HomeMoved& e, auto&& f) {
    f("zone", ZoneNamed{e.zone});
    f("foot", e.foot_C);
  }
  static std::string tell(const entry::HomeMoved& e, const World& world) {
    return fmt::format("from here on put home to {}, at ({:.2f}, {:.2f}, {:.2f})", zone_name(world, e.zone),
                       e.foot_C.x, e.foot_C.y, e.foot_C.z);
  }
  static std::vector<Vec3> places(const entry::HomeMoved& e, const CharacterState&) { return {e.foot_C}; }
};

template <>
struct EntryRow<entry::BarredFrom> {
  static constexpr std::string_view kKind = "barred";
  static void fields(const entry::BarredFrom& e, auto&& f) {
    f("zone", ZoneNamed{e.zone});
    f("state", state_name(e.chart.get(), e.state));
    f("left", e.left);
  }
  static std::string tell(const entry::BarredFrom& e, const World& world) {
    return fmt::format("{} {}: barred in {}", state_name(e.chart.get(), e.state),
                       e.left ? "ends" : "is not entered", zone_name(world, e.zone));
  }
  static bool refuses(const entry::BarredFrom&) { return true; }
};

}  // namespace lagniappe
