// SPDX-License-Identifier: MIT
#include "lagniappe/piece_kinds.h"

#include <utility>

#include "course/shapes.h"

namespace lagniappe {
namespace {

template <typename Shape>
PieceKind kind_row() {
  using Row = ShapeRow<Shape>;
  PieceKind kind{Row::kKind, Row::kHelp, {}};
  if constexpr (requires { Row::keys(); }) {
    for (const DocumentKey& key : Row::keys()) kind.keys.push_back(key);
  } else {
    const Shape shape{};
    Row::fields(shape, [&](const DocumentKey& key, const auto&) { kind.keys.push_back(key); });
  }
  return kind;
}

template <std::size_t... kIndex>
std::vector<PieceKind> kind_rows(std::index_sequence<kIndex...>) {
  return {kind_row<std::variant_alternative_t<kIndex, Shape>>()...};
}

}  // namespace

std::span<const PieceKind> piece_kinds() {
  static const std::vector<PieceKind> kinds = kind_rows(std::make_index_sequence<std::variant_size_v<Shape>>());
  return kinds;
}

const PieceKind& kind_of(const Shape& shape) { return piece_kinds()[shape.index()]; }

std::size_t most_triangles(const Shape& shape) {
  return std::visit([](const auto& s) { return ShapeRow<std::decay_t<decltype(s)>>::most_triangles(s); },
                    shape);
}

}  // namespace lagniappe
