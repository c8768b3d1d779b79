// SPDX-License-Identifier: MIT
// Rows of the ledger: what is held on to.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::MantleBegun> {
  static constexpr std::string_view kKind = "mantle_begun";
  static void fields(const entry::MantleBegun& e, auto&& f) {
    f("rim", e.rim_C);
    f("to", e.to_C);
    f("height_m", e.height);
    f("takes_s", e.seconds);
    f("vaults", e.vaults);
    f("crouched", e.crouched);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::MantleBegun& e, const World& world) {
    return fmt::format("{} {}, its rim {} over the foot: takes {:.2f} s{}",
                       e.vaults ? "vaults over" : "mantles onto", piece_name(world, e.piece), metres(e.height),
                       e.seconds, e.crouched ? ", there is only room to crouch" : "");
  }
  static PieceId touched(const entry::MantleBegun& e) { return e.piece; }
  static void happens(const entry::MantleBegun&, const CharacterState&, Events& events) {
    events.set(Event::Mantle);
  }
  static std::vector<Vec3> places(const entry::MantleBegun& e, const CharacterState&) {
    return {e.rim_C, e.to_C};
  }
};

template <>
struct EntryRow<entry::MantleRefused> {
  using Why = entry::MantleRefused::Why;
  static constexpr std::string_view kKind = "mantle_refused";
  static bool is_angle(Why why) { return why == Why::ShelfTooSteep || why == Why::LeansOver; }
  static bool has_numbers(Why why) { return why != Why::NothingThere && why != Why::State; }
  static void fields(const entry::MantleRefused& e, auto&& f) {
    f("why", word(kMantleRefusals, e.why));
    if (!has_numbers(e.why)) return;
    if (is_angle(e.why)) {
      f("found_deg", degrees(e.found));
      f("allowed_deg", degrees(e.allowed));
    } else {
      if (std::isfinite(e.found)) f("found_m", e.found);
      f("allowed_m", e.allowed);
    }
    f("at", e.at_C);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::MantleRefused& e, const World& world) {
    const std::string of = piece_name(world, e.piece);
    const std::string found = is_angle(e.why) ? angle(e.found) : metres(e.found);
    const std::string allowed = is_angle(e.why) ? angle(e.allowed) : metres(e.allowed);
    const std::string text = "mantle refused: ";
    switch (e.why) {
      case Why::NothingThere:
        return text + "no wall within reach";
      case Why::OutOfReach:
        return fmt::format("{}{} not reached: {} > {}", text, of, found, allowed);
      case Why::TooHigh:
        if (!std::isfinite(e.found)) return fmt::format("{}{} has no rim up to {}", text, of, allowed);
        return fmt::format("{}{} is too high: {} > {}", text, of, found, allowed);
      case Why::ShelfTooShort:
        return fmt::format("{}the shelf of {} is too short: {} < {}", text, of, found, allowed);
      case Why::ShelfTooSteep:
        return fmt::format("{}the shelf of {} is too steep: {} > {}", text, of, found, allowed);
      case Why::LeansOver:
        return fmt::format("{}{} leans over too far: {} > {}", text, of, found, allowed);
      case Why::NoRoomForHands:
        return fmt::format("{}no room for hands on {}: {} < {}", text, of, found, allowed);
      case Why::NoRoom:
        return fmt::format("{}no room to crouch on {}: {} < {}", text, of, found, allowed);
      case Why::Overhead:
        return fmt::format("{}{} is overhead: it could rise {} < {}", text, of, found, allowed);
      case Why::OnTheWay:
        return fmt::format("{}{} is in the way over: {} < {}", text, of, found, allowed);
      case Why::NoLanding:
        return fmt::format("{}nothing to land on within {}", text, allowed);
      case Why::SlipsOff:
        return fmt::format("{}one would slip off {}: {} > {} beyond its edge", text, of, found, allowed);
      case Why::State:
        break;
    }
    return text + "no transition of this state takes it";
  }
  static bool refuses(const entry::MantleRefused&) { return true; }
  static void happens(const entry::MantleRefused&, const CharacterState&, Events& events) {
    events.set(Event::MantleRefused);
  }
  static std::vector<Vec3> places(const entry::MantleRefused& e, const CharacterState&) { return {e.at_C}; }
};

template <>
struct EntryRow<entry::MantleBlocked> {
  static constexpr std::string_view kKind = "mantle_blocked";
  static void fields(const entry::MantleBlocked& e, auto&& f) {
    f("share", e.share);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::MantleBlocked& e, const World& world) {
    return fmt::format("lets go after {:.0f} % of the way: {} came into it", 100.0 * e.share,
                       piece_name(world, e.piece));
  }
  static bool refuses(const entry::MantleBlocked&) { return true; }
  static PieceId touched(const entry::MantleBlocked& e) { return e.piece; }
  static void happens(const entry::MantleBlocked&, const CharacterState&, Events& events) {
    events.set(Event::LetGo);
  }
};

