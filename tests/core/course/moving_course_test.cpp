// SPDX-License-Identifier: MIT
// Surfaces and motions as they are read from documents and models.
#include <unistd.h>
#include <catch2/catch.hpp>
#include <cstring>
#include <filesystem>
#include <fstream>

#include "support/scenes.h"

using namespace lagniappe;
using namespace lagniappe::test;

namespace {

std::string course_with(const std::string& surfaces, const std::string& piece) {
  return R"({"lagniappe": "course", "version": 1, "name": "Yard", "marks": [{"id": "start", "at": [0, 0, 0]}],)" +
         surfaces + R"( "pieces": [)" + piece + "]}";
}

std::string refusal(const std::string& text) {
  const auto course = parse_course(text, "yard.json", "");
  return course ? "" : course.error().sentence();
}

struct TemporaryFolder {
  std::filesystem::path path =
      std::filesystem::temp_directory_path() / ("lagniappe-surfaces-" + std::to_string(getpid()));
  TemporaryFolder() { std::filesystem::create_directories(path); }
  ~TemporaryFolder() { std::filesystem::remove_all(path); }
};

// A triangle per corner height, in one buffer of a glTF document.
std::string gltf(const std::string& materials, const std::string& node_extras) {
  const float positions[9] = {0, 0, 0, 4, 0, 0, 0, 0, 4};
  std::string base64;
  static const char* kDigits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  unsigned char bytes[36];
  std::memcpy(bytes, positions, 36);
  for (int i = 0; i < 36; i += 3) {
    const unsigned n = bytes[i] << 16 | bytes[i + 1] << 8 | bytes[i + 2];
    for (int k = 18; k >= 0; k -= 6) base64 += kDigits[n >> k & 63];
  }
  return R"({"asset": {"version": "2.0"}, "scenes": [{"nodes": [0]}], "nodes": [{"name": "group", "children": [1])" +
         node_extras + R"(}, {"name": "ground", "mesh": 0}], "materials": )" + materials +
         R"(, "meshes": [{"primitives": [{"attributes": {"POSITION": 0}, "material": 0}, {"attributes": {"POSITION": 0}}]}],
      "accessors": [{"bufferView": 0, "componentType": 5126, "count": 3, "type": "VEC3", "min": [0,0,0], "max": [4,0,4]}],
      "bufferViews": [{"buffer": 0, "byteLength": 36}],
      "buffers": [{"byteLength": 36, "uri": "data:application/octet-stream;base64,)" +
         base64 + "\"}]}";
}

}  // namespace

TEST_CASE("A piece has the surface it names, and a motion goes from its place") {
  const auto course = parse_course(
      course_with(
          R"("surfaces": [{"id": "silt", "walk": "never", "friction": 0.25, "climbable": true, "ground": false}],)",
          R"({"id": "p", "kind": "block", "at": [1, 2, 3], "turn": [90, 0, 0], "size": [1, 1, 1], "surface": "silt",
                     "motion": {"period": 4, "phase": 0.5, "repeat": "back-and-forth", "path": "curved", "pivot": [0.5, 0, 0],
                                "keys": [{"at": 0}, {"at": 1, "move": [0, 2, 0], "turn": [720, 0, 0], "ease": "smooth"}]}})"),
      "yard.json", "");
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  CHECK(world.triangle_surface(0) == Surface{Surface::Walk::Never, false, true, 0.25});
  REQUIRE(world.moving_pieces().size() == 1);
  const PieceMotion& motion = *world.motion_of(0);
  CHECK(motion.keys[1].turn.x == Approx(4 * kPi));
  // Half the period ahead: at the far end at once.
  CHECK(length(motion.pose_at(0.0).position_C - Vec3(1, 4, 3)) < 1e-9);
  CHECK(length(motion.pose_at(2.0).position_C - Vec3(1, 2, 3)) < 1e-9);
}

TEST_CASE("Motions and surfaces that cannot be are refused with their place") {
  const auto piece = [](const std::string& motion) {
    return R"({"id": "p", "kind": "block", "at": [0, 0, 0], "size": [1, 1, 1], "motion": )" + motion + "}";
  };
  CHECK(refusal(course_with("", piece(R"({"period": 4, "keys": [{"at": 0}, {"at": 1, "move": [0, 1, 0]}]})")))
            .find("a loop must end where it begins") != std::string::npos);
  CHECK(refusal(course_with(
            "", piece(R"({"period": 4, "keys": [{"at": 0}, {"at": 1, "turn": [360, 0, 0]}]})"))) == "");
  CHECK(refusal(course_with("", piece(R"({"period": 4, "keys": [{"at": 0}, {"at": 0.5}, {"at": 0.5}]})")))
            .find("/pieces/0/motion/keys/2/at") != std::string::npos);
  const std::string sily =
      R"({"id": "p", "kind": "block", "at": [0, 0, 0], "size": [1, 1, 1], "surface": "sily"})";
  CHECK(refusal(course_with(R"("surfaces": [{"id": "silt"}],)", sily)).find("nearest known word is \"silt\"") !=
        std::string::npos);
  CHECK(refusal(course_with(R"("surfaces": [],)", sily)).find("no surfaces") != std::string::npos);
  CHECK(refusal(course_with("", sily)) == "");  // Without a list, names are labels.
  CHECK(refusal(course_with(R"("surfaces": [{"id": "silt"}, {"id": "silt"}],)", sily)).find("used before") !=
        std::string::npos);
}

TEST_CASE("Materials and nodes of a glTF model say what they are made of by their extras") {
  const TemporaryFolder folder;
  const std::string path = (folder.path / "ground.gltf").string();
  const auto write = [&](const std::string& text) { std::ofstream(path) << text; };
  write(gltf(R"([{"extras": {"surface": {"friction": 0.5}}}])",
             R"(, "extras": {"surface": "moss", "other": 1})"));
  const auto course = parse_course(
      course_with(
          R"("surfaces": [{"id": "moss", "friction": 0.7}, {"id": "stone"}],)",
          R"({"id": "m", "kind": "model", "at": [0, 0, 0], "file": "ground.gltf", "surface": "stone"})"),
      "yard.json", folder.path.string());
  REQUIRE(course);
  const TriangleWorld world = build_world(*course);
  REQUIRE(world.triangle_count() == 2);
  CHECK(world.triangle_surface(0).friction == 0.5);  // Its material's own values.
  CHECK(world.triangle_surface(1).friction == 0.7);  // No material: the group node's, by name.
  // A model opened by itself has no names to look up; values count.
  const auto alone = read_course(path);
  REQUIRE(alone);
  CHECK(build_world(*alone).triangle_surface(0).friction == 0.5);
  // What is wrong is named.
  write(gltf(R"([{"extras": {"surface": {"friction": 5}}}])", ""));
  const auto bad = read_model(path);
  REQUIRE_FALSE(bad);
  CHECK(bad.error().place == "/materials/0/extras/surface/friction");
  write(gltf("[{}]", R"(, "extras": {"surface": "mos"})"));
  const auto unknown =
      parse_course(course_with(R"("surfaces": [{"id": "moss"}],)",
                               R"({"id": "m", "kind": "model", "at": [0, 0, 0], "file": "ground.gltf"})"),
                   "yard.json", folder.path.string());
  REQUIRE_FALSE(unknown);
  CHECK(unknown.error().what.find("\"mos\"") != std::string::npos);
}
