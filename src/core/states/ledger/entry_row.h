// SPDX-License-Identifier: MIT
// A row for each kind of ledger entry: all that is to be known of it, in one place. JSON, sentences, the
// examination, the tape's marks and the places in the view walk the rows.
#pragma once

#include <string>
#include <vector>

#include <fmt/format.h>

#include "lagniappe/ledger_facts.h"
#include "states/ledger_words.h"

namespace lagniappe {

// Written out for each entry, with
//   kKind                        its name in documents
//   fields(entry, f)             calls f(name, value) for each field, the unit at the end of its name; what has
//   no
//                                value is left out
//   tell(entry, world)           a sentence with its numbers
// and, where they have one,
//   refuses(entry)               whether something that was asked for or tried did not happen
//   touched(entry)               the piece that the character touched
//   happens(entry, before, events)  the events that it is
//   places(entry, now)           where it lies, in the course frame
template <typename Entry>
struct EntryRow;

// A piece, in a document by its name.
struct Named {
  PieceId piece;
};

// The same of a zone.
struct ZoneNamed {
  ZoneId zone;
};

// The same of a field.
struct FieldNamed {
  std::uint16_t field;
};

// Lengths below this are told in millimetres.
inline constexpr double kShort = 0.01;

inline std::string metres(double m) {
  return std::abs(m) < kShort ? fmt::format("{:.2f} mm", m * 1000.0) : fmt::format("{:.3f} m", m);
}
// A part of a length and the whole, in one unit: "0.000 of 0.067 m".
inline std::string metres_of(double part, double whole) {
  return whole < kShort ? fmt::format("{:.2f} of {:.2f} mm", part * 1000.0, whole * 1000.0)
                        : fmt::format("{:.3f} of {:.3f} m", part, whole);
}
inline std::string angle(double radians) { return fmt::format("{:.1f}\u00b0", degrees(radians)); }
// With its sign along each axis of the course, and no "-0.00".
inline std::string signed_parts(const Vec3& v) {
  constexpr double kLeast = 5e-3;
  const auto shown = [](double x) { return std::abs(x) < kLeast ? 0.0 : x; };
  return fmt::format("({:+.2f}, {:+.2f}, {:+.2f})", shown(v.x), shown(v.y), shown(v.z));
}
// m/s.
inline std::string change(const Vec3& v) {
  if (length(v) < 5e-3) return fmt::format("by {:.3f} mm/s", length(v) * 1000.0);
  return "by " + signed_parts(v) + " m/s";
}
inline std::string direction(const Vec3& v) { return fmt::format("({:.2f}, {:.2f}, {:.2f})", v.x, v.y, v.z); }

inline std::string piece_name(const World& world, PieceId id) {
  const std::string_view name = world.piece_name(id);
  return name.empty() ? "no piece" : fmt::format("\u201c{}\u201d", name);
}

inline std::string zone_name(const World& world, ZoneId zone) {
  return fmt::format("\u201c{}\u201d", world.zone(zone, 0.0).name);
}

inline std::string field_name(const World& world, std::uint16_t field) {
  return field == kBelowFields ? "the course's own gravity" : std::string(world.field_name(field));
}

}  // namespace lagniappe
