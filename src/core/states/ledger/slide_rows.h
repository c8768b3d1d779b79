// SPDX-License-Identifier: MIT
// Rows of the ledger: collide and slide, and steps.
#pragma once

#include "states/ledger/entry_row.h"

namespace lagniappe {

template <>
struct EntryRow<entry::Sweep> {
  static constexpr std::string_view kKind = "sweep";
  static void fields(const entry::Sweep& e, auto&& f) {
    f("from", e.from_C);
    f("motion", e.motion_C);
    f("hit", e.hit);
    if (!e.hit) return;
    f("fraction", e.fraction);
    f("piece", Named{e.piece});
    f("point", e.point_C);
    f("normal", e.normal_C);
    f("feature", word(kFeatures, e.feature));
  }
  static std::string tell(const entry::Sweep& e, const World& world) {
    const double far = length(e.motion_C);
    if (!e.hit) return fmt::format("moved {}: nothing in the way", metres(far));
    return fmt::format("moved {}: met the {} of {}", metres_of(far * e.fraction, far),
                       word(kFeatures, e.feature), piece_name(world, e.piece));
  }
  static PieceId touched(const entry::Sweep& e) { return e.hit ? e.piece : kNoPiece; }
  static std::vector<Vec3> places(const entry::Sweep& e, const CharacterState&) {
    const Vec3 ended = e.from_C + e.motion_C * e.fraction;
    return e.hit ? std::vector<Vec3>{e.point_C, ended} : std::vector<Vec3>{ended};
  }
};

template <>
struct EntryRow<entry::Slide> {
  static constexpr std::string_view kKind = "slide";
  static void fields(const entry::Slide& e, auto&& f) {
    f("on", word(kSlideKinds, e.kind));
    f("plane", e.plane_C);
    f("rest", e.rest_C);
    f("approach_deg", degrees(e.approach));
    f("kept", e.kept);
    f("contact", word(kContactKindNames, e.contact));
  }
  static std::string tell(const entry::Slide& e, const World&) {
    const std::string left = metres(length(e.rest_C));
    switch (e.kind) {
      case entry::Slide::Kind::Along:
        return fmt::format("goes on along the surface, {} left", left);
      case entry::Slide::Kind::Wall:
        return fmt::format("slides along it: run into at {}, {:.0f} % of the speed kept, {} left",
                           angle(e.approach), e.kept * 100.0, left);
      case entry::Slide::Kind::Ceiling:
        return fmt::format("slides along the ceiling, {} left", left);
      case entry::Slide::Kind::Crease:
        return fmt::format("follows the edge of two faces, {} left", left);
      case entry::Slide::Kind::Stop:
        break;
    }
    return fmt::format("stopped: run into at {}, nothing left to go", angle(e.approach));
  }
  static void happens(const entry::Slide& e, const CharacterState& before, Events& events) {
    if (e.contact == ContactKind::Ceiling) events.set(Event::Ceiling);
    if (e.contact == ContactKind::Wall || (e.contact == ContactKind::Steep && before.grounded()))
      events.set(Event::Wall);
  }
};

template <>
struct EntryRow<entry::Exhausted> {
  static constexpr std::string_view kKind = "exhausted";
  static void fields(const entry::Exhausted& e, auto&& f) {
    f("planes", e.planes);
    f("left_m", e.left);
  }
  static std::string tell(const entry::Exhausted& e, const World&) {
    return fmt::format("gave up sliding after {} planes, {} of the way left", e.planes, metres(e.left));
  }
  static bool refuses(const entry::Exhausted&) { return true; }
};

template <>
struct EntryRow<entry::Step> {
  static constexpr std::string_view kKind = "step";
  static void fields(const entry::Step& e, auto&& f) {
    f("outcome", word(kStepOutcomes, e.outcome));
    f("rise_m", e.rise);
    f("highest_m", e.highest);
    f("piece", Named{e.piece});
  }
  static std::string tell(const entry::Step& e, const World& world) {
    using Outcome = entry::Step::Outcome;
    const std::string on = piece_name(world, e.piece), rise = fmt::format("{:.3f} m", e.rise),
                      highest = fmt::format("{:.3f} m", e.highest);  // One unit: they are compared.
    switch (e.outcome) {
      case Outcome::Taken:
        return fmt::format("step taken onto {}: rise {} \u2264 {} allowed", on, rise, highest);
      case Outcome::TooHigh:
        return e.rise > e.highest
                   ? fmt::format("step tried on {}: rise {} > {} allowed, refused", on, rise, highest)
                   : fmt::format("step tried on {}: still a wall at {}, refused", on, highest);
      case Outcome::NoHeadRoom:
        return fmt::format("step tried on {}: no head room above the rise of {}, refused", on, rise);
      case Outcome::ShortTread:
        return fmt::format("step tried on {}: the tread above {} is too short, refused", on, rise);
      case Outcome::NotWalkable:
        return fmt::format("step tried on {}: what is on top, {} up, cannot be walked on, refused", on, rise);
      case Outcome::NoGain:
        break;
    }
    return fmt::format("step tried on {}: sliding gets as far, refused", on);
  }
  static bool refuses(const entry::Step& e) { return e.outcome != entry::Step::Outcome::Taken; }
  static PieceId touched(const entry::Step& e) { return e.piece; }
  static void happens(const entry::Step& e, const CharacterState&, Events& events) {
    events.set(e.outcome == entry::Step::Outcome::Taken ? Event::Step : Event::StepRefused);
  }
  static std::vector<Vec3> places(const entry::Step&, const CharacterState& now) { return {now.foot_C}; }
};

}  // namespace lagniappe
