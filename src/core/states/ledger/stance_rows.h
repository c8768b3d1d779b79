// SPDX-License-Identifier: MIT
// Rows of the ledger: the stance, and lying.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::StanceWaits> {
  static constexpr std::string_view kKind = "stance_waits";
  static void fields(const entry::StanceWaits& e, auto&& f) {
    f("why", word(kStanceWaits, e.why));
    f("wanted_m", e.wanted);
    f("height_m", e.height);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::StanceWaits& e, const World& world) {
    using Why = entry::StanceWaits::Why;
    if (e.why == Why::Ceiling)
      return fmt::format("stays {} tall: no room for {} below {}", metres(e.height), metres(e.wanted),
                         piece_name(world, e.piece));
    return fmt::format("stays {} long: lying {} would {}", metres(e.height), metres(e.wanted),
                       e.why == Why::Wall ? "enter a wall" : "hang over a drop");
  }
  static bool refuses(const entry::StanceWaits&) { return true; }
};

template <>
struct EntryRow<entry::LieHeld> {
  static constexpr std::string_view kKind = "lie_held";
  static void fields(const entry::LieHeld& e, auto&& f) { f("why", word(kLieHolds, e.why)); }
  static std::string tell(const entry::LieHeld& e, const World&) {
    using Why = entry::LieHeld::Why;
    return fmt::format("lying, it does not turn on: {}",
                       e.why == Why::Drop ? "an end would hang over a drop" : "it would enter a wall");
  }
  static bool refuses(const entry::LieHeld&) { return true; }
};

template <>
struct EntryRow<entry::Upright> {
  static constexpr std::string_view kKind = "upright";
  static void fields(const entry::Upright& e, auto&& f) {
    f("angle_deg", degrees(e.angle));
    f("turned_deg", degrees(e.turned));
    f("most_deg", degrees(e.most));
    f("fits", e.fits);
  }
  static std::string tell(const entry::Upright& e, const World&) {
    const std::string turned = fmt::format("up turns {:.2f}\u00b0 of {:.2f}\u00b0 towards the pull",
                                           degrees(e.turned), degrees(e.angle));
    if (!e.fits) return turned + ": there is no room for more";
    return e.turned < e.angle ? fmt::format("{}, at most {:.1f}\u00b0", turned, degrees(e.most)) : turned;
  }
  static bool refuses(const entry::Upright& e) { return !e.fits; }
};

template <>
struct EntryRow<entry::RimHeld> {
  static constexpr std::string_view kKind = "rim_held";
  static void fields(const entry::RimHeld& e, auto&& f) {
    f("rim", e.rim_C);
    f("inward", e.inward_C);
    f("distance_m", e.distance);
    f("least_m", e.least);
    f("taken", e.taken);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::RimHeld& e, const World& world) {
    const std::string where =
        e.piece == kNoPiece ? std::string("a rim") : "the rim of " + piece_name(world, e.piece);
    const std::string how =
        e.distance < 0.0 ? "was passed by " + metres(-e.distance) : "is " + metres(e.distance) + " away";
    return fmt::format("{} {}, {} are kept: {:.2f} m/s towards it are taken", where, how, metres(e.least),
                       e.taken);
  }
  static bool refuses(const entry::RimHeld&) { return true; }
  static std::vector<Vec3> places(const entry::RimHeld& e, const CharacterState&) { return {e.rim_C}; }
};

}  // namespace lagniappe
