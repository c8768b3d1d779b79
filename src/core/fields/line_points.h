// SPDX-License-Identifier: MIT
// The points of a smooth line, as documents have them.
#pragma once

#include <optional>
#include <vector>

#include "lagniappe/document_key.h"
#include "lagniappe/vector.h"

namespace lagniappe {

namespace row_key {

constexpr DocumentKey points(std::string_view help) {
  return {DocumentKey::Type::List, "points", "m", -1e6, 1e6, false, help};
}
constexpr DocumentKey closed() {
  return {DocumentKey::Type::Flag,
          "closed",
          "",
          0.0,
          0.0,
          false,
          "Whether the line goes on from its last point to its first: no ends.",
          false};
}

}  // namespace row_key

inline std::optional<RowFault> fault_of_line(const std::vector<Vec3>& points, bool closed) {
  if (points.size() < (closed ? 3u : 2u))
    return RowFault{"points", closed ? "a closed line needs at least 3" : "a line needs at least 2"};
  for (std::size_t i = 0; i < points.size(); ++i) {
    const bool last = i + 1 == points.size();
    if ((!last || closed) && points[i] == points[last ? 0 : i + 1])
      return RowFault{"points", "two that follow one another are the same"};
  }
  return std::nullopt;
}

}  // namespace lagniappe
