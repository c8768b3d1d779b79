// SPDX-License-Identifier: MIT
#include <catch2/catch.hpp>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>

#include "support/scenes.h"
#include "support/scratch.h"

using namespace lagniappe;
using Catch::Matchers::Contains;
using nlohmann::json;
using test::Scratch;

namespace {

const Scratch& scratch() {
  static const Scratch folder;
  return folder;
}
std::string write(const std::string& name, const std::string& bytes) { return scratch().write(name, bytes); }

template <typename T>
std::string bytes_of(const std::vector<T>& values) {
  return std::string(reinterpret_cast<const char*>(values.data()), values.size() * sizeof(T));
}

std::string glb(const json& document, std::string data) {
  std::string text = document.dump();
  text.resize((text.size() + 3) / 4 * 4, ' ');
  data.resize((data.size() + 3) / 4 * 4, '\0');
  const auto word = [](std::uint32_t x) { return std::string(reinterpret_cast<const char*>(&x), 4); };
  const std::string body = word(std::uint32_t(text.size())) + "JSON" + text + word(std::uint32_t(data.size())) +
                           std::string("BIN\0", 4) + data;
  return "glTF" + word(2) + word(std::uint32_t(12 + body.size())) + body;
}

// A square of 2 m in four vertices: list, strip and fan of it, under transforms.
struct Square {
  std::vector<float> positions = {-1, 0, -1, -1, 0, 1, 1, 0, -1, 1, 0, 1};
  std::vector<std::uint16_t> list = {0, 1, 2, 2, 1, 3};
  json document;
  std::string data;

  Square() {
    data = bytes_of(positions) + bytes_of(list);
    document = {{"asset", {{"version", "2.0"}}},
                {"scene", 0},
                {"scenes", {{{"nodes", {0}}}}},
                {"nodes", {{{"name", "Square"}, {"mesh", 0}}}},
                {"meshes", {{{"primitives", {{{"attributes", {{"POSITION", 0}}}, {"indices", 1}}}}}}},
                {"accessors",
                 {{{"bufferView", 0},
                   {"componentType", 5126},
                   {"count", 4},
                   {"type", "VEC3"},
                   {"min", {-1, 0, -1}},
                   {"max", {1, 0, 1}}},
                  {{"bufferView", 1}, {"componentType", 5123}, {"count", 6}, {"type", "SCALAR"}}}},
                {"bufferViews",
                 {{{"buffer", 0}, {"byteOffset", 0}, {"byteLength", 48}},
                  {{"buffer", 0}, {"byteOffset", 48}, {"byteLength", 12}}}},
                {"buffers", {{{"byteLength", 60}}}}};
  }
  Result<Model> read() const { return read_model(write("square.glb", glb(document, data))); }
};

double area(const Model& model) {
  double sum = 0.0;
  for (const ModelPart& part : model.parts) {
    for (const auto& [i, j, k] : part.mesh.triangles) {
      sum += 0.5 * length(cross(part.mesh.vertices[j] - part.mesh.vertices[i],
                                part.mesh.vertices[k] - part.mesh.vertices[i]));
    }
  }
  return sum;
}

}  // namespace

TEST_CASE("A GLB is read with its node transforms, repeated meshes and winding") {
  Square square;
  square.document["nodes"] = {
      {{"name", "Root"}, {"children", {1, 2, 3}}, {"translation", {10, 0, 0}}},
      {{"name", "Wide"}, {"mesh", 0}, {"scale", {3, 1, 1}}},
      {{"name", "Mirrored"}, {"mesh", 0}, {"scale", {-1, 1, 1}}, {"rotation", {0, 0.70710678, 0, 0.70710678}}},
      {{"name", "start"}, {"translation", {1, 2, 3}}}};
  const auto model = square.read();
  REQUIRE(model);
  REQUIRE(model->parts.size() == 2);
  CHECK(model->parts[0].name == "Wide");
  CHECK(area(*model) == Approx(12.0 + 4.0));
  for (const ModelPart& part : model->parts) {
    const auto& [i, j, k] = part.mesh.triangles[0];
    CHECK(
        cross(part.mesh.vertices[j] - part.mesh.vertices[i], part.mesh.vertices[k] - part.mesh.vertices[i]).y >
        0.0);
  }
  const auto course = read_course(scratch().path("square.glb"));
  REQUIRE(course);
  CHECK(start_home(*course).foot_C == Vec3(11, 2, 3));
}

TEST_CASE("Strips, fans and primitives without indices make their triangles") {
  Square square;
  auto& primitive = square.document["meshes"][0]["primitives"][0];
  primitive.erase("indices");
  primitive["mode"] = 5;
  CHECK(area(*square.read()) == Approx(4.0));
  primitive["mode"] = 6;
  square.positions = {-1, 0, -1, -1, 0, 1, 1, 0, 1, 1, 0, -1};
  square.data = bytes_of(square.positions) + bytes_of(square.list);
  CHECK(area(*square.read()) == Approx(4.0));
  primitive["mode"] = 1;
  CHECK_THAT(square.read().error().sentence(), Contains("no triangles"));
}

TEST_CASE("Degenerate and non-finite triangles are dropped and counted") {
  Square square;
  square.positions[4] = std::numeric_limits<float>::quiet_NaN();
  square.data = bytes_of(square.positions) + bytes_of(square.list);
  CHECK_THAT(square.read().error().sentence(), Contains("2 without area or with bad numbers were dropped"));
  Square line;
  line.list = {0, 1, 2, 2, 2, 3};
  line.data = bytes_of(line.positions) + bytes_of(line.list);
  const auto model = line.read();
  REQUIRE(model);
  CHECK(model->dropped == 1);
}

