// SPDX-License-Identifier: MIT
// The rows of the shapes and the effects of zones.
#pragma once

#include <optional>

#include "fields/row_words.h"
#include "lagniappe/document_key.h"
#include "lagniappe/zone.h"

namespace lagniappe {

// Written out for each shape and each effect of a zone, with
//   kKind, kHelp        its name in documents, and what it is
//   fields(s, f)        calls f(DocumentKey, value) for each value of it, in the document's order
// and, where values may not fit each other, fault(s).
template <typename Part>
struct ZoneRow;

template <>
struct ZoneRow<zone::Box> {
  static constexpr std::string_view kKind = "box", kHelp = "A box on its base.";
  static void fields(auto& s, auto&& f) { f(row_key::size("Width, height and depth."), s.size); }
};

template <>
struct ZoneRow<zone::Cylinder> {
  static constexpr std::string_view kKind = "cylinder", kHelp = "A round column on its base.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "Around its own Y."), s.radius);
    f(row_key::length("height", "Along it."), s.height);
  }
};

template <>
struct ZoneRow<zone::Ball> {
  static constexpr std::string_view kKind = "ball", kHelp = "A ball that touches its base.";
  static void fields(auto& s, auto&& f) { f(row_key::length("radius", "Of the ball."), s.radius); }
};

template <>
struct ZoneRow<zone::Pill> {
  static constexpr std::string_view kKind = "pill", kHelp = "What a ball covers that goes along its own Y.";
  static void fields(auto& s, auto&& f) {
    f(row_key::length("radius", "Of the ball."), s.radius);
    f(row_key::length_or_none("length", "Of its way."), s.length);
  }
};

// What a launch sets of the velocity in its frame; it adds the rest.
template <typename Flag>
struct SetsOf {
  Flag &up, &across;
};

inline const std::vector<std::string_view> kFrameWords = {"zone", "view", "facing", "course"};

template <>
struct ZoneRow<effect::Launch> {
  static constexpr std::string_view kKind = "launch",
                                    kHelp =
                                        "Throws who touches it: with a velocity, or to a mark. Once, until it "
                                        "is left.";
  static constexpr DocumentKey kFrame = {DocumentKey::Type::Text,
                                         "frame",
                                         "",
                                         0.0,
                                         0.0,
                                         false,
                                         "Whose right, up and forward these are: zone (where it is not said), "
                                         "view, facing or course.",
                                         false};
  static constexpr DocumentKey kPitch = {DocumentKey::Type::Flag,
                                         "pitch",
                                         "",
                                         0.0,
                                         1.0,
                                         false,
                                         "In the view: along the look as it is, not its heading alone.",
                                         false};
  static constexpr DocumentKey kSets = {DocumentKey::Type::List,
                                        "sets",
                                        "",
                                        0.0,
                                        0.0,
                                        false,
                                        "What of the velocity is set, \"up\" and \"across\" of its frame; the "
                                        "rest is added. Both where it is not said.",
                                        false};
  static constexpr DocumentKey kAgain = {DocumentKey::Type::Number,
                                         "again_after",
                                         "s",
                                         0.0,
                                         3600.0,
                                         false,
                                         "After which it throws again who is still there; 0: never.",
                                         false};
  static constexpr DocumentKey kApex = {DocumentKey::Type::Number,
                                        "apex",
                                        "m",
                                        0.0,
                                        1000.0,
                                        false,
                                        "Of the way to the mark, over the higher of its ends.",
                                        false};
  static SetsOf<bool> sets_of(effect::Launch& s) { return {s.sets_up, s.sets_across}; }
  static SetsOf<const bool> sets_of(const effect::Launch& s) { return {s.sets_up, s.sets_across}; }
  static void fields(auto& s, auto&& f) {
    f(row_key::velocity("velocity", "To the right, up and forward; against what the zone goes with.", false),
      s.velocity);
    f(kFrame, WordOf{s.frame, kFrameWords});
    f(kPitch, s.pitch);
    f(kSets, sets_of(s));
    f(kAgain, s.again_after);
    f(row_key::text("to", "A mark, to throw to instead.", false), s.to);
    f(kApex, s.apex);
  }
  static std::optional<RowFault> fault(const effect::Launch& s) {
    const bool still = s.velocity == Vec3(0.0);
    if (s.to.empty() && still)
      return RowFault{"velocity", "a launch needs a velocity that is not 0, or a mark in \"to\""};
    if (!s.to.empty() && !still) return RowFault{"to", "a launch has a velocity or a mark, not both"};
    if (!s.to.empty() && s.apex <= 0.0)
      return RowFault{"apex", "a launch to a mark needs an apex above 0, over the higher end of its way"};
    if (s.to.empty() && s.apex != 0.0)
      return RowFault{"apex", "only a launch to a mark has an apex: name one in \"to\""};
    return std::nullopt;
  }
};

