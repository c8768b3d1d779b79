// SPDX-License-Identifier: MIT
// Every kind of bad file: one sentence, with file and place.
#include <catch2/catch.hpp>

#include "support/scenes.h"

using namespace lagniappe;
using Catch::Matchers::Contains;

namespace {

const std::string kHead = R"({"lagniappe": "course", "version": 1, "name": "Yard")";
const std::string kMarks = R"(, "marks": [{"id": "start", "at": [0, 0, 0]}])";
const std::string kBlock = R"({"id": "a", "kind": "block", "at": [0, 0, 0], "size": [1, 1, 1]})";

std::string course(const std::string& piece) { return kHead + kMarks + ", \"pieces\": [" + piece + "]}"; }

struct Bad {
  const char* name;
  std::string text;
  std::string says;
};

std::vector<Bad> bad_courses() {
  std::string binary =
      "\x7f"
      "ELF";
  binary += std::string(100, '\0');
  return {
      {"empty", "", "the file is empty"},
      {"blank", " \n\n", "the file is empty"},
      {"cut off", course(kBlock).substr(0, 120), "cut off"},
      {"binary", binary, "not valid JSON"},
      {"bad UTF-8", "{\"\xff\xfe\": 1}", "not valid JSON"},
      {"text behind the end", course(kBlock) + "x", "not valid JSON"},
      {"a list", "[1, 2]", "must be an object"},
      {"no heading", "{\"pieces\": []}", "no Lagniappe document"},
      {"wrong kind", R"({"lagniappe": "profile", "version": 1})", "a \"course\" is wanted"},
      {"wrong version", R"({"lagniappe": "course", "version": 7})", "version"},
      {"unknown key", kHead + kMarks + R"(, "peices": []})", "nearest known key is \"pieces\""},
      {"no pieces", kHead + kMarks + R"(, "pieces": []})", "at least one piece"},
      {"no start", kHead + R"(, "marks": [], "pieces": [)" + kBlock + "]}", "mark \"start\" is missing"},
      {"wrong type", course(R"({"id": "a", "kind": "block", "at": [0, 0, 0], "size": "big"})"),
       "a list is wanted"},
      {"two numbers", course(R"({"id": "a", "kind": "block", "at": [0, 0], "size": [1, 1, 1]})"),
       "a list of 3 numbers"},
      {"NaN", course(R"({"id": "a", "kind": "block", "at": [NaN, 0, 0], "size": [1, 1, 1]})"),
       "not valid JSON"},
      {"1e308", course(R"({"id": "a", "kind": "block", "at": [1e308, 0, 0], "size": [1, 1, 1]})"),
       "out of range"},
      {"1e999", course(R"({"id": "a", "kind": "block", "at": [1e999, 0, 0], "size": [1, 1, 1]})"), "too large"},
      {"negative size", course(R"({"id": "a", "kind": "block", "at": [0, 0, 0], "size": [1, -1, 1]})"),
       "out of range"},
      {"unknown piece kind", course(R"({"id": "a", "kind": "blok", "at": [0, 0, 0], "size": [1, 1, 1]})"),
       "nearest known word is \"block\""},
      {"half a tread",
       course(
           R"({"id": "a", "kind": "stairs", "at": [0, 0, 0], "width": 1, "rise": 0.2, "run": 0.3, "count": 2.5})"),
       "a whole number"},
      {"ten million treads",
       course(
           R"({"id": "a", "kind": "stairs", "at": [0, 0, 0], "width": 1, "rise": 0.2, "run": 0.3, "count": 10000000})"),
       "out of range"},
      {"vertex out of range",
       course(
           R"({"id": "a", "kind": "triangles", "at": [0,0,0], "vertices": [[0,0,0],[1,0,0],[0,0,1]], "triangles": [[0,1,3]]})"),
       "(/pieces/0/triangles/0/2)"},
      {"missing model", course(R"({"id": "a", "kind": "model", "at": [0,0,0], "file": "nowhere.glb"})"),
       "nowhere.glb"},
      {"inside out limits",
       kHead + kMarks + R"(, "limits": {"low": [1,1,1], "high": [0,0,0]}, "pieces": [)" + kBlock + "]}",
       "\"high\" must be above"},
      {"start outside limits",
       kHead + kMarks + R"(, "limits": {"low": [1,1,1], "high": [2,2,2]}, "pieces": [)" + kBlock + "]}",
       "outside these limits"},
      {"200,000 brackets", std::string(200000, '['), "nested deeper than 64"},
      {"200,000 objects",
       [] {
         std::string s;
         for (int i = 0; i < 200000; ++i) s += "{\"a\":";
         return s;
       }(),
       "nested deeper than 64"},
  };
}

}  // namespace

TEST_CASE("Every kind of bad course gives one sentence with file and place") {
  for (const Bad& bad : bad_courses()) {
    INFO(bad.name);
    const auto result = parse_course(bad.text, "yard.course.json", "/tmp");
    REQUIRE_FALSE(result.has_value());
    const std::string sentence = result.error().sentence();
    CHECK_THAT(sentence, Contains(bad.says));
    CHECK_THAT(sentence, Catch::Matchers::StartsWith("yard.course.json: line "));
    CHECK(sentence.find('\n') == std::string::npos);
    CHECK(sentence.size() < 400);
  }
}

TEST_CASE("Files that are no files are refused") {
  CHECK_THAT(read_course("/nowhere/x.course.json").error().sentence(),
             Contains("/nowhere/x.course.json: the file: it cannot be opened"));
  CHECK_THAT(read_course("/tmp").error().sentence(), Contains("not a plain file"));
  CHECK_THAT(read_course("/dev/zero").error().sentence(), Contains("not a plain file"));
  CHECK_THAT(check_file(LAGNIAPPE_SOURCE_DIR "/README.md").error().sentence(), Contains("not valid JSON"));
}

TEST_CASE("Cutting a good course off anywhere, or changing any byte, never crashes the reader") {
  const std::string good = course(kBlock);
  REQUIRE(parse_course(good, "c", ""));
  for (std::size_t n = 0; n < good.size(); ++n) CHECK_FALSE(parse_course(good.substr(0, n), "c", ""));
  for (std::size_t n = 0; n < good.size(); ++n) {
    for (const char c : {'\0', '"', '[', '}', '9', '\xff'}) {
      std::string changed = good;
      changed[n] = c;
      const auto result = parse_course(changed, "c", "");
      if (!result) CHECK_FALSE(result.error().what.empty());
    }
  }
}
