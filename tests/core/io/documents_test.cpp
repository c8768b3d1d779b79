// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>

#include "support/plain_numbers.h"
#include "support/scenes.h"

using namespace lagniappe;
using lagniappe::test::text_of_number;

namespace {

std::string sentence(const Result<Course>& r) { return r ? "" : r.error().sentence(); }
std::string sentence(const Result<Profile>& r) { return r ? "" : r.error().sentence(); }
std::string sentence(const Result<InputScript>& r) { return r ? "" : r.error().sentence(); }

using Catch::Matchers::Contains;

}  // namespace

TEST_CASE("A profile names only what differs") {
  const auto profile = parse_profile(R"({"lagniappe": "profile", "version": 1, "name": "Short",
    "capsule": {"radius": 0.25, "height": 1.2}, "ground": {"steepest_walkable": 50, "response": {"model": "steady"}},
    "jump": {"air_jumps": 2}, "look": {"lowest_pitch": -60}})",
                                     "p");
  REQUIRE(profile);
  const Profile plain;
  CHECK(profile->name == "Short");
  CHECK(profile->capsule.radius == 0.25);
  CHECK(profile->capsule.eye_height == Approx(1.104));  // Follows the height where it is not named.
  CHECK(profile->ground.steepest_walkable == Approx(radians(50.0)));
  CHECK(profile->ground.response.model == Response::Model::Steady);
  CHECK(profile->ground.response.acceleration == plain.ground.response.acceleration);
  CHECK(profile->air.response.model == plain.air.response.model);
  CHECK(profile->jump.air_jumps == 2);
  CHECK(profile->look.lowest_pitch == Approx(radians(-60.0)));
  CHECK(profile->gravity == plain.gravity);
}

TEST_CASE("Every number of the profile table is read, and its range is kept") {
  for (const ProfileField& field : profile_fields()) {
    INFO(field.section << "/" << field.key);
    const auto with = [&](double value) {
      std::string inner = "\"" + std::string(field.key) + "\": " + text_of_number(value);
      std::string section(field.section);
      while (!section.empty()) {
        const std::size_t slash = section.rfind('/');
        inner = "\"" + section.substr(slash == std::string::npos ? 0 : slash + 1) + "\": {" + inner + "}";
        section = slash == std::string::npos ? "" : section.substr(0, slash);
      }
      return parse_profile("{\"lagniappe\": \"profile\", \"version\": 1, " + inner + "}", "p");
    };
    CHECK_THAT(sentence(with(field.high + 1.0)), Contains("out of range") && Contains(std::string(field.key)));
    CHECK_THAT(sentence(with(field.low - 1.0)), Contains("out of range"));
    const double fits = field.key == "height" && field.section == "capsule"          ? 3.0
                        : field.unit == Unit::Count                                  ? 4.0
                        : field.section == "ground/gather" && field.key == "lowest"  ? 5.0
                        : field.section == "ground/gather" && field.key == "highest" ? 12.0
                        : field.key == "centre_of_mass"                              ? 0.7
                        : field.key == "eye_height"                                  ? 1.0
                        : field.key == "margin"                                      ? 0.1
                        : field.key == "radius"                                      ? 0.2
                                                : field.low + 0.37 * std::min(field.high - field.low, 10.0);
    auto profile = with(fits);
    REQUIRE(profile);
    CHECK(field.get(*profile) == Approx(field.is_angle() ? radians(fits) : fits).margin(1e-6));
  }
}

TEST_CASE("Refusals name file, line, column and path, and the nearest known key") {
  const std::string unknown = R"({"lagniappe": "profile", "version": 1,
  "ground": {"speed": 4,
             "steepest_walkabel": 40}})";
  CHECK(sentence(parse_profile(unknown, "a.profile.json")) ==
        "a.profile.json: line 3, column 35 (/ground/steepest_walkabel): the key \"steepest_walkabel\" is not "
        "known; "
        "the nearest known key is \"steepest_walkable\"");
  const std::string twice = "{\"lagniappe\": \"profile\",\n \"version\": 1,\n \"gravity\": 9, \"gravity\": 8}";
  CHECK_THAT(sentence(parse_profile(twice, "p")), Contains("line 3, column 16") && Contains("stands twice"));
  CHECK_THAT(sentence(parse_profile("{\"lagniappe\": \"course\", \"version\": 1}", "p")),
             Contains("line 1, column 15") && Contains("a \"profile\" is wanted"));
  CHECK_THAT(sentence(parse_profile("{\"lagniappe\": \"profile\", \"version\": 2}", "p")), Contains("version"));
  CHECK_THAT(sentence(parse_profile(
                 "{\"lagniappe\": \"profile\", \"version\": 1, \"air\": {\"speed\": \"fast\"}}", "p")),
             Contains("(/air/speed)") && Contains("a number is wanted here, not \"fast\""));
  CHECK_THAT(
      sentence(parse_profile(
          "{\"lagniappe\": \"profile\", \"version\": 1, \"capsule\": {\"radius\": 1, \"height\": 1.5}}", "p")),
      Contains("at least twice the radius"));
}

TEST_CASE("Inputs are read in order of time, angles in degrees") {
  const auto script = parse_inputs(R"({"lagniappe": "inputs", "version": 1, "steps": [
    {"at": 0, "move": [0, 1], "look": [90, -10]}, {"at": 1.5, "press": ["jump", "sprint"], "turn": [180, 0]},
    {"at": 1.5, "release": ["jump"]}]})",
                                   "i");
  REQUIRE(script);
  REQUIRE(script->changes.size() == 3);
  CHECK(script->changes[0].look->x == Approx(kPi / 2));
  CHECK(script->changes[1].turn->x == Approx(kPi));
  CHECK(script->changes[1].press.has(Action::Sprint));
  CHECK(script->end() == 1.5);
  CHECK_THAT(sentence(parse_inputs(R"({"lagniappe":"inputs","version":1,"steps":[{"at":2},{"at":1}]})", "i")),
             Contains("order of time"));
  CHECK_THAT(
      sentence(parse_inputs(R"({"lagniappe":"inputs","version":1,"steps":[{"at":2,"press":["jmup"]}]})", "i")),
      Contains("nearest known word is \"jump\""));
}

TEST_CASE("A course is read with turns in radians and marks, and its ids must differ") {
  const std::string head =
      R"({"lagniappe": "course", "version": 1, "name": "Yard", "marks": [{"id": "start", "at": [0, 1, 0], "facing": 270}], "pieces": [)";
  const auto course = parse_course(
      head +
          R"({"id": "a", "kind": "block", "at": [0, 0, 0], "turn": [90, 0, 0], "size": [1, 2, 3], "surface": "mud"}]})",
      "c", "");
  REQUIRE(course);
  CHECK(course->pieces[0].turn.x == Approx(kPi / 2));
  CHECK(course->pieces[0].surface == "mud");
  CHECK(course->marks[0].facing == Approx(-kPi / 2));
  CHECK(start_home(*course).foot_C == Vec3(0, 1, 0));
  CHECK_THAT(
      sentence(parse_course(
          head +
              R"({"id": "a", "kind": "ramp", "at": [0,0,0], "size": [1,1,1]}, {"id": "a", "kind": "ramp", "at": [0,0,0], "size": [1,1,1]}]})",
          "c", "")),
      Contains("(/pieces/1/id)") && Contains("used before"));
}
