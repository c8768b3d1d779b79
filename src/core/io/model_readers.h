// SPDX-License-Identifier: MIT
// One function per model format; read_model() chooses by the ending.
#pragma once

#include "io/outside_names.h"
#include "lagniappe/files.h"

namespace lagniappe {

Result<Model> read_gltf(const std::string& path);
Result<Model> read_obj(const std::string& path);

// How many materials a mesh can tell apart: `surface_of` has 16 bits.
inline constexpr std::size_t kMostSurfaces = 65'535;

// The number by which `surface_of` means this surface: one more than its index among `surfaces`, to which it is
// added if it is not there.
std::size_t number_of(const shape::Triangles::SurfaceChoice& surface,
                      std::vector<shape::Triangles::SurfaceChoice>& surfaces);

// Collects a part's triangles; drops and counts those without area or with a coordinate that is not finite.
class PartBuilder {
 public:
  explicit PartBuilder(const std::string& name) { part_.name = plain_name(name); }

  void add(const Vec3& a, const Vec3& b, const Vec3& c);
  // What the triangles added next are made of; nothing: what the piece is made of.
  void made_of(const std::optional<shape::Triangles::SurfaceChoice>& surface);
  // Moves what was collected into `model`, if it is anything. Returns why it cannot be used, or nothing.
  std::string finish(Model& model);

 private:
  ModelPart part_;
  std::size_t surface_ = 0;
  std::size_t dropped_ = 0;
};

}  // namespace lagniappe
