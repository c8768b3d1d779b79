// SPDX-License-Identifier: MIT
// Rows of a course that are shown, changed and written by an editor.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "lagniappe/course_rows.h"
#include "lagniappe/files.h"
#include "lagniappe/take.h"

using namespace lagniappe;

namespace {

const std::string kYard = R"({
  "lagniappe": "course", "version": 1, "name": "Yard",
  "pieces": [
    {"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [9, 1, 9]},
    {"id": "raft", "kind": "block", "at": [0, 2, 0], "size": [2, 1, 2],
     "motion": {"period": 4, "keys": [{"at": 0}, {"at": 0.5, "move": [3, 0, 0]}]}}
  ],
  "fields": [
    {"id": "Ball",   "kind": "ball", "at": [0, 20, 0], "radius": 3,   "reach": 4.50},
    {"id": "Slab", "kind": "slab", "at": [20, 0, 0], "size": [4, 1, 4], "strength": 0.5},
    {"id": "Path", "kind": "path", "at": [0, 0, 40], "points": [[0, 0, 0], [4, 1, 0]], "radius": 1,
     "falloff": [[0, 1], [3, 0.25]]}
  ],
  "marks": [{"id": "start", "at": [0, 0, 0]}],
  "zones": [{"id": "Vent", "shape": {"kind": "cylinder", "radius": 1, "height": 0.05}, "at": [1, 0, 2],
             "effect": {"kind": "launch", "velocity": [0, 9, 0]}}]
}
)";

Course yard() { return *parse_course(kYard, "yard.course.json", "."); }

nlohmann::json row(const Course& course, CourseList list, std::size_t index) {
  return nlohmann::json::parse(row_text(course, list, index));
}

std::string text_of(const Course& course, const std::string& text = kYard) {
  const auto written = course_text(course, text, "yard.course.json", ".");
  REQUIRE(written);
  return *written;
}

}  // namespace

TEST_CASE("Every row put back as it is shown is the same course") {
  const Course course = yard();
  const std::uint64_t identity = identity_of(build_world(course));
  for (const CourseList list : {CourseList::Fields, CourseList::Zones}) {
    for (std::size_t i = 0; i < row_count(course, list); ++i) {
      const auto again = with_row(course, list, i, row_text(course, list, i));
      REQUIRE(again);
      CHECK(identity_of(build_world(*again)) == identity);
    }
  }
}

TEST_CASE("A row is changed, added and taken out, and the others stay") {
  const Course course = yard();
  auto ball = row(course, CourseList::Fields, 0);
  CHECK(ball["reach"] == 4.5);
  CHECK(ball["combine"] == "replaces");  // Told although the file does not.
  ball["radius"] = 5.25;
  ball["on"] = "raft";
  const auto changed = with_row(course, CourseList::Fields, 0, ball.dump());
  REQUIRE(changed);
  CHECK(std::get<field::Ball>(changed->fields[0].shape).radius == 5.25);
  CHECK(changed->fields[0].on == "raft");
  CHECK(changed->fields[1].id == "Slab");
  const auto more = with_row(
      *changed, CourseList::Zones, 1,
      R"({"id": "Draught", "shape": {"kind": "box", "size": [1, 2, 3]}, "at": [0, 0, 0], "effect": {"kind": "wind", "velocity": [0, 4, 0]}})");
  REQUIRE(more);
  CHECK(more->zones.size() == 2);
  CHECK(std::holds_alternative<effect::Wind>(more->zones[1].effect));
  const Course less = without_row(*more, CourseList::Fields, 1);
  REQUIRE(less.fields.size() == 2);
  CHECK(less.fields[1].id == "Path");
  CHECK(less.zones.size() == 2);
}

TEST_CASE("What a file would be refused for, a row is") {
  const Course course = yard();
  const auto why = [&](CourseList list, std::size_t index, const char* key, const nlohmann::json& value) {
    auto changed = index < row_count(course, list) ? row(course, list, index) : row(course, list, 0);
    changed[key] = value;
    const auto read = with_row(course, list, index, changed.dump());
    return read ? std::string() : read.error().sentence();
  };
  CHECK_THAT(why(CourseList::Fields, 0, "radius", -2.0), Catch::Contains("radius"));
  CHECK_THAT(why(CourseList::Fields, 0, "on", "nobody"), Catch::Contains("there is no piece \"nobody\""));
  CHECK_THAT(why(CourseList::Fields, 3, "radius", 2.0), Catch::Contains("the id \"Ball\" is used before"));
  CHECK_THAT(why(CourseList::Fields, 1, "colour", "red"), Catch::Contains("colour"));
  CHECK_THAT(why(CourseList::Zones, 0, "at", 7), Catch::Contains("/zones/0/at"));
  const auto broken = with_row(course, CourseList::Fields, 0, "{\"id\": ");
  REQUIRE(!broken);
  CHECK_THAT(broken.error().sentence(), Catch::Contains("the fields of Yard"));
  CHECK_FALSE(with_row(course, CourseList::Fields, 0, "[]"));
}

