// SPDX-License-Identifier: MIT
// Rows of the ledger: jumps and rises.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::Jump> {
  static constexpr std::string_view kKind = "jump";
  static void fields(const entry::Jump& e, auto&& f) {
    f("from", word(kJumpsFrom, e.from));
    f("jump", e.jump);
    f("speed", e.speed);
    f("height_m", e.height);
    f("late_by_s", e.late_by);
    f("early_by_s", e.early_by);
  }
  static std::string tell(const entry::Jump& e, const World&) {
    using From = entry::Jump::From;
    std::string text = fmt::format("jump: leaves at {:.2f} m/s upwards, for {}", e.speed, metres(e.height));
    if (e.from == From::Skid) text += ", off a skid";
    if (e.from == From::Wall) text += ", off a wall";
    if (e.from == From::Climb) text += ", away from a wall that was climbed";
    if (e.from == From::Rim) text += ", away from a rim";
    if (e.from == From::Air && e.jump == 0) text += ", in the air, the first of the jumps";
    if (e.from == From::Air && e.jump > 0) text += fmt::format(", in the air, air jump {}", e.jump);
    if (e.late_by > 1e-9) text += fmt::format(", {:.0f} ms after the ground was left", e.late_by * 1000.0);
    if (e.early_by > 1e-9) text += fmt::format(", the press remembered for {:.0f} ms", e.early_by * 1000.0);
    return text;
  }
  static void happens(const entry::Jump& e, const CharacterState& before, Events& events) {
    events.set(Event::Jump);
    // Landed within the tick, and off again.
    if (e.from == entry::Jump::From::Ground && e.late_by == 0.0 && !before.grounded())
      events.set(Event::Landing);
  }
};

template <>
struct EntryRow<entry::JumpRefused> {
  static constexpr std::string_view kKind = "jump_refused";
  static void fields(const entry::JumpRefused& e, auto&& f) {
    f("why", word(kJumpRefusals, e.why));
    f("remembered_s", e.remembered);
    if (e.since_grounded < 1e6) f("since_grounded_s", e.since_grounded);
  }
  static std::string tell(const entry::JumpRefused& e, const World&) {
    using Why = entry::JumpRefused::Why;
    std::string text = "jump refused: ";
    const bool left = e.since_grounded < 1e6;
    if (e.why == Why::Skidding) text += "not from ground that is too steep";
    if (e.why == Why::SameWall) text += "this wall was jumped off already";
    if (e.why == Why::NoHeadRoom) text += "no head room";
    if (e.why == Why::NoLanding) text += "it would not land on ground";
    if (e.why == Why::State) text += "no transition of this state takes it";
    if (e.why == Why::AirJumpsUsed) text += "in the air, and the air jumps are used up";
    if (e.why == Why::NoGround && left)
      text += fmt::format("the ground was left {:.0f} ms ago, too long", e.since_grounded * 1000.0);
    if (e.why == Why::NoGround && !left) text += "no ground, and no jumps in the air";
    return e.remembered > 0.0 ? text + fmt::format("; remembered for {:.0f} ms", e.remembered * 1000.0) : text;
  }
  static bool refuses(const entry::JumpRefused&) { return true; }
  static void happens(const entry::JumpRefused&, const CharacterState&, Events& events) {
    events.set(Event::JumpRefused);
  }
};

template <>
struct EntryRow<entry::JumpWouldFall> {
  static constexpr std::string_view kKind = "jump_would_fall";
  static void fields(const entry::JumpWouldFall& e, auto&& f) {
    f("landing", e.landing_C);
    f("lands", e.lands);
    f("drop_m", e.drop);
    f("after_s", e.seconds);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::JumpWouldFall& e, const World& world) {
    const std::string where =
        e.lands ? fmt::format("would land on {}", piece_name(world, e.piece)) : "would land nowhere";
    return fmt::format("the jump {}, {} below the take-off after {:.2f} s", where, metres(e.drop), e.seconds);
  }
  static bool refuses(const entry::JumpWouldFall&) { return true; }
  static std::vector<Vec3> places(const entry::JumpWouldFall& e, const CharacterState&) {
    return {e.landing_C};
  }
};

template <>
struct EntryRow<entry::JumpCut> {
  static constexpr std::string_view kKind = "jump_cut";
  static void fields(const entry::JumpCut& e, auto&& f) {
    f("speed", e.speed);
    f("factor", e.factor);
  }
  static std::string tell(const entry::JumpCut& e, const World&) {
    return fmt::format("jump cut short: let go at {:.2f} m/s upwards, gravity \u00d7{:.2f} until the apex",
                       e.speed, e.factor);
  }
};

template <>
struct EntryRow<entry::HeadBump> {
  static constexpr std::string_view kKind = "head_bump";
  static void fields(const entry::HeadBump& e, auto&& f) {
    f("speed", e.speed);
    f("thrown_back", e.thrown_back);
  }
  static std::string tell(const entry::HeadBump& e, const World&) {
    const std::string text = fmt::format("head bumped at {:.2f} m/s", e.speed);
    return e.thrown_back > 0.0 ? text + fmt::format(", thrown back at {:.2f} m/s", e.thrown_back) : text;
  }
};

}  // namespace lagniappe
