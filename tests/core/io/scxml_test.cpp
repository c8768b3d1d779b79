// SPDX-License-Identifier: MIT
// Tables as SCXML and back. Python's own XML parser looks at what is written in schemas_test.py.
#include "lagniappe/scxml.h"

#include <catch2/catch.hpp>

#include "lagniappe/files.h"
#include "support/driven.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

std::vector<std::string> shipped() {
  const std::string folder = LAGNIAPPE_SOURCE_DIR "/profiles/";
  std::vector<std::string> files;
  for (const char* name :
       {"warden", "heron", "ways/wall-run", "ways/glide", "ways/dash", "ways/breath", "ways/tired"})
    files.push_back(folder + name + ".profile.json");
  return files;
}

std::string head(const std::string& inner, const std::string& attributes = "") {
  return "<scxml xmlns=\"http://www.w3.org/2005/07/scxml\" version=\"1.0\" " + attributes + ">\n" + inner +
         "</scxml>";
}

std::string fault(const std::string& text) {
  const auto read = parse_scxml(text, "x.scxml");
  return read ? "taken" : read.error().sentence();
}

}  // namespace

TEST_CASE("Every shipped table goes through SCXML and back, and drives the same to the bit") {
  const TriangleWorld world =
      Scene().floor().block({0, 0, -4}, {3, 0.3, 2}).block({2, 0, 0}, {1, 5, 40}).world();
  for (const std::string& file : shipped()) {
    INFO(file);
    const auto profile = read_profile(file);
    REQUIRE(profile);
    const auto read = parse_scxml(scxml_text(chart_of(*profile).table(), profile->name), "x.scxml");
    if (!read) FAIL(read.error().sentence());
    CHECK(read->remarks.empty());
    CHECK(read->name == profile->name);
    CHECK(read->table == chart_of(*profile).table());
    Profile again = *profile;
    again.states = StateChart::make(read->table).value();
    Random random(5);
    CharacterState a = start_state(*profile, Home{}, world), b = start_state(again, Home{}, world);
    for (int i = 0; i < 1500; ++i) {
      InputFrame input = push(random.between(-1, 1), random.between(-1, 1));
      input.held.bits = static_cast<std::uint32_t>(random.below(1 << 6));
      input.pressed.bits = random.below(10) == 0 ? static_cast<std::uint32_t>(random.below(1 << 6)) : 0;
      a = step(a, input, *profile, world, 1.0 / 60);
      b = step(b, input, again, world, 1.0 / 60);
      REQUIRE(hash_of(a) == hash_of(b));
    }
  }
}

TEST_CASE("Names, texts and orders that XML makes hard come back as they were") {
  StateTable table;
  StateSpec a, b;
  a.name = "Wade & \"wait\" <1>";
  a.group = "Über Wasser";
  a.pose = "stand";
  a.on_entry = "local x = 1 < 2 and \"]]>\" or 'a&b'\nmemory.mud = memory.mud + 1\r\nmemory.silt = 1";
  a.overrides = {{"walls.kept", Override::Kind::Value, 0.0, {{{{0.0, 1.0}, {90.0, 0.25}}}, 2}, {}},
                 {"ground.facing", Override::Kind::Value, 2.0, {}, {}}};
  a.memory = {"mud"};
  b = a;
  b.name = "Wade_____wait_____1_";
  b.group = "";
  b.like = a.name;
  table.states = {a, b};
  table.memory = {"mud", "silt"};
  table.transitions = {{b.name, a.name, "intent > 0.1 and\n  not jump.held", 3, 0.25, "jump()"},
                       {"Über Wasser", b.name, "memory.mud > 2", -1, 0.0, ""},
                       {"any", a.name, "speed < 0.1", 3, 0.0, ""},
                       {a.name, b.name, "intent > 0.3", 3, 0.0, ""}};
  const auto chart = StateChart::make(table);
  if (!chart) FAIL(chart.error().sentence());
  const auto read = parse_scxml(scxml_text((*chart)->table(), ""), "x.scxml");
  if (!read) FAIL(read.error().sentence());
  CHECK(read->table == (*chart)->table());
}

