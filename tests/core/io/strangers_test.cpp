// SPDX-License-Identifier: MIT
// Files of strangers: small ones that ask for much, names that lead elsewhere, text that is none.
#include <sys/resource.h>

#include <catch2/catch.hpp>
#include <chrono>
#include <nlohmann/json.hpp>

#include "io/cbor.h"
#include "io/json_document.h"
#include "io/outside_names.h"
#include "lagniappe/scxml.h"
#include "support/scenes.h"
#include "support/scratch.h"

using namespace lagniappe;
using namespace lagniappe::test;
using Catch::Matchers::Contains;
using nlohmann::json;

namespace {

double peak_megabytes() {
  rusage usage{};
  getrusage(RUSAGE_SELF, &usage);
  return static_cast<double>(usage.ru_maxrss) / 1024.0;
}

// Refused in a sentence with the words, without taking much memory.
template <typename T>
void refused(const Result<T>& result, const std::string& words) {
  REQUIRE_FALSE(result);
  CHECK_THAT(result.error().sentence(), Contains(words));
  CHECK(result.error().sentence().find('\n') == std::string::npos);
  CHECK_FALSE(find_no_utf8(result.error().sentence()));
}

json sparse_model(std::uint64_t count, int visits) {
  json document = {
      {"asset", {{"version", "2.0"}}},
      {"scenes", {{{"nodes", json::array()}}}},
      {"nodes", json::array()},
      {"meshes", {{{"primitives", {{{"attributes", {{"POSITION", 0}}}}}}}}},
      {"accessors",
       {{{"componentType", 5126},
         {"count", count},
         {"type", "VEC3"},
         {"sparse",
          {{"count", 1},
           {"indices", {{"bufferView", 0}, {"componentType", 5123}}},
           {"values", {{"bufferView", 1}}}}}}}},
      {"bufferViews",
       {{{"buffer", 0}, {"byteLength", 2}}, {{"buffer", 0}, {"byteOffset", 4}, {"byteLength", 12}}}},
      {"buffers",
       {{{"byteLength", 16}, {"uri", "data:application/octet-stream;base64,AAAAAAAAAAAAAAAAAAAAAA=="}}}}};
  for (int i = 0; i < visits; ++i) {
    document["scenes"][0]["nodes"].push_back(i);
    document["nodes"].push_back({{"mesh", 0}});
  }
  return document;
}

// A flat square as a model with one external buffer.
json square_beside(const std::string& uri) {
  return {{"asset", {{"version", "2.0"}}},
          {"scenes", {{{"nodes", {0}}}}},
          {"nodes", {{{"name", "Square"}, {"mesh", 0}}}},
          {"meshes", {{{"primitives", {{{"attributes", {{"POSITION", 0}}}}}}}}},
          {"accessors", {{{"bufferView", 0}, {"componentType", 5126}, {"count", 3}, {"type", "VEC3"}}}},
          {"bufferViews", {{{"buffer", 0}, {"byteLength", 36}}}},
          {"buffers", {{{"byteLength", 36}, {"uri", uri}}}}};
}

std::string corners() {
  const float xyz[] = {0, 0, 0, 0, 0, 9, 9, 0, 0};
  return {reinterpret_cast<const char*>(xyz), sizeof xyz};
}

std::string course_with(const std::string& piece) {
  return R"({"lagniappe":"course","version":1,"name":"Yard","pieces":[)" + piece +
         R"(],"marks":[{"id":"start","at":[0,0,0]}]})";
}

}  // namespace

