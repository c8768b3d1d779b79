// SPDX-License-Identifier: MIT
#include "lagniappe/piece_kinds.h"

#include "course/shapes.h"
#include "fields/kind_list.h"

namespace lagniappe {

std::span<const PieceKind> piece_kinds() {
  static const std::vector<PieceKind> kinds = kinds_of<Shape, ShapeRow>();
  return kinds;
}

const PieceKind& kind_of(const Shape& shape) { return piece_kinds()[shape.index()]; }

std::size_t most_triangles(const Shape& shape) {
  return std::visit([](const auto& s) { return ShapeRow<std::decay_t<decltype(s)>>::most_triangles(s); },
                    shape);
}

}  // namespace lagniappe