TEST_CASE("A chart from elsewhere becomes a table to fill in, in its own order") {
  const auto read =
      parse_scxml(head("  <datamodel><data id=\"mud\" expr=\"3\"/></datamodel>\n"
                       "  <state id=\"ground\" initial=\"walk\">\n"
                       "    <onentry><log expr=\"1\"/></onentry>\n"
                       "    <transition event=\"jump\" target=\"air\"/>\n"
                       "    <state id=\"idle\"><transition cond=\"intent > 0.1\" target=\"walk\"/></state>\n"
                       "    <state id=\"walk\"><onexit><assign location=\"mud\" expr=\"0\"/></onexit>\n"
                       "      <transition cond=\"intent &lt;= 0.1\" target=\"idle\"/>\n"
                       "      <transition cond=\"In('air') &amp;&amp; x\" target=\"idle\"/></state>\n"
                       "  </state>\n"
                       "  <state id=\"air\"><transition event=\"land.now\" target=\"ground\"/></state>\n",
                       "initial=\"ground\""),
                  "foreign.scxml");
  if (!read) FAIL(read.error().sentence());
  const StateTable& t = read->table;
  REQUIRE(t.states.size() == 3);
  CHECK(t.states[0].name == "idle");
  CHECK(t.states[0].group == "ground");
  CHECK(t.states[1].on_exit == "memory.mud = 0");
  CHECK(t.fallback == "walk");  // Where the group begins.
  REQUIRE(t.transitions.size() == 5);
  CHECK(t.transitions[0].guard == "jump.pressed");
  CHECK(t.transitions[0].from == "ground");
  CHECK(t.transitions[3].guard == "false --[[ In('air') && x ]]");
  CHECK(t.transitions[4].guard == "false --[[ land.now ]]");
  CHECK(t.transitions[4].to == "walk");
  REQUIRE(read->remarks.size() == 5);
  CHECK_THAT(read->remarks[0], Catch::Contains("line 2") && Catch::Contains("begin at 0"));
  CHECK_THAT(read->remarks[1], Catch::Contains("line 5") && Catch::Contains("became jump.pressed"));
}

TEST_CASE("What no table can hold is refused with its line") {
  CHECK_THAT(fault("<scxml>\n<state id='a'></scxml>"), Catch::Contains("line 2") && Catch::Contains("no XML"));
  CHECK_THAT(fault("{}"), Catch::Contains("no XML"));
  CHECK_THAT(fault("<svg/>"), Catch::Contains("<scxml>, not <svg>"));
  CHECK_THAT(fault(head("")), Catch::Contains("at least one state"));
  CHECK_THAT(fault(head("<state id='a'/>\n<parallel id='b'/>")),
             Catch::Contains("line 3") && Catch::Contains("parallel"));
  CHECK_THAT(fault(head("<state id='a'><history id='h'/></state>")), Catch::Contains("history"));
  CHECK_THAT(fault(head("<state id='a'/><state id='a'/>")), Catch::Contains("two states “a”"));
  CHECK_THAT(fault(head("<state id='a'><transition target='b'/></state>")), Catch::Contains("no state “b”"));
  CHECK_THAT(fault(head("<state id='a'><transition target='a b'/></state><state id='b'/>")),
             Catch::Contains("not to several"));
  CHECK_THAT(fault(head("<state id='x'/><state id='a'><state id='b'><state id='c'/></state></state>")),
             Catch::Contains("too deep"));
  CHECK_THAT(fault(head("<state id='a' lag:stance='upside down'/>", "xmlns:lag='urn:lagniappe:states'")),
             Catch::Contains("is no stance"));
  CHECK_THAT(fault(head("<state id='a'><lag:set path='ground.speed' value='fast'/></state>",
                        "xmlns:lag='urn:lagniappe:states'")),
             Catch::Contains("no value"));
  CHECK(fault(head("<state id='a'/>")) == "taken");
}