TEST_CASE("A take of five megabytes of nested heads is refused, and so is one within its parts") {
  for (const char head : {'\x7f', '\x5f', '\x9f', '\x81', '\xbf', '\xc1'}) {
    INFO(int(head));
    refused(parse_take("\xa1" + std::string(5'000'000, head), "x.take"), "x.take");
    const std::string nest(100'000, head);
    CHECK_FALSE(is_plain_cbor(nest, 24));
    CHECK_FALSE(is_plain_cbor("\x81" + nest, 24));
  }
  const Scratch scratch;
  refused(read_take_about(scratch.write("x.take", "\xa1" + std::string(5'000'000, '\x7f'))), "this is no take");
  refused(read_take_about(scratch.write("empty.take", "")), "this is no take");
}

TEST_CASE("CBOR that is plain is what the package writes, and its least mutilation is not") {
  Random random(5);
  for (int i = 0; i < 200; ++i) {
    json value = {{"a", random.below(100000)}, {"b", {1.5, "text", nullptr, true, -random.below(70000)}}};
    value["c"] = json::binary(std::vector<std::uint8_t>(std::size_t(random.below(300)), 7));
    const auto raw = json::to_cbor(value);
    const std::string bytes(raw.begin(), raw.end());
    CHECK(is_plain_cbor(bytes, 24));
    CHECK_FALSE(is_plain_cbor(bytes + '\0', 24));
    CHECK_FALSE(is_plain_cbor(bytes.substr(0, bytes.size() - 1), 24));
    CHECK_FALSE(is_plain_cbor(bytes, 1));
  }
  CHECK_FALSE(is_plain_cbor("", 24));
  CHECK_FALSE(
      is_plain_cbor(std::string("\x9a\xff\xff\xff\xff", 5), 24));  // Four milliards of elements, says it.
}

TEST_CASE("A kilobyte of a take cannot ask for gigabytes of inputs") {
  const double before = peak_megabytes();
  json document = json::parse(take_json([] {
    Take take;
    take.course = std::make_shared<const Course>(
        *parse_course(course_with(R"({"id":"a","kind":"block","at":[0,-1,0],"size":[9,1,9]})"), "c", ""));
    take.start = start_state(take.profile, Home{}, build_world(*take.course));
    take.inputs.resize(3);
    return take;
  }()));
  document["parts"][0]["inputs"][0][0] = 41'472'000;
  refused(parse_take_json(document.dump(), "x.json"), "more than 2000000 ticks");
  document["parts"][0]["inputs"][0][0] = 2;
  document["about"]["ticks"] = -1;
  refused(parse_take_json(document.dump(), "x.json"), "-1 is out of range");
  CHECK(peak_megabytes() - before < 300.0);
}

TEST_CASE("A model of a few hundred bytes cannot ask for gigabytes of zeros, at once or mesh by mesh") {
  const Scratch scratch;
  const double before = peak_megabytes();
  refused(read_model(scratch.write("once.gltf", sparse_model(50'000'000, 1).dump())),
          "far more than its file holds");
  refused(read_model(scratch.write("often.gltf", sparse_model(300'000, 2'000).dump())),
          "far more than its file holds");
  CHECK(peak_megabytes() - before < 700.0);
  CHECK(read_model(scratch.write("few.gltf", sparse_model(3, 1).dump())).has_value() == false);  // No area.
}

TEST_CASE("A kilobyte of a course cannot ask for a hundred million triangles of stairs") {
  std::string flights;
  for (int i = 0; i < 19; ++i)
    flights +=
        (i > 0 ? "," : "") + std::string(R"({"id":")") + std::to_string(i) +
        R"(","kind":"spiral-stairs","at":[0,0,0],"inner":1,"outer":2,"rise":0.1,"angle":20,"count":10000})";
  refused(parse_course(course_with(flights), "c.json", ""), "far more triangles");
}

