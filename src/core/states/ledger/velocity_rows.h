// SPDX-License-Identifier: MIT
// Rows of the ledger: what is asked for, and where the velocity comes from.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::Intent> {
  static constexpr std::string_view kKind = "intent";
  static void fields(const entry::Intent& e, auto&& f) {
    f("velocity", e.velocity_C);
    f("share", e.share);
    if (e.air_C != Vec3(0.0)) f("air", e.air_C);
  }
  static std::string tell(const entry::Intent& e, const World&) {
    const std::string air = e.air_C == Vec3(0.0)
                                ? std::string()
                                : fmt::format(", against air that moves at {:.2f} m/s towards {}",
                                              length(e.air_C), direction(unit_or(e.air_C, Vec3(0.0))));
    if (e.share <= 0.0) return "intent: to stand" + air;
    return fmt::format("intent: {:.2f} m/s towards {}, {:.0f} % of full speed", length(e.velocity_C),
                       direction(unit_or(e.velocity_C, Vec3(0.0))), e.share * 100.0) +
           air;
  }
};

template <>
struct EntryRow<entry::Gravity> {
  static constexpr std::string_view kKind = "gravity";
  static void fields(const entry::Gravity& e, auto&& f) {
    f("change", e.change_C);
    f("gravity", e.gravity);
    f("terminal_speed", e.terminal_speed);
    f("apex_m", e.apex);
  }
  static std::string tell(const entry::Gravity& e, const World&) {
    const std::string text = fmt::format("gravity, {:.2f} m/s\u00b2 in force, changes the velocity {}",
                                         e.gravity, change(e.change_C));
    if (e.apex > 0.0) return fmt::format("{}; the apex is {} further up", text, metres(e.apex));
    return fmt::format("{}; it falls at {:.1f} m/s at most", text, e.terminal_speed);
  }
};

template <>
struct EntryRow<entry::Pulled> {
  static constexpr std::string_view kKind = "pulled";
  static void fields(const entry::Pulled& e, auto&& f) {
    f("pull", e.pull_C);
    if (e.off_ground >= 0.0) f("off_ground_deg", degrees(e.off_ground));
    for (int i = 0; i < e.count; ++i) {
      f(fmt::format("field_{}", i + 1).c_str(), FieldNamed{e.shares[i].field});
      f(fmt::format("share_{}", i + 1).c_str(), e.shares[i].share);
    }
  }
  static std::string tell(const entry::Pulled& e, const World& world) {
    if (e.pull_C == Vec3(0.0)) return "nothing pulls";
    std::string text = fmt::format("pulled at {:.2f} m/s\u00b2 towards {}", length(e.pull_C),
                                   direction(glm::normalize(e.pull_C)));
    for (int i = 0; i < e.count; ++i)
      text += fmt::format("{} \u201c{}\u201d {:.0f} %", i == 0 ? ":" : ",",
                          field_name(world, e.shares[i].field), e.shares[i].share * 100.0);
    if (e.off_ground >= 0.0)
      text += fmt::format("; {:.1f}\u00b0 off the ground's normal", degrees(e.off_ground));
    return text;
  }
};

template <>
struct EntryRow<entry::RunsOff> {
  static constexpr std::string_view kKind = "runs_off";
  static void fields(const entry::RunsOff& e, auto&& f) {
    f("speed", e.speed);
    f("most", e.most);
  }
  static std::string tell(const entry::RunsOff& e, const World&) {
    return fmt::format(
        "runs off the ground: {:.2f} m/s round its curve, of which the pull holds {:.2f} m/s at most", e.speed,
        e.most);
  }
};

template <>
struct EntryRow<entry::Change> {
  static constexpr std::string_view kKind = "velocity";
  static void fields(const entry::Change& e, auto&& f) {
    f("why", word(kChangeNames, e.why));
    f("change", e.change_C);
  }
  static std::string tell(const entry::Change& e, const World&) {
    constexpr std::array<const char*, kChangeNames.size()> kWhat = {"the response to the intent",
                                                                    "the grip of the surface",
                                                                    "the wind",
                                                                    "what carries",
                                                                    "the jump",
                                                                    "the launch",
                                                                    "the table's script",
                                                                    "what was met",
                                                                    "the ground underfoot",
                                                                    "the way along what is held",
                                                                    "the reset"};
    return fmt::format("{} changes the velocity {}", kWhat[static_cast<std::size_t>(e.why)],
                       change(e.change_C));
  }
};

template <>
struct EntryRow<entry::Instant> {
  static constexpr std::string_view kKind = "instant";
  static void fields(const entry::Instant& e, auto&& f) {
    f("why", word(kInstants, e.why));
    f("at_s", e.at);
  }
  static std::string tell(const entry::Instant& e, const World&) {
    if (e.why == entry::Instant::Why::Waits)
      return fmt::format("{:.1f} ms into the tick: too much has begun in it, what else does waits for its end",
                         e.at * 1000.0);
    constexpr std::array<const char*, 6> kWhat = {
        "something is met",  "what is underfoot changes", "the piece underfoot falls away",
        "the state changes", "a zone is entered or left", "the stick moves"};
    return fmt::format("{:.1f} ms into the tick {}: from here on it moves by that", e.at * 1000.0,
                       kWhat[static_cast<std::size_t>(e.why)]);
  }
};

}  // namespace lagniappe