TEST_CASE("A model that announces more than it holds, or refers nowhere, is refused") {
  const auto refused = [](auto change, const std::string& says) {
    Square square;
    change(square.document);
    const auto model = square.read();
    REQUIRE_FALSE(model.has_value());
    CHECK_THAT(model.error().sentence(), Contains(says) && Contains("square.glb"));
  };
  refused([](json& d) { d["accessors"][1]["count"] = 30000000; }, "announces 30000000");
  refused([](json& d) { d["accessors"][0]["count"] = 4000000000u; }, "does not hold that many");
  refused([](json& d) { d["bufferViews"][0]["byteOffset"] = 40; }, "does not hold that many");
  refused([](json& d) { d["accessors"][0]["count"] = 3; }, "index 5 refers to vertex 3");
  refused([](json& d) { d["nodes"][0]["children"] = {0}; }, "its own ancestor");
  refused([](json& d) { d["nodes"][0]["mesh"] = 5; }, "mesh");
  refused([](json& d) { d["scenes"][0]["nodes"] = {9}; }, "node 9");
  refused([](json& d) { d["accessors"][0]["type"] = "VEC2"; }, "not vectors of three");
  refused([](json& d) { d["extensionsRequired"] = {"KHR_draco_mesh_compression"}; }, "without compression");
}

TEST_CASE("Files that only look like models are refused") {
  CHECK_THAT(read_model(write("empty.glb", "")).error().sentence(), Contains("byte 0"));
  CHECK_THAT(read_model(write("text.glb", "hello, this is no model at all")).error().sentence(),
             Contains("no GLB file"));
  CHECK_THAT(read_model(write("deep.gltf", std::string(200000, '['))).error().sentence(),
             Contains("nested deeper"));
  CHECK_THAT(read_model(write("empty.gltf", "{}")).error().sentence(), Contains("empty.gltf"));
  CHECK_THAT(read_model(write("empty.obj", "")).error().sentence(), Contains("empty.obj"));
  CHECK_THAT(read_model(write("binary.obj", std::string(3000, '\x9c'))).error().sentence(),
             Contains("binary.obj"));
  CHECK_THAT(read_model(write("a.fbx", "")).error().sentence(), Contains(".glb, .gltf or .obj"));
  const std::string whole = glb(Square().document, Square().data);
  for (std::size_t n = 0; n < whole.size(); n += 13)
    CHECK_FALSE(read_model(write("cut.glb", whole.substr(0, n))));
}

TEST_CASE("An OBJ is read by objects, with polygons and negative indices; bad indices are refused") {
  const auto model = read_model(write("two.obj",
                                      "o floor\nv -1 0 -1\nv -1 0 1\nv 1 0 1\nv 1 0 -1\nf 1 2 3 4\no bit\nv 0 "
                                      "1 0\nv 1 1 0\nv 0 1 -1\nf -3 -2 -1\n"));
  REQUIRE(model);
  REQUIRE(model->parts.size() == 2);
  CHECK(model->parts[0].name == "floor");
  CHECK(model->parts[0].mesh.triangles.size() == 2);
  CHECK(area(*model) == Approx(4.5));
  CHECK_FALSE(read_model(write("bad.obj", "v 0 0 0\nv 1 0 0\nf 1 2 7\n")));
  CHECK_FALSE(read_model(write("nan.obj", "v nan 0 0\nv 1 0 0\nv 0 0 1\nf 1 2 3\n")));
}

TEST_CASE("A level without a start begins on its lowest free floor, not on its roof") {
  const std::string house =
      "v -5 0 -5\nv -5 0 5\nv 5 0 5\nv 5 0 -5\nf 1 2 3 4\nv -5 4 -5\nv -5 4 5\nv 5 4 5\nv 5 4 -5\nf 5 6 7 8\n";
  const auto course = read_course(write("house.obj", house));
  REQUIRE(course);
  CHECK(start_home(*course).foot_C.y == Approx(0.0).margin(1e-9));
  const auto wall = read_course(write("wall.obj", "v 0 0 0\nv 5 0 0\nv 0 5 0\nf 1 2 3\n"));
  REQUIRE(wall.has_value());
  CHECK(wall->starts_in_flight);
  CHECK(start_home(*wall).foot_C.y > 5.0);
}

TEST_CASE("In a closed solid nobody begins: on its top, or on what it stands on") {
  // A box of 10 x 4 x 10 m, all faces outwards.
  const std::string box =
      "v -5 0 -5\nv -5 0 5\nv 5 0 5\nv 5 0 -5\nv -5 4 -5\nv -5 4 5\nv 5 4 5\nv 5 4 -5\n"
      "f 4 3 2 1\nf 5 6 7 8\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\n";
  const auto course = read_course(write("closed.obj", box));
  REQUIRE(course);
  CHECK(start_home(*course).foot_C.y == Approx(4.0).margin(1e-9));
  CHECK_FALSE(course->starts_in_flight);
}

TEST_CASE("A model in a compression that is not read is refused with its name") {
  for (const char* name :
       {"KHR_draco_mesh_compression", "EXT_meshopt_compression", "EXT_mesh_gpu_instancing"}) {
    const auto model = read_model(
        write("packed.gltf", std::string(R"({"asset":{"version":"2.0"},"extensionsUsed":[")") + name +
                                 R"("],"extensionsRequired":[")" + name + R"("],"meshes":[]})"));
    REQUIRE_FALSE(model.has_value());
    CHECK_THAT(model.error().sentence(), Contains(name));
  }
}