TEST_CASE("A forest of equal names is named in a moment") {
  const Scratch scratch;
  json forest = square_beside("trees.bin");
  forest["nodes"] = json::array();
  forest["scenes"][0]["nodes"] = json::array();
  for (int i = 0; i < 20'000; ++i) {
    forest["nodes"].push_back({{"mesh", 0}, {"translation", {i * 10, 0, 0}}});
    forest["scenes"][0]["nodes"].push_back(i);
  }
  scratch.write("trees.bin", corners());
  const auto begin = std::chrono::steady_clock::now();
  const auto course = read_course(scratch.write("forest.gltf", forest.dump()));
  const std::chrono::duration<double> took = std::chrono::steady_clock::now() - begin;
  REQUIRE(course);
  CHECK(course->pieces.size() == 20'000);
  CHECK(course->pieces.back().id == "Part 20000");
  CHECK(took.count() < 20.0);  // It was hours' kind of work; now a second or two, also under sanitizers.
}

TEST_CASE(
    "Text that is no UTF-8 is refused with its place, in charts and models, before it can reach a document") {
  const Scratch scratch;
  const std::string chart =
      "<scxml xmlns='http://www.w3.org/2005/07/scxml'>\n<state id='gr\xf6\xdf"
      "er'/></scxml>";
  refused(parse_scxml(chart, "c.scxml"), "line 2, column 14: this is no UTF-8");
  refused(parse_scxml("<?xml version='1.0' encoding='ISO-8859-1'?>" + chart, "c.scxml"), "this is no UTF-8");
  refused(read_model(scratch.write("caf.obj", "o caf\xe9\nv 0 0 0\nv 0 0 1\nv 1 0 0\nf 1 2 3\n")),
          "line 1, column 6: the names are no UTF-8");
  const auto file = scratch.write("caf\xe9.obj", "o caf\xc3\xa9\nv 0 0 0\nv 0 0 9\nv 9 0 0\nf 1 2 3\n");
  const auto course = read_course(file);  // The file's own name may be anything.
  REQUIRE(course);
  CHECK(course->name == "caf?");
  CHECK(course->pieces.front().id == "caf\xc3\xa9");
}

TEST_CASE("Where UTF-8 ends is told by the byte") {
  for (const char* fine :
       {"", "abc", "\xc3\xa9", "\xe2\x80\x9c", "\xf0\x9f\x98\x80", "\xef\xbf\xbf", "\xed\x9f\xbf"})
    CHECK_FALSE(find_no_utf8(fine));
  const std::pair<const char*, std::size_t> bad[] = {
      {"a\xff", 1},     {"ab\xc0\xaf", 2}, {"\xe0\x80\x80", 0}, {"\xed\xa0\x80", 0}, {"\xf4\x90\x80\x80", 0},
      {"x\xe2\x80", 1}, {"\x80", 0},       {"\xf0\x9f\x98", 0}};
  for (const auto& [text, at] : bad) {
    INFO(text);
    CHECK(find_no_utf8(text) == at);
  }
}

TEST_CASE("A model opens files below its own folder, by plain names, and no others") {
  const Scratch scratch;
  scratch.write("models/sub/tri.bin", corners());
  scratch.write("outside.bin", corners());
  const auto model = [&](const std::string& uri) {
    return read_model(scratch.write("models/m.gltf", square_beside(uri).dump()));
  };
  CHECK(model("sub/tri.bin"));
  CHECK(model("sub%2Ftri.bin"));
  for (const std::string& uri : {std::string("../outside.bin"), std::string("%2e%2e/outside.bin"),
                                 std::string("sub/../../outside.bin"), scratch.path("outside.bin")}) {
    INFO(uri);
    refused(model(uri), "only files beside or below this one are opened");
  }
  // Not where the program happens to be.
  const auto here = std::filesystem::current_path();
  std::filesystem::current_path(scratch.path(""));
  CHECK_FALSE(model("outside.bin"));
  std::filesystem::current_path(here);
}

TEST_CASE("A model's pictures are not opened: one that is not there, or a pipe, is no matter") {
  const Scratch scratch;
  scratch.write("tri.bin", corners());
  json document = square_beside("tri.bin");
  document["images"] = {{{"uri", "../gone.png"}}, {{"uri", "/dev/zero"}}};
  document["textures"] = {{{"source", 0}}};
  document["materials"] = {{{"pbrMetallicRoughness", {{"baseColorTexture", {{"index", 0}}}}}}};
  document["meshes"][0]["primitives"][0]["material"] = 0;
  CHECK(read_model(scratch.write("m.gltf", document.dump())));
}

TEST_CASE("A course opens models below its own folder, and one within a take none at all") {
  const Scratch scratch;
  scratch.write("outside.obj", "v 0 0 0\nv 0 0 9\nv 9 0 0\nf 1 2 3\n");
  scratch.write("courses/inside.obj", "v 0 0 0\nv 0 0 9\nv 9 0 0\nf 1 2 3\n");
  const auto course = [&](const std::string& file) {
    return read_course(scratch.write(
        "courses/c.course.json",
        course_with(json{{"id", "m"}, {"kind", "model"}, {"at", {0, 0, 0}}, {"file", file}}.dump())));
  };
  CHECK(course("inside.obj"));
  CHECK(course("./inside.obj"));
  refused(course("../outside.obj"), "only files beside or below");
  refused(course(scratch.path("outside.obj")), "only files beside or below");
  refused(course(std::string("inside.obj\0.txt", 15)), "no control characters");
  Take take;
  take.course = std::make_shared<const Course>(*course("inside.obj"));
  take.start = start_state(take.profile, Home{}, build_world(*take.course));
  json document = json::parse(take_json(take));
  document["head"]["course"]["pieces"][0] = {
      {"id", "m"}, {"kind", "model"}, {"at", {0, 0, 0}}, {"file", scratch.path("outside.obj")}};
  refused(parse_take_json(document.dump(), "x.json"), "it names no files");
}

TEST_CASE("Names are a line of text; those of models are made one") {
  CHECK(plain_name("a\nb\x7f"
                   "c\xff") == "a b c?");
  refused(parse_course(course_with(R"({"id":"a\nb","kind":"block","at":[0,-1,0],"size":[9,1,9]})"), "c", ""),
          "without control characters");
  refused(parse_profile(R"({"lagniappe":"profile","version":1,"name":"W\n#define x"})", "p"),
          "without control characters");
}

TEST_CASE("A refusal is one line, also where a key or the file's own name has a line break in it") {
  refused(parse_profile(R"({"lagniappe":"profile","version":1,"name":"W","spe\ned":{}})", "a\nb.json"),
          "a b.json: line 1");
}

TEST_CASE("A file with a byte order mark opens and is saved with it") {
  const std::string mark = "\xEF\xBB\xBF",
                    text = mark + R"({"lagniappe":"profile","version":1,"name":"Warden"})";
  auto profile = parse_profile(text, "p");
  REQUIRE(profile);
  profile->jump.height = 1.7;
  profile->name = "Other";
  const auto saved = profile_text(*profile, text, "p");
  REQUIRE(saved);
  CHECK(saved->starts_with(mark + "{"));
  CHECK(parse_profile(*saved, "p")->jump.height == 1.7);
  CHECK(parse_profile(*saved, "p")->name == "Other");
}

TEST_CASE("Time that was dropped after the last tick is in the file") {
  Take take;
  take.course = std::make_shared<const Course>(
      *parse_course(course_with(R"({"id":"a","kind":"block","at":[0,-1,0],"size":[9,1,9]})"), "c", ""));
  take.start = start_state(take.profile, Home{}, build_world(*take.course));
  take.inputs.resize(10);
  take.dropped = {{3, 0.25}, {10, 0.5}};
  const auto read = parse_take(take_bytes(take), "x");
  REQUIRE(read);
  REQUIRE(read->dropped.size() == 2);
  CHECK(read->dropped.back().after_tick == 10);
}

TEST_CASE("A chart of ten thousand remarks is read in a moment, and one of too many parts is refused") {
  std::string left_out = "<scxml xmlns='http://www.w3.org/2005/07/scxml'><state id='a'>";
  for (int i = 0; i < 10'000; ++i) left_out += "<invoke/>\n";
  const auto chart = parse_scxml(left_out + "</state></scxml>", "c");
  REQUIRE(chart);
  CHECK(chart->remarks.size() == 201);
  std::string rows = "<scxml xmlns='http://www.w3.org/2005/07/scxml'><state id='a'>";
  for (int i = 0; i < 2'001; ++i) rows += "<transition target='a' cond='grounded'/>";
  refused(parse_scxml(rows + "</state></scxml>", "c"), "at most 2000 transitions");
}
