// SPDX-License-Identifier: MIT
#include "lagniappe/field_kinds.h"

#include "fields/field_rows.h"

namespace lagniappe {
namespace {

template <typename Shape>
FieldKind kind_row() {
  using Row = FieldRow<Shape>;
  FieldKind kind{Row::kKind, Row::kHelp, {}};
  const auto written = Row::written(Shape{});
  Row::fields(written, [&](const DocumentKey& key, const auto&) { kind.keys.push_back(key); });
  return kind;
}

template <std::size_t... kIndex>
std::vector<FieldKind> kind_rows(std::index_sequence<kIndex...>) {
  return {kind_row<std::variant_alternative_t<kIndex, FieldShape>>()...};
}

}  // namespace

std::span<const FieldKind> field_kinds() {
  static const std::vector<FieldKind> kinds =
      kind_rows(std::make_index_sequence<std::variant_size_v<FieldShape>>());
  return kinds;
}

}  // namespace lagniappe