template <>
struct ZoneRow<effect::Wind> {
  static constexpr std::string_view kKind = "wind", kHelp = "Moves the air in it, where the body's middle is.";
  static constexpr DocumentKey kFrame = {DocumentKey::Type::Text,
                                         "frame",
                                         "",
                                         0.0,
                                         0.0,
                                         false,
                                         "Whose right, up and forward these are: zone (where it is not said) "
                                         "or course.",
                                         false};
  static constexpr DocumentKey kFade = {DocumentKey::Type::Number,
                                        "fade",
                                        "m",
                                        0.0,
                                        row_key::kMostSize,
                                        false,
                                        "Inwards from its surface, over which it comes to its whole.",
                                        false};
  static constexpr DocumentKey kGust = {DocumentKey::Type::List,
                                        "gust",
                                        "",
                                        0.0,
                                        0.0,
                                        false,
                                        "Swings by this share about its velocity, once in a period (s).",
                                        false};
  static void fields(auto& s, auto&& f) {
    f(row_key::velocity("velocity", "Of the air: to the right, up and forward.", true), s.velocity);
    f(kFrame, WordOf{s.frame, kFrameWords});
    f(kFade, s.fade);
    f(kGust, s.gust);
  }
  static std::optional<RowFault> fault(const effect::Wind& s) {
    if (s.frame == effect::Frame::Zone || s.frame == effect::Frame::Course) return std::nullopt;
    return RowFault{"frame", "air moves in the frame \"zone\" or \"course\""};
  }
};

template <>
struct ZoneRow<effect::Pace> {
  static constexpr std::string_view kKind = "pace", kHelp = "Makes one slower or faster on the ground.";
  static constexpr DocumentKey kTimes = {DocumentKey::Type::Number,  "times", "", 0.0, 100.0, false,
                                         "The speeds on the ground."};
  static void fields(auto& s, auto&& f) { f(kTimes, s.times); }
};

template <>
struct ZoneRow<effect::SurfaceOver> {
  static constexpr std::string_view kKind = "surface", kHelp = "What faces in it count as being made of.";
  static void fields(auto& s, auto&& f) {
    f(row_key::text("surface", "One of the course's surfaces.", true), s.surface);
  }
};

template <>
struct ZoneRow<effect::Barred> {
  static constexpr std::string_view kKind = "barred", kHelp = "Lets nobody be in some states.";
  static constexpr DocumentKey kStates = {
      DocumentKey::Type::List, "states", "", 0.0, 0.0, false, "Their names in the profile's table."};
  static void fields(auto& s, auto&& f) { f(kStates, s.states); }
  static std::optional<RowFault> fault(const effect::Barred& s) {
    if (!s.states.empty()) return std::nullopt;
    return RowFault{"states", "it names no state"};
  }
};

template <>
struct ZoneRow<effect::Checkpoint> {
  static constexpr std::string_view kKind = "checkpoint",
                                    kHelp = "From here on one is put home to its base, facing its -Z.";
  static void fields(auto&, auto&&) {}
};

template <>
struct ZoneRow<effect::SendHome> {
  static constexpr std::string_view kKind = "home", kHelp = "Puts home who touches it.";
  static void fields(auto&, auto&&) {}
};

template <>
struct ZoneRow<effect::Signal> {
  static constexpr std::string_view kKind = "signal", kHelp = "Does nothing by itself: tables may ask for it.";
  static void fields(auto&, auto&&) {}
};

}  // namespace lagniappe
