// SPDX-License-Identifier: MIT
// One function per model format; read_model() chooses by the ending.
#pragma once

#include "lagniappe/files.h"

namespace lagniappe {

Result<Model> read_gltf(const std::string& path);
Result<Model> read_obj(const std::string& path);

// Collects a part's triangles; drops and counts those without area or with a coordinate that is not finite.
class PartBuilder {
 public:
  explicit PartBuilder(std::string name) { part_.name = std::move(name); }

  void add(const Vec3& a, const Vec3& b, const Vec3& c);
  // What the triangles added next are made of; nothing: what the piece is made of.
  void made_of(const std::optional<shape::Triangles::SurfaceChoice>& surface);
  // Moves what was collected into `model`, if it is anything.
  void finish(Model& model);

 private:
  ModelPart part_;
  std::uint16_t surface_ = 0;
  std::size_t dropped_ = 0;
};

}  // namespace lagniappe
