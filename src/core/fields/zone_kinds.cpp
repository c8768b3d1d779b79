// SPDX-License-Identifier: MIT
#include "lagniappe/zone_kinds.h"

#include "fields/zone_rows.h"

namespace lagniappe {
namespace {

template <typename Part>
DocumentKind kind_row() {
  using Row = ZoneRow<Part>;
  DocumentKind kind{Row::kKind, Row::kHelp, {}};
  const Part part{};
  Row::fields(part, [&](const DocumentKey& key, const auto&) { kind.keys.push_back(key); });
  return kind;
}

template <typename... Part>
std::vector<DocumentKind> kind_rows(const std::variant<Part...>*) {
  return {kind_row<Part>()...};
}

}  // namespace

std::span<const DocumentKind> zone_shape_kinds() {
  static const std::vector<DocumentKind> kinds = kind_rows(static_cast<const ZoneShape*>(nullptr));
  return kinds;
}

std::span<const DocumentKind> zone_effect_kinds() {
  static const std::vector<DocumentKind> kinds = kind_rows(static_cast<const ZoneEffect*>(nullptr));
  return kinds;
}

}  // namespace lagniappe
