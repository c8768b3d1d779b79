// SPDX-License-Identifier: MIT
// Saving a profile changes what changed and nothing else.
#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>
#include <regex>
#include <sstream>

#include "lagniappe/files.h"
#include "lagniappe/handling.h"
#include "lagniappe/handling_files.h"
#include "lagniappe/profile_fields.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

const std::string kWritten = R"({
  "lagniappe": "profile",
  "version": 1,
  "name": "Otter",
  "jump": {"height": 1.0, "coyote_time": 0.1},
  "ground": {
    "speed": 3.5,
    "response": { "model": "smooth",
                  "time": 0.2 }
  }
}
)";

std::vector<std::string> lines_of(const std::string& text) {
  std::vector<std::string> lines;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) lines.push_back(line);
  return lines;
}

Profile random_profile(Random& random) {
  Profile p;
  p.name = "Random";
  for (const ProfileField& f : profile_fields()) {
    const double x = random.between(f.sane_low, f.sane_high);
    f.set_typed(p, f.unit == Unit::Count ? std::floor(x) : x);
  }
  p.capsule.height = std::max(p.capsule.height, 2.0 * p.capsule.radius);
  p.capsule.eye_height = std::min(p.capsule.eye_height, p.capsule.height);
  p.capsule.centre_of_mass = std::min(p.capsule.centre_of_mass, p.capsule.height);
  p.capsule.margin = std::min(p.capsule.margin, 0.5 * p.capsule.radius);
  p.ground.gather.highest = std::max(p.ground.gather.highest, p.ground.gather.lowest);
  for (const ProfileChoice& c : profile_choices())
    c.set(p, random.below(c.words.empty() ? 2 : int(c.words.size())));
  p.jump.air_jump_height = {{{{1.0, random.between(0.1, 2.0)}, {2.0, 1.0}}}, random.below(3)};
  return p;
}

}  // namespace

TEST_CASE("Saving changes one line for a changed value, and keeps every other byte") {
  Profile p = *parse_profile(kWritten, "otter");
  CHECK(*profile_text(p, kWritten, "otter") == kWritten);
  p.ground.speed = 3.75;
  const auto before = lines_of(kWritten), after = lines_of(*profile_text(p, kWritten, "otter"));
  REQUIRE(after.size() == before.size());
  for (std::size_t i = 0; i < after.size(); ++i) {
    if (i != 6) CHECK(after[i] == before[i]);
  }
  CHECK(after[6] == "    \"speed\": 3.75,");

  p.jump.height = 1.25;         // In a section of one line,
  p.ground.highest_step = 0.5;  // new in a section of several,
  p.camera.distance = 3.0;      // and in one that is not there yet.
  const std::string text = *profile_text(p, kWritten, "otter");
  CHECK_THAT(text, Catch::Contains("\"jump\": {\"height\": 1.25, \"coyote_time\": 0.1},"));
  CHECK_THAT(text, Catch::Contains("\n    \"highest_step\": 0.5"));
  CHECK_THAT(text, Catch::Contains("  \"camera\": {\n    \"distance\": 3.0\n  }\n}"));
  CHECK(identity_of(*parse_profile(text, "otter")) == identity_of(p));
}

TEST_CASE("Values that follow others stay what they were when the others are saved") {
  Profile p = *parse_profile(kWritten, "otter");
  REQUIRE(p.ground.response.turn_time == 0.2);  // Follows the time.
  p.ground.response.time = 0.4;
  const auto again = parse_profile(*profile_text(p, kWritten, "otter"), "otter");
  CHECK(again->ground.response.time == 0.4);
  CHECK(again->ground.response.turn_time == 0.2);
}

TEST_CASE("Notes are kept, changed and taken away") {
  Profile p = *parse_profile(kWritten, "otter");
  p.notes["jump.height"] = "clears the \"sill\" of the sluice";
  const std::string noted = *profile_text(p, kWritten, "otter");
  CHECK(parse_profile(noted, "otter")->notes == p.notes);
  p.notes.clear();
  CHECK(parse_profile(*profile_text(p, noted, "otter"), "otter")->notes.empty());
  const auto wrong =
      parse_profile(R"({"lagniappe": "profile", "version": 1, "notes": {"jump.hight": ""}})", "p");
  REQUIRE_FALSE(wrong);
  CHECK_THAT(wrong.error().sentence(), Catch::Contains("jump.height"));
}

TEST_CASE("Any profile is saved into any other's text, or as a new one, to the bit") {
  Random random(5);
  for (int i = 0; i < 100; ++i) {
    const Profile from = random_profile(random), to = random_profile(random);
    const std::string first = *profile_text(from);
    REQUIRE(identity_of(*parse_profile(first, "a")) == identity_of(from));
    const auto second = profile_text(to, first, "a");
    REQUIRE(second);
    REQUIRE(identity_of(*parse_profile(*second, "a")) == identity_of(to));
  }
  CHECK_FALSE(profile_text(Profile{}, "{\"lagniappe\": \"course\"}", "c"));
}

TEST_CASE("Blending meets both ends, keeps what both keep, and every share can be read") {
  Random random(7);
  for (int i = 0; i < 50; ++i) {
    const Profile a = random_profile(random), b = random_profile(random);
    CHECK(identity_of(blended(a, b, 0.0)) == identity_of(a));
    CHECK(identity_of(blended(a, b, 1.0)) == identity_of(b));
    const Profile half = blended(a, b, 0.5);
    CHECK(half.jump.height == Approx(0.5 * (a.jump.height + b.jump.height)));
    const double share = random.between(0.0, 1.0);
    const auto text = profile_text(blended(a, b, share));
    REQUIRE(text);
    CHECK(parse_profile(*text, "half"));
    const double x = random.between(0.0, 90.0);
    CHECK(blended(a, b, share).walls.kept.at(x) == Approx(a.walls.kept.at(x)));  // Equal in both.
  }
}

