// SPDX-License-Identifier: MIT
// Rows of the ledger: what is underfoot.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::Probe> {
  static constexpr std::string_view kKind = "probe";
  static void fields(const entry::Probe& e, auto&& f) {
    f("from", e.from_C);
    f("reach_m", e.reach);
    f("hit", e.hit);
    if (!e.hit) return;
    f("gap_m", e.gap);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::Probe& e, const World& world) {
    if (!e.hit) return fmt::format("probed {} down: nothing", metres(e.reach));
    return fmt::format("probed {} down: {} {} below", metres(e.reach), piece_name(world, e.piece),
                       metres(e.gap));
  }
  static std::vector<Vec3> places(const entry::Probe& e, const CharacterState& now) {
    return {e.from_C - now.up_C() * (e.hit ? e.gap : e.reach), e.from_C};
  }
};

template <>
struct EntryRow<entry::Judged> {
  static constexpr std::string_view kKind = "verdict";
  static void fields(const entry::Judged& e, auto&& f) {
    f("ground", name_of(e.verdict));
    f("angle_deg", degrees(e.angle));
    f("overhang_m", e.overhang);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::Judged& e, const World& world) {
    if (e.verdict == Verdict::None) return fmt::format("verdict: {} is no ground", piece_name(world, e.piece));
    std::string text =
        fmt::format("verdict: {}, {} on {}", name_of(e.verdict), angle(e.angle), piece_name(world, e.piece));
    if (e.verdict == Verdict::Tipping)
      text += fmt::format(", the centre {} beyond the edge", metres(e.overhang));
    return text;
  }
  static PieceId touched(const entry::Judged& e) { return e.verdict != Verdict::None ? e.piece : kNoPiece; }
  static std::vector<Vec3> places(const entry::Judged&, const CharacterState& now) {
    if (now.ground.verdict == Verdict::None) return {};
    return {now.ground.point_C};
  }
};

template <>
struct EntryRow<entry::Snap> {
  static constexpr std::string_view kKind = "snap";
  static void fields(const entry::Snap& e, auto&& f) { f("distance_m", e.distance); }
  static std::string tell(const entry::Snap& e, const World&) {
    return fmt::format("snapped {} down to the ground", metres(e.distance));
  }
  static void happens(const entry::Snap&, const CharacterState&, Events& events) { events.set(Event::Snap); }
  static std::vector<Vec3> places(const entry::Snap&, const CharacterState& now) {
    if (now.ground.verdict == Verdict::None) return {};
    return {now.ground.point_C};
  }
};

template <>
struct EntryRow<entry::Crest> {
  static constexpr std::string_view kKind = "crest";
  static void fields(const entry::Crest& e, auto&& f) {
    f("falls_away_deg", degrees(e.falls_away));
    f("limit_deg", degrees(e.limit));
    f("speed", e.speed);
  }
  static std::string tell(const entry::Crest& e, const World&) {
    return fmt::format("flew over the crest: the ground falls away by {} > {} allowed at {:.2f} m/s",
                       angle(e.falls_away), angle(e.limit), e.speed);
  }
};

template <>
struct EntryRow<entry::Landed> {
  static constexpr std::string_view kKind = "landed";
  static void fields(const entry::Landed& e, auto&& f) {
    f("fall", e.fall);
    f("before", e.before);
    f("after", e.after);
  }
  static std::string tell(const entry::Landed& e, const World&) {
    const double gain = e.after - e.before;
    const std::string what = std::abs(gain) < 5e-3
                                 ? "as it was in the air"
                                 : fmt::format("{:.2f} m/s {}", std::abs(gain),
                                               gain < 0.0 ? "of it lost to the slope" : "more by the slope");
    return fmt::format("landed at {:.2f} m/s of fall: {:.2f} m/s along the ground, {}", e.fall, e.after, what);
  }
};

template <>
struct EntryRow<entry::LeftGround> {
  static constexpr std::string_view kKind = "left_ground";
  static void fields(const entry::LeftGround& e, auto&& f) {
    f("speed", e.speed);
    f("inherited", e.inherited_C);
  }
  static std::string tell(const entry::LeftGround& e, const World&) {
    std::string text = fmt::format("left the ground at {:.2f} m/s", e.speed);
    if (length_squared(e.inherited_C) > 0.0)
      text += fmt::format(", {:.2f} m/s of it from what was stood on", length(e.inherited_C));
    return text;
  }
};

}  // namespace lagniappe
