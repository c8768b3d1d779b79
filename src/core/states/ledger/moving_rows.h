// SPDX-License-Identifier: MIT
// Rows of the ledger: what moving pieces and solids did to the character.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::Carry> {
  static constexpr std::string_view kKind = "carry";
  static void fields(const entry::Carry& e, auto&& f) {
    f("piece", Named{e.piece});
    f("shift", e.shift_C);
    f("yaw_deg", degrees(e.yaw));
    f("blocked", e.blocked);
  }
  static std::string tell(const entry::Carry& e, const World& world) {
    std::string text = fmt::format("carried {} by {}", metres(length(e.shift_C)), piece_name(world, e.piece));
    if (std::abs(e.yaw) > 1e-9) text += fmt::format(", turned by {}", angle(e.yaw));
    return e.blocked ? text + "; something solid was in the way" : text;
  }
  static bool refuses(const entry::Carry& e) { return e.blocked; }
  static PieceId touched(const entry::Carry& e) { return e.piece; }
  static void happens(const entry::Carry&, const CharacterState&, Events& events) {
    events.set(Event::Carried);
  }
  static std::vector<Vec3> places(const entry::Carry&, const CharacterState& now) { return {now.foot_C}; }
};

template <>
struct EntryRow<entry::Push> {
  static constexpr std::string_view kKind = "push";
  static void fields(const entry::Push& e, auto&& f) {
    f("piece", Named{e.piece});
    f("shift", e.shift_C);
    f("point", e.point_C);
    f("normal", e.normal_C);
    f("blocked", e.blocked);
  }
  static std::string tell(const entry::Push& e, const World& world) {
    const std::string text =
        fmt::format("pushed {} by {}", metres(length(e.shift_C)), piece_name(world, e.piece));
    return e.blocked ? text + "; there was not that much room" : text;
  }
  static bool refuses(const entry::Push& e) { return e.blocked; }
  static PieceId touched(const entry::Push& e) { return e.piece; }
  static void happens(const entry::Push&, const CharacterState&, Events& events) { events.set(Event::Pushed); }
  static std::vector<Vec3> places(const entry::Push& e, const CharacterState&) { return {e.point_C}; }
};

template <>
struct EntryRow<entry::PushOut> {
  static constexpr std::string_view kKind = "push_out";
  static void fields(const entry::PushOut& e, auto&& f) {
    f("depth_m", e.depth);
    f("crushed", e.crushed);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::PushOut& e, const World& world) {
    if (e.crushed)
      return fmt::format("crushed: {} deep in {}, and no way out within the limit", metres(e.depth),
                         piece_name(world, e.piece));
    return fmt::format("pushed out of {}, {} deep", piece_name(world, e.piece), metres(e.depth));
  }
  static bool refuses(const entry::PushOut& e) { return e.crushed; }
  static PieceId touched(const entry::PushOut& e) { return e.piece; }
  static void happens(const entry::PushOut&, const CharacterState&, Events& events) {
    events.set(Event::PushOut);
  }
  static std::vector<Vec3> places(const entry::PushOut&, const CharacterState& now) { return {now.foot_C}; }
};

template <>
struct EntryRow<entry::Reset> {
  static constexpr std::string_view kKind = "reset";
  static void fields(const entry::Reset& e, auto&& f) {
    f("out_of_limits", e.out_of_limits);
    if (e.zone != kNoZone) f("zone", ZoneNamed{e.zone});
  }
  static std::string tell(const entry::Reset& e, const World& world) {
    if (e.zone != kNoZone) return fmt::format("put home by the zone {}", zone_name(world, e.zone));
    return e.out_of_limits ? "put back to the start: the limits of the course were left"
                           : "put back to the start, as asked";
  }
  static void happens(const entry::Reset&, const CharacterState&, Events& events) {
    events.set(Event::PutHome);
  }
};

}  // namespace lagniappe
