// SPDX-License-Identifier: MIT
// Zones and belts in course documents.
#include <catch2/catch.hpp>

#include "io/document_writers.h"
#include "lagniappe/files.h"
#include "lagniappe/take.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

std::string document(const std::string& zones, const std::string& drift = "") {
  return R"({"lagniappe": "course", "version": 1, "name": "Yard",
      "surfaces": [{"id": "ice", "friction": 0.1}],
      "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [9, 1, 9])" +
         drift + R"(}], "marks": [{"id": "start", "at": [0, 0, 0]}, {"id": "top", "at": [0, 5, -9]}],
      "zones": [)" +
         zones + "]}";
}

std::string zone_with(const std::string& effect, const std::string& more = "") {
  return R"({"id": "Vent", "shape": {"kind": "cylinder", "radius": 1, "height": 0.05}, "at": [1, 0, 2])" +
         more + R"(, "effect": )" + effect + "}";
}

std::string refusal(const std::string& zones) {
  const auto read = parse_course(document(zones), "yard.course.json", ".");
  return read ? "" : read.error().sentence();
}

}  // namespace

TEST_CASE("Zones and belts are the same after writing and reading again") {
  const std::string zones =
      zone_with(
          R"({"kind": "launch", "velocity": [1, 9, 2], "frame": "facing", "sets": [], "again_after": 1.5})",
          R"(, "turn": [10, 20, 30], "on": "floor")") +
      R"(, {"id": "b", "shape": {"kind": "box", "size": [1, 2, 3]}, "at": [0, 0, 0],
            "effect": {"kind": "launch", "to": "top", "apex": 2}},
          {"id": "c", "shape": {"kind": "pill", "radius": 1, "length": 0}, "at": [0, 0, 0],
            "effect": {"kind": "wind", "velocity": [0, 3, 0], "frame": "course", "fade": 0.5, "gust": {"period": 3, "share": 0.25}}},
          {"id": "d", "shape": {"kind": "ball", "radius": 2}, "at": [0, 0, 0], "effect": {"kind": "barred", "states": ["Sprint", "Lie"]}},
          {"id": "e", "shape": {"kind": "ball", "radius": 2}, "at": [0, 0, 0], "effect": {"kind": "surface", "surface": "ice"}},
          {"id": "f", "shape": {"kind": "ball", "radius": 2}, "at": [0, 0, 0], "effect": {"kind": "pace", "times": 0.5}},
          {"id": "g", "shape": {"kind": "ball", "radius": 2}, "at": [0, 0, 0], "effect": {"kind": "home"}})";
  const auto read = parse_course(document(zones, R"(, "drift": [0, 0.25, -2])"), "yard.course.json", ".");
  REQUIRE(read);
  CHECK(read->pieces[0].drift == Vec3(0, 0.25, -2));
  REQUIRE(read->zones.size() == 7);
  const std::string text = dumped(course_json(*read));
  const auto again = parse_course(text, "again", ".");
  REQUIRE(again);
  CHECK(dumped(course_json(*again)) == text);
  CHECK(again->pieces[0].drift == read->pieces[0].drift);
  for (std::size_t i = 0; i < read->zones.size(); ++i) {
    const Zone &a = read->zones[i], &b = again->zones[i];
    CHECK(a.id == b.id);
    CHECK(a.at_C == b.at_C);
    CHECK(a.turn == b.turn);
    CHECK(a.on == b.on);
    CHECK(a.effect == b.effect);
  }
  const auto& launch = std::get<effect::Launch>(read->zones[0].effect);
  CHECK_FALSE(launch.sets_up);
  CHECK_FALSE(launch.sets_across);
  CHECK(launch.frame == effect::Frame::Facing);
  // What the names mean is put in for the world.
  const std::vector<Zone> placed = zones_of(*read);
  CHECK(std::get<effect::Launch>(placed[1].effect).target_C == Vec3(0, 5, -9));
  CHECK(std::get<effect::SurfaceOver>(placed[4].effect).is.friction == 0.1);
  // A course is another where a zone, or a belt, is another.
  Course other = *read;
  other.zones[5].effect = effect::Pace{0.75};
  CHECK(identity_of(build_world(other)) != identity_of(build_world(*read)));
  other = *read;
  other.pieces[0].drift = Vec3(0.0);
  CHECK(identity_of(build_world(other)) != identity_of(build_world(*read)));
}

TEST_CASE("What a zone cannot be is refused by place and key") {
  using Catch::Contains;
  const std::string signal = R"({"kind": "signal"})";
  CHECK(refusal(zone_with(signal)).empty());
  CHECK_THAT(refusal(zone_with(signal) + ", " + zone_with(signal)), Contains("\"Vent\" is used before"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "lunch"})")), Contains("launch"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "launch"})")), Contains("needs a velocity that is not 0"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "launch", "velocity": [0, 0, 0]})")),
             Contains("/zones/0/effect/velocity") && Contains("not 0"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "launch", "to": "tip", "apex": 1})")),
             Contains("/zones/0/effect/to") && Contains("there is no mark \"tip\""));
  CHECK_THAT(refusal(zone_with(R"({"kind": "launch", "to": "top"})")), Contains("needs an apex above 0"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "launch", "to": "top", "apex": 1, "velocity": [0, 1, 0]})")),
             Contains("not both"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "launch", "velocity": [0, 1, 0], "apex": 1})")),
             Contains("/zones/0/effect/apex"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "wind", "velocity": [0, 1, 0], "frame": "view"})")),
             Contains("/zones/0/effect/frame"));
  CHECK_THAT(refusal(zone_with(R"({"kind": "surface", "surface": "mud"})")),
             Contains("\"mud\" is not among \"surfaces\""));
  CHECK_THAT(refusal(zone_with(R"({"kind": "barred", "states": []})")), Contains("names no state"));
  CHECK_THAT(refusal(zone_with(signal, R"(, "on": "lift")")), Contains("there is no piece \"lift\""));
  CHECK_THAT(refusal(R"({"id": "a", "shape": {"kind": "box", "size": [1, 0, 1]}, "at": [0, 0, 0], "effect": )" +
                     signal + "}"),
             Contains("/zones/0/shape/size"));
}
