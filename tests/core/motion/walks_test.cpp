// SPDX-License-Identifier: MIT
// The walk suite: scripts over the demo course, and what must hold for each, at four tick rates. In files under
// tests/core/walks:
//   name, from (a mark; its facing, and its place unless `at` is given), profile, seconds, steps (as in inputs
//   documents), holds:
//     never, enters: states;  pushed_by: a moving piece;  crushed: at some time, and not any more at the end
//     ends_on: piece underfoot at the end;  passes_on: pieces stood on
//     ends_near with within: place of the foot at the end;  reaches_height, stays_below: of the foot, in m
//     top_speed_below: m/s
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <set>

#include "support/scenes.h"
#include "support/velocity_sum.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Json = nlohmann::json;
const std::string kSource = LAGNIAPPE_SOURCE_DIR;

// What a walk came to.
struct Seen {
  std::set<std::string> states, pieces, pushed_by;
  bool crushed = false;
  double highest = -1e9, top_speed = 0.0;
  CharacterState end;
};

// The same walk with half the push, for twice as long.
Json at_half(Json w) {
  constexpr double kHalfPush = 0.56;  // Of a stick with a dead zone of 0.12.
  w["seconds"] = 2.0 * w["seconds"].get<double>();
  for (Json& s : w["steps"]) {
    s["at"] = 2.0 * s["at"].get<double>();
    if (!s.contains("move")) continue;
    for (Json& x : s["move"]) x = kHalfPush * x.get<double>();
  }
  return w;
}

Seen walk(const Json& w, const Course& course, const TriangleWorld& world, int hz) {
  const auto profile = read_profile(kSource + "/profiles/" + w["profile"].get<std::string>() + ".profile.json");
  REQUIRE(profile);
  const Json document = {{"lagniappe", "inputs"}, {"version", 1}, {"steps", w["steps"]}};
  const auto script = parse_inputs(document.dump(), "walk");
  REQUIRE(script);
  const auto mark = std::find_if(course.marks.begin(), course.marks.end(),
                                 [&](const Mark& m) { return m.id == w["from"].get<std::string>(); });
  REQUIRE(mark != course.marks.end());
  InputPlayer player(*script, hz);
  Seen seen;
  const Vec3 foot = w.contains("at") ? Vec3(w["at"][0], w["at"][1], w["at"][2]) : mark->at_C;
  seen.end = start_state(*profile, {foot, Quat(1, 0, 0, 0), mark->facing}, world);
  for (long tick = std::lround(w["seconds"].get<double>() * hz); tick > 0; --tick) {
    Ledger ledger;
    const CharacterState s = step(seen.end, player.next(), *profile, world, 1.0 / hz, &ledger);
    must_sum_to_the_change(ledger, seen.end, s);
    seen.states.emplace(built_in_chart()->name_of(s.state));
    if (s.ground.verdict != Verdict::None) seen.pieces.emplace(world.piece_name(s.ground.piece));
    for (const LedgerEntry& e : ledger.entries) {
      if (const auto* push = std::get_if<entry::Push>(&e))
        seen.pushed_by.emplace(world.piece_name(push->piece));
    }
    seen.crushed = seen.crushed || s.crushed;
    seen.highest = std::max(seen.highest, s.foot_C.y);
    seen.top_speed = std::max(seen.top_speed, length(s.velocity_C));
    seen.end = s;
  }
  CHECK(seen.end.times_put_home == 0);
  return seen;
}

// A walk that leads somewhere says where: what never happens, one who stands still keeps too.
bool says_what_happens(const Json& holds) {
  return std::any_of(holds.items().begin(), holds.items().end(), [](const auto& item) {
    return item.key() != "never" && item.key() != "stays_below" && item.key() != "top_speed_below";
  });
}

void check(const Json& holds, const Seen& seen, const TriangleWorld& world) {
  int checked = 0;
  for (const auto& [what, wanted] : holds.items()) {
    INFO(what << " " << wanted.dump());
    ++checked;
    if (what == "never") {
      for (const std::string state : wanted) CHECK(seen.states.count(state) == 0);
    } else if (what == "enters") {
      for (const std::string state : wanted) CHECK(seen.states.count(state) == 1);
    } else if (what == "pushed_by") {
      CHECK(seen.pushed_by.count(wanted.get<std::string>()) == 1);
    } else if (what == "crushed") {
      CHECK(seen.crushed == wanted.get<bool>());
      CHECK_FALSE(seen.end.crushed);
    } else if (what == "ends_on") {
      CHECK(world.piece_name(seen.end.ground.piece) == wanted.get<std::string>());
    } else if (what == "passes_on") {
      for (const std::string piece : wanted) {
        INFO(piece);
        CHECK(seen.pieces.count(piece) == 1);
      }
    } else if (what == "ends_near") {
      const Vec3 gap = seen.end.foot_C - Vec3(wanted[0], wanted[1], wanted[2]);
      INFO("ends at " << seen.end.foot_C.x << " " << seen.end.foot_C.y << " " << seen.end.foot_C.z);
      CHECK(length(gap) < holds["within"].get<double>());
    } else if (what == "within") {
      CHECK(holds.contains("ends_near"));
    } else if (what == "reaches_height") {
      CHECK(seen.highest >= wanted.get<double>());
    } else if (what == "stays_below") {
      CHECK(seen.highest < wanted.get<double>());
    } else if (what == "top_speed_below") {
      CHECK(seen.top_speed < wanted.get<double>());
    } else {
      FAIL_CHECK("this is no condition");
    }
  }
  CHECK(checked > 0);
}

// What holds with half the stick, too: where one never leaves the ground or skids, and how fast one gets at
// most.
void check_half(const Json& holds, const Seen& seen) {
  for (const std::string state : holds.value("never", Json::array())) {
    INFO(state);
    CHECK(seen.states.count(state) == 0);
  }
  if (holds.contains("stays_below")) CHECK(seen.highest < holds["stays_below"].get<double>());
  if (holds.contains("top_speed_below")) CHECK(seen.top_speed < holds["top_speed_below"].get<double>());
}

}  // namespace

TEST_CASE("What the walk suite says of each walk over the demo course holds at 30, 60, 144 and 240 ticks/s") {
  const auto course = read_course(kSource + "/courses/tidewheel.course.json");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  int walks = 0;
  for (const auto& file : std::filesystem::directory_iterator(kSource + "/tests/core/walks")) {
    std::ifstream text(file.path());
    const Json document = Json::parse(text);
    const std::string name = file.path().filename().string();
    const bool timed = name.starts_with("moving") || name.starts_with("jumps");
    for (const Json& w : document["walks"]) {
      for (const int hz : {30, 60, 144, 240}) {
        INFO(file.path().filename().string()
             << ": " << w["name"].get<std::string>() << ", " << hz << " ticks/s");
        check(w["holds"], walk(w, *course, world, hz), world);
        INFO("half the stick");
        // Jumps fall short, and what moves is elsewhere then.
        if (!timed) check_half(w["holds"], walk(at_half(w), *course, world, hz));
      }
      INFO(w["name"].get<std::string>());
      CHECK(says_what_happens(w["holds"]));
      ++walks;
    }
  }
  CHECK(walks >= 30);
}
