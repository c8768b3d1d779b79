// SPDX-License-Identifier: MIT
// Elements of a list in a text are put in, taken out and moved; nlohmann's reader says what the text comes to.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "io/json_patch.h"
#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

using Json = nlohmann::ordered_json;

// Each list in another hand: a line each, in one line, close together, empty, and with brackets in strings.
const std::string kWritten = R"({
  "pieces": [
    {"id": "floor",  "at": [0, -1, 0]},
    {"id": "a \"[,]\" in words", "at": [0,0,0],
     "motion": {"keys": [{"at":0},{"at":0.5}]}},

    {"id": "last"}
  ],
  "marks": [ "one", "two" ],
  "none": [ ],
  "tight": [1,2,3]
}
)";

std::size_t lines(const std::string& text) {
  return static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n'));
}

}  // namespace

TEST_CASE("An element that is put in stands as its neighbours do, and all else keeps its bytes") {
  const std::string middle = with_json_element(kWritten, "/pieces", 1, R"({"id": "new"})");
  CHECK(middle.find("[0, -1, 0]},\n    {\"id\": \"new\"},\n    {\"id\": \"a \\\"[,]\\\" in words\"") !=
        std::string::npos);
  CHECK(middle.size() == kWritten.size() + std::string("{\"id\": \"new\"},\n    ").size());
  const std::string first = with_json_element(kWritten, "/pieces", 0, "7");
  CHECK(first.find("\"pieces\": [\n    7,\n    {\"id\": \"floor\"") != std::string::npos);
  const std::string last = with_json_element(kWritten, "/marks", 2, "\"three\"");
  CHECK(last.find(R"([ "one", "two", "three" ])") != std::string::npos);
  CHECK(with_json_element(kWritten, "/none", 0, "{}").find("\"none\": [{}]") != std::string::npos);
  CHECK(
      with_json_element(kWritten, "/pieces/1/motion/keys", 2, R"({"at":1})").find(R"({"at":0.5}, {"at":1}])") !=
      std::string::npos);
}

TEST_CASE("An element that is taken out takes its comma along and nothing else") {
  CHECK(without_json_element(kWritten, "/marks", 0).find(R"([ "two" ])") != std::string::npos);
  CHECK(without_json_element(kWritten, "/marks", 1).find(R"([ "one" ])") != std::string::npos);
  CHECK(without_json_element(kWritten, "/tight", 1).find("[1,3]") != std::string::npos);
  const std::string one = without_json_element(kWritten, "/marks", 0);
  CHECK(without_json_element(one, "/marks", 0).find("\"marks\": []") != std::string::npos);
  // Put in and taken out again, the text is what it was, wherever there were two or more.
  for (std::size_t at = 0; at <= 3; ++at) {
    const std::string with = with_json_element(kWritten, "/pieces", at, R"({"id": "x"})");
    CHECK(without_json_element(with, "/pieces", at) == kWritten);
  }
}

TEST_CASE("Any edits of a list come to what they come to in a list, and texts of other lists stay") {
  for (std::uint64_t seed = 1; seed <= 200; ++seed) {
    Random random(seed);
    std::string text = kWritten;
    Json expected = Json::parse(text);
    for (int i = 0; i < 12; ++i) {
      const std::string list = random.below(2) == 0 ? "/pieces" : "/tight";
      Json& elements = expected[Json::json_pointer(list)];
      const int size = static_cast<int>(elements.size());
      const int kind = size < 2 ? 0 : random.below(3);
      const auto at = static_cast<std::size_t>(random.below(kind == 0 ? size + 1 : size));
      if (kind == 0) {
        const Json value = {{"n", i}, {"text", "],{\""}};
        text = with_json_element(text, list, at, value.dump());
        elements.insert(elements.begin() + static_cast<long>(at), value);
      } else if (kind == 1) {
        text = without_json_element(text, list, at);
        elements.erase(at);
      } else {
        const auto to = static_cast<std::size_t>(random.below(size));
        text = with_json_element_moved(text, list, at, to);
        const Json moved = elements[at];
        elements.erase(at);
        elements.insert(elements.begin() + static_cast<long>(to), moved);
      }
      INFO(text);
      REQUIRE(Json::parse(text) == expected);
      REQUIRE(text.find("\"marks\": [ \"one\", \"two\" ],\n  \"none\": [ ],") != std::string::npos);
    }
    CHECK(lines(text) >= 4);
  }
}