template <>
struct EntryRow<entry::Caught> {
  static constexpr std::string_view kKind = "caught";
  static void fields(const entry::Caught& e, auto&& f) {
    f("rim", e.rim_C);
    f("foot", e.foot_C);
    f("height_m", e.height);
    f("speed", e.speed);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::Caught& e, const World& world) {
    return fmt::format("caught by the rim of {}, {} over the foot, at {:.2f} m/s", piece_name(world, e.piece),
                       metres(e.height), e.speed);
  }
  static PieceId touched(const entry::Caught& e) { return e.piece; }
  static void happens(const entry::Caught&, const CharacterState&, Events& events) {
    events.set(Event::Caught);
  }
  static std::vector<Vec3> places(const entry::Caught& e, const CharacterState&) { return {e.rim_C, e.foot_C}; }
};

template <>
struct EntryRow<entry::LetGo> {
  using Why = entry::LetGo::Why;
  static constexpr std::string_view kKind = "let_go";
  static void fields(const entry::LetGo& e, auto&& f) {
    f("why", word(kLetGos, e.why));
    if (e.why == Why::TooSteep || e.why == Why::Leans) {
      f("found_deg", degrees(e.found));
      f("allowed_deg", degrees(e.allowed));
    }
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::LetGo& e, const World& world) {
    const std::string of = piece_name(world, e.piece);
    switch (e.why) {
      case Why::TooSteep:
        return fmt::format("lets go: the shelf of {} has become too steep, {} > {}", of, angle(e.found),
                           angle(e.allowed));
      case Why::NoRoom:
        return fmt::format("lets go: {} leaves no room for the hands", of);
      case Why::PushedOff:
        return fmt::format("lets go: pushed off by {}", of);
      case Why::NoWall:
        return "lets go: the wall is no longer there";
      case Why::Leans:
        return fmt::format("lets go: the wall of {} leans too far, {} > {}", of, angle(e.found),
                           angle(e.allowed));
      case Why::Aside:
        return fmt::format("steps aside onto {}", of);
      case Why::NoRim:
        break;
    }
    return "lets go: the rim is no longer there";
  }
  static bool refuses(const entry::LetGo& e) { return e.why != Why::Aside; }
  static void happens(const entry::LetGo&, const CharacterState&, Events& events) { events.set(Event::LetGo); }
};

template <>
struct EntryRow<entry::RimEnds> {
  static constexpr std::string_view kKind = "rim_ends";
  static void fields(const entry::RimEnds& e, auto&& f) {
    f("blocked", e.blocked);
    f("at", e.at_C);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::RimEnds& e, const World& world) {
    return e.blocked ? fmt::format("{} is in the way along the rim", piece_name(world, e.piece))
                     : std::string("the rim goes on no further");
  }
  static bool refuses(const entry::RimEnds&) { return true; }
  static std::vector<Vec3> places(const entry::RimEnds& e, const CharacterState&) { return {e.at_C}; }
};

template <>
struct EntryRow<entry::Gripped> {
  static constexpr std::string_view kKind = "gripped";
  static void fields(const entry::Gripped& e, auto&& f) {
    f("hands", e.hands_C);
    f("foot", e.foot_C);
    f("from_above", e.from_above);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::Gripped& e, const World& world) {
    return fmt::format("{} {}", e.from_above ? "goes down over the rim onto" : "takes hold of",
                       piece_name(world, e.piece));
  }
  static PieceId touched(const entry::Gripped& e) { return e.piece; }
  static void happens(const entry::Gripped&, const CharacterState&, Events& events) {
    events.set(Event::Caught);
  }
  static std::vector<Vec3> places(const entry::Gripped& e, const CharacterState&) {
    return {e.hands_C, e.foot_C};
  }
};

template <>
struct EntryRow<entry::ClimbRefused> {
  using Why = entry::ClimbRefused::Why;
  static constexpr std::string_view kKind = "climb_refused";
  static void fields(const entry::ClimbRefused& e, auto&& f) {
    f("why", word(kClimbRefusals, e.why));
    f("holds", e.holds);
    if (e.why == Why::LeansBack || e.why == Why::LeansOver) {
      f("found_deg", degrees(e.found));
      f("allowed_deg", degrees(e.allowed));
    }
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::ClimbRefused& e, const World& world) {
    const std::string of = piece_name(world, e.piece),
                      begin = e.holds ? "climbs no farther: " : "climb refused: ";
    switch (e.why) {
      case Why::NotClimbable:
        return begin + of + " is not climbable";
      case Why::LeansBack:
        return begin + fmt::format("{} leans back too far, {} > {}", of, angle(e.found), angle(e.allowed));
      case Why::LeansOver:
        return begin + fmt::format("{} leans over too far, {} > {}", of, angle(e.found), angle(e.allowed));
      case Why::NoRoom:
        return begin + of + " is in the way";
      case Why::Ends:
        break;
    }
    return begin + "the wall ends";
  }
  static bool refuses(const entry::ClimbRefused&) { return true; }
};

}  // namespace lagniappe
