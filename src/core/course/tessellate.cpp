// SPDX-License-Identifier: MIT
// Pieces to triangles.
#include "course/shapes.h"

namespace lagniappe {

std::vector<Triangle> own_triangles_of(const Piece& piece) {
  Mesh mesh;
  std::visit([&](const auto& s) { ShapeRow<std::decay_t<decltype(s)>>::make(s, mesh); }, piece.shape);
  return std::move(mesh.triangles());
}

std::vector<Triangle> triangles_of(const Piece& piece) {
  std::vector<Triangle> triangles = own_triangles_of(piece);
  const Quat rotation = rotation_of(piece.turn);
  const bool turned = piece.turn != Vec3(0.0);  // Unturned pieces keep their coordinates to the bit.
  for (Triangle& t : triangles) {
    for (Vec3* v : {&t.v0_C, &t.v1_C, &t.v2_C}) *v = (turned ? rotation * *v : *v) + piece.at_C;
  }
  return triangles;
}

}  // namespace lagniappe
