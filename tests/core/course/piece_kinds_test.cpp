// SPDX-License-Identifier: MIT
// What the rows of shapes say is what reader, writer and mesh do.
#include "lagniappe/piece_kinds.h"

#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <set>

#include "lagniappe/files.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

// A course of one piece of that kind, each value where `share` lies in its range; `but` has `instead` for a
// value.
std::string course_text(const PieceKind& kind, double share, std::string_view but = {},
                        const std::string& instead = {}) {
  std::string keys;
  for (const DocumentKey& key : kind.keys) {
    const double span = std::min(key.high, 4.0) - key.low;
    const double number = key.low + share * span;
    std::string value = fmt::format("{}", number);
    if (key.type == DocumentKey::Type::Whole) value = fmt::format("{}", static_cast<int>(number) + 1);
    if (key.type == DocumentKey::Type::Size) value = "[" + value + ", " + value + ", " + value + "]";
    if (key.name == but) value = instead;
    if (!value.empty()) keys += ", \"" + std::string(key.name) + "\": " + value;
  }
  return R"({"lagniappe": "course", "version": 1, "name": "n", "marks": [{"id": "start", "at": [0, 9, 0]}],
    "pieces": [{"id": "p", "at": [0, 0, 0], "kind": ")" +
         std::string(kind.name) + "\"" + keys + "}]}";
}

bool is_plain(const PieceKind& kind) {
  return std::all_of(kind.keys.begin(), kind.keys.end(),
                     [](const DocumentKey& key) { return key.type <= DocumentKey::Type::Size; });
}

}  // namespace

TEST_CASE("Each kind has a name and keys of its own, with words for people") {
  std::set<std::string_view> names;
  for (const PieceKind& kind : piece_kinds()) {
    CHECK(names.insert(kind.name).second);
    CHECK_FALSE(kind.help.empty());
    std::set<std::string_view> keys = {"id", "kind", "at", "turn", "surface", "motion"};
    for (const DocumentKey& key : kind.keys) {
      INFO(kind.name << " " << key.name);
      CHECK(keys.insert(key.name).second);
      CHECK_FALSE(key.help.empty());
    }
  }
  CHECK(names.size() == std::variant_size_v<Shape>);
}

TEST_CASE(
    "A course of each plain kind is read, written and read to the same triangles, as many as the row says") {
  int plain = 0;
  for (const PieceKind& kind : piece_kinds()) {
    if (!is_plain(kind)) continue;
    ++plain;
    INFO(kind.name);
    std::string text = course_text(kind, 0.5);
    if (kind.name == "spiral-stairs") text = course_text(kind, 0.5, "inner", "0.3");
    if (kind.name == "ring") text = course_text(kind, 0.5, "thickness", "0.7");
    const auto course = parse_course(text, "x.course.json", "");
    if (!course) FAIL(course.error().sentence());
    CHECK(kind_of(course->pieces[0].shape).name == kind.name);
    const auto triangles = triangles_of(course->pieces[0]);
    CHECK(triangles.size() <= most_triangles(course->pieces[0].shape));
    CHECK(triangles.size() >= 8);
  }
  CHECK(plain >= 4);
}

TEST_CASE("What is out of the range that a row says, left out, or of another kind is refused at its place") {
  for (const PieceKind& kind : piece_kinds()) {
    if (!is_plain(kind)) continue;
    for (const DocumentKey& key : kind.keys) {
      INFO(kind.name << " " << key.name);
      const std::string above = fmt::format("{}", key.high * 2.0 + 1.0),
                        below = fmt::format("{}", key.low - 1.0);
      for (const std::string& number : {above, below, std::string("\"3\""), std::string("")}) {
        if (!key.needed && number.empty()) continue;
        const bool size = key.type == DocumentKey::Type::Size && !number.empty();
        const std::string value = size ? "[1, " + number + ", 1]" : number;
        const auto refused = parse_course(course_text(kind, 0.5, key.name, value), "x.course.json", "");
        REQUIRE_FALSE(refused);
        CHECK(refused.error().sentence().find(std::string(key.name)) != std::string::npos);
      }
    }
  }
}
