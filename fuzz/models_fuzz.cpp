// SPDX-License-Identifier: MIT
// The model readers, by the first byte: glTF as text, glTF as binary, OBJ. They read files, so there is one.
#include <unistd.h>

#include <cmath>
#include <cstdlib>
#include <fstream>
#include <string>

#include "lagniappe/files.h"

using namespace lagniappe;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  if (size == 0) return 0;
  static const std::string base = "/tmp/lagniappe-fuzz-" + std::to_string(getpid());
  static constexpr const char* kEndings[] = {".gltf", ".glb", ".obj"};
  const std::string path = base + kEndings[data[0] % 3];
  std::ofstream(path, std::ios::binary)
      .write(reinterpret_cast<const char*>(data) + 1, std::streamsize(size - 1));
  const auto model = read_model(path);
  std::remove(path.c_str());
  if (!model) {
    if (model.error().what.empty()) std::abort();
    return 0;
  }
  for (const ModelPart& part : model->parts) {
    for (const Vec3& v : part.mesh.vertices) {
      if (!is_finite(v)) std::abort();
    }
    for (const auto& triangle : part.mesh.triangles) {
      for (const std::uint32_t index : triangle) {
        if (index >= part.mesh.vertices.size()) std::abort();
      }
    }
  }
  return 0;
}
