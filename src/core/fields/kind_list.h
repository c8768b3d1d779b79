// SPDX-License-Identifier: MIT
// The kinds of a variant as a list, by the rows of its alternatives.
#pragma once

#include <utility>
#include <variant>
#include <vector>

#include "lagniappe/document_key.h"

namespace lagniappe {

// A row has kKind and kHelp, and its keys: as keys(), or by what fields() calls for the value as it is written.
template <typename Row, typename Part>
DocumentKind kind_of_row() {
  DocumentKind kind{Row::kKind, Row::kHelp, {}};
  const auto add = [&](const DocumentKey& key, const auto&) { kind.keys.push_back(key); };
  if constexpr (requires { Row::keys(); }) {
    for (const DocumentKey& key : Row::keys()) kind.keys.push_back(key);
  } else if constexpr (requires { Row::written(Part{}); }) {
    const auto written = Row::written(Part{});
    Row::fields(written, add);
  } else {
    const Part part{};
    Row::fields(part, add);
  }
  return kind;
}

template <template <typename> class RowOf, typename... Part>
std::vector<DocumentKind> kinds_by_rows(const std::variant<Part...>*) {
  return {kind_of_row<RowOf<Part>, Part>()...};
}

template <typename Variant, template <typename> class RowOf>
std::vector<DocumentKind> kinds_of() {
  return kinds_by_rows<RowOf>(static_cast<const Variant*>(nullptr));
}

}  // namespace lagniappe
