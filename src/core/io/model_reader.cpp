// SPDX-License-Identifier: MIT
#include <fmt/format.h>

#include <algorithm>

#include "geometry/tolerances.h"
#include "io/json_document.h"
#include "io/model_course.h"
#include "io/model_readers.h"

namespace lagniappe {

void PartBuilder::add(const Vec3& a, const Vec3& b, const Vec3& c) {
  const double double_area = length(cross(b - a, c - a));
  const bool near_enough =
      std::max({std::abs(a.x), std::abs(a.y), std::abs(a.z), std::abs(b.x), std::abs(b.y), std::abs(b.z),
                std::abs(c.x), std::abs(c.y), std::abs(c.z)}) <= kAnyPosition.high;
  if (!near_enough || !(double_area >= kLeastDoubleArea) || !is_finite(a) || !is_finite(b) || !is_finite(c)) {
    ++dropped_;
    return;
  }
  const auto base = static_cast<std::uint32_t>(part_.mesh.vertices.size());
  part_.mesh.vertices.insert(part_.mesh.vertices.end(), {a, b, c});
  part_.mesh.triangles.push_back({base, base + 1, base + 2});
  if (!part_.mesh.surfaces.empty()) part_.mesh.surface_of.push_back(static_cast<std::uint16_t>(surface_));
}

void PartBuilder::made_of(const std::optional<shape::Triangles::SurfaceChoice>& surface) {
  surface_ = 0;
  if (!surface) return;
  part_.mesh.surface_of.resize(part_.mesh.triangles.size(), 0);
  surface_ = number_of(*surface, part_.mesh.surfaces);
}

std::string PartBuilder::finish(Model& model) {
  if (part_.mesh.surfaces.size() > kMostSurfaces)
    return fmt::format("it is made of more than {} surfaces", kMostSurfaces);
  model.dropped += dropped_;
  if (!part_.mesh.triangles.empty()) model.parts.push_back(std::move(part_));
  return "";
}

std::size_t number_of(const shape::Triangles::SurfaceChoice& surface,
                      std::vector<shape::Triangles::SurfaceChoice>& surfaces) {
  const auto found = std::find(surfaces.begin(), surfaces.end(), surface);
  const auto number = static_cast<std::size_t>(found - surfaces.begin()) + 1;
  if (found == surfaces.end()) surfaces.push_back(surface);
  return number;
}

Result<Model> read_model(const std::string& path) {
  if (!is_model_path(path)) {
    return refuse({path, "the file name", "a model must be a .glb, .gltf or .obj file"});
  }
  const bool obj = path.size() >= 4 && (path.back() == 'j' || path.back() == 'J');
  Result<Model> model = obj ? read_obj(path) : read_gltf(path);
  if (model && model->parts.empty()) {
    const std::string dropped =
        model->dropped > 0 ? fmt::format(" ({} without area or with bad numbers were dropped)", model->dropped)
                           : "";
    return refuse({path, "the whole model", "it has no triangles" + dropped});
  }
  return model;
}

}  // namespace lagniappe