TEST_CASE("A course that was not changed is written byte for byte") { CHECK(text_of(yard()) == kYard); }

TEST_CASE("Only the rows that mean something else are written anew") {
  auto slab = row(yard(), CourseList::Fields, 1);
  slab["strength"] = 0.75;
  const Course changed = *with_row(yard(), CourseList::Fields, 1, slab.dump());
  const std::string text = text_of(changed);
  // The neighbours keep even their odd spaces.
  CHECK_THAT(text, Catch::Contains(
                       R"({"id": "Ball",   "kind": "ball", "at": [0, 20, 0], "radius": 3,   "reach": 4.50})"));
  CHECK_THAT(text, Catch::Contains("\"falloff\": [[0, 1], [3, 0.25]]}"));
  CHECK_THAT(text, Catch::Contains("\"strength\": 0.75"));
  CHECK_THAT(text, !Catch::Contains("\"priority\""));  // What goes without saying is not said.
  const auto again = parse_course(text, "yard.course.json", ".");
  REQUIRE(again);
  CHECK(identity_of(build_world(*again)) == identity_of(build_world(changed)));
}

TEST_CASE("Rows added, taken out and all gone are read back as they were, from any file") {
  const char* const kBare = R"({"lagniappe": "course", "version": 1, "name": "Bare",
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [9, 1, 9]}],
  "marks": [{"id": "start", "at": [0, 0, 0]}]})";
  const Course bare = *parse_course(kBare, "bare.course.json", ".");
  const auto same = [](const Course& course, const std::string& text) {
    const auto again = parse_course(text, "x.course.json", ".");
    REQUIRE(again);
    CHECK(identity_of(build_world(*again)) == identity_of(build_world(course)));
    CHECK(again->fields.size() == course.fields.size());
    CHECK(again->zones.size() == course.zones.size());
    for (std::size_t i = 0; i < course.fields.size(); ++i) CHECK(again->fields[i].id == course.fields[i].id);
  };
  Course filled = bare;
  for (const char* id : {"One", "Two \"quoted\", and: more", "Ends in \\", "\\\"a:b,c\\\\", "Three"}) {
    const nlohmann::json ball = {
        {"id", id}, {"kind", "ball"}, {"at", {1, 2, 3}}, {"radius", 2}, {"acceleration", 7}};
    filled = *with_row(filled, CourseList::Fields, filled.fields.size(), ball.dump());
  }
  const std::string text = text_of(filled, kBare);
  same(filled, text);
  Course fewer = filled;
  while (fewer.fields.size() > 1) fewer = without_row(fewer, CourseList::Fields, 0);
  same(fewer, text_of(fewer, text));
  const Course none = without_row(fewer, CourseList::Fields, 0);
  same(none, text_of(none, text));
  // And from the yard: one gone in the middle and one more behind.
  Course yard_now = without_row(yard(), CourseList::Fields, 1);
  yard_now = *with_row(yard_now, CourseList::Fields, 2,
                       R"({"id": "Late", "kind": "ring", "at": [0, 9, 0], "radius": 3, "thickness": 1})");
  same(yard_now, text_of(yard_now));
}

TEST_CASE("Text that is no course, or that rows do not fit, is not written") {
  CHECK_FALSE(course_text(yard(), "{", "x", "."));
  const char* const kOther = R"({"lagniappe": "course", "version": 1, "name": "Bare",
  "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [9, 1, 9]}],
  "marks": [{"id": "start", "at": [0, 0, 0]}]})";
  Course on_raft = yard();
  on_raft.fields[0].on = "raft";
  const auto refused = course_text(on_raft, kOther, "other.course.json", ".");
  REQUIRE(!refused);
  CHECK_THAT(refused.error().sentence(), Catch::Contains("there is no piece \"raft\""));
}