TEST_CASE("Differences name every value that differs, and values have texts") {
  Random random(9);
  const Profile a = random_profile(random), b = random_profile(random);
  Profile rebuilt = a;
  for (const ProfileDifference& d : differences(a, b)) {
    CHECK(value_text(a, d.path) == d.from);
    CHECK(d.from != d.to);
  }
  rebuilt.ground.speed = a.ground.speed + 1.0;
  REQUIRE(differences(a, rebuilt).size() == 1);
  CHECK(differences(a, rebuilt)[0].path == "ground.speed");
  CHECK(value_text(a, "ground.sped").empty());
  CHECK(profile_paths().size() == profile_fields().size() + profile_curves().size() + profile_choices().size());
}

TEST_CASE("Constants hold every value and figure, and drawn curves follow their closed forms") {
  Random random(11);
  const Profile p = random_profile(random);
  const auto json = nlohmann::json::parse(constants_json(p));
  const std::string header = constants_header(p);
  CHECK(json["values"].size() == profile_fields().size());
  CHECK(json["values"]["jump_height_m"].get<double>() == p.jump.height);
  CHECK(json["values"]["ground_steepest_walkable_deg"].get<double>() ==
        Approx(degrees(p.ground.steepest_walkable)));
  CHECK(json["figures"]["jump_take_off_speed_m_per_s"]["value"].get<double>() ==
        Approx(take_off_speed(p, p.jump.height)));
  for (const auto& [name, value] : json["values"].items())
    CHECK_THAT(header, Catch::Contains("double " + name + " = " + value.dump() + ";"));
  for (const std::string_view name : curve_names()) {
    const CurveDrawing curve = curve_drawing(p, name);
    INFO(name);
    REQUIRE(curve.points.size() > 50);
    CHECK(lines_of(curve_csv(curve)).size() == curve.points.size() + 1);
    const std::string svg = curve_svg(curve);
    CHECK_THAT(svg, Catch::StartsWith("<svg") && Catch::EndsWith("</svg>\n") && Catch::Contains(curve.title));
    CHECK(svg.find("nan") == std::string::npos);
  }
  const CurveDrawing arc = curve_drawing(p, "arc");
  CHECK(arc.points.back().y == Approx(0.0).margin(1e-9));
  CHECK(arc.points.back().x == Approx(jump_arc(p).airtime * walking_speed(p)));
}

namespace {

// A document that sets one value, as a person would write it.
std::string document_with(std::string_view section, std::string_view key, const nlohmann::json& value) {
  nlohmann::json document = {{"lagniappe", "profile"}, {"version", 1}};
  nlohmann::json* at = &document;
  std::stringstream path{std::string(section)};
  for (std::string part; std::getline(path, part, '/');) at = &(*at)[part];
  (*at)[std::string(key)] = value;
  return document.dump();
}

}  // namespace

TEST_CASE("A value that is set is what a file with it comes to, and is refused with a file's words") {
  const auto number = [](double x) { return nlohmann::json(x).dump(); };
  std::size_t refused = 0;
  for (const ProfileField& f : profile_fields()) {
    const std::string path = path_of(f.section, f.key);
    INFO(path);
    for (const double x : {f.sane_low, f.sane_high, f.low, f.high + 1.0, f.low - 1.0, 0.5}) {
      const auto set = with_value(Profile{}, path + "=" + number(x));
      const auto read = parse_profile(document_with(f.section, f.key, x), "");
      // What follows another value in a file (the eyes a lower crown) is not followed where that value stands.
      const bool follows = read && read->capsule.eye_height != Profile{}.capsule.eye_height;
      if (set && read && !follows) CHECK(f.get(*set) == f.get(*read));
      if (!read) {
        REQUIRE_FALSE(set);
        CHECK(set.error().what == read.error().what);
        ++refused;
      }
    }
  }
  CHECK(refused > profile_fields().size());
}

TEST_CASE("A value that is set by a name of before is set") {
  CHECK(with_value(Profile{}, "jump.hang_speed=3")->jump.apex_speed == 3.0);
  CHECK(with_value(Profile{}, "jump.hang_factor=0.25")->jump.apex_factor == 0.25);
  CHECK(with_value(Profile{}, "jump.hang_sped=3").error().what.find("nearest known key") != std::string::npos);
}

TEST_CASE("What is checked is refused where a file of it would be, and is else the same to the bit") {
  Random random(7);
  for (int i = 0; i < 50; ++i) {
    const Profile profile = random_profile(random);
    const auto fits = checked(profile);
    REQUIRE(fits);
    CHECK(identity_of(*fits) == identity_of(profile));
    CHECK(differences(*fits, profile).empty());
  }
  for (const ProfileField& f : profile_fields()) {
    INFO(path_of(f.section, f.key));
    for (const double bad : {f.high + 1.0, f.low - 1.0, std::nan(""), HUGE_VAL}) {
      Profile profile;
      f.set_typed(profile, bad);
      CHECK_FALSE(checked(profile));
    }
  }
  Profile folded;
  folded.capsule.height = 1.9 * folded.capsule.radius;
  CHECK(checked(folded).error().what.find("it is no capsule") != std::string::npos);
  // The table that is known is taken as it is; another is compiled.
  Profile with_table;
  with_table.states = *StateChart::make(built_in_states());
  CHECK(checked(with_table, with_table.states.get())->states == with_table.states);
  CHECK(checked(with_table)->states != with_table.states);
  CHECK(checked(with_table)->states->table() == with_table.states->table());
}
