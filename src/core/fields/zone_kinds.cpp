// SPDX-License-Identifier: MIT
#include "lagniappe/zone_kinds.h"

#include "fields/kind_list.h"
#include "fields/zone_rows.h"

namespace lagniappe {

std::span<const DocumentKind> zone_shape_kinds() {
  static const std::vector<DocumentKind> kinds = kinds_of<ZoneShape, ZoneRow>();
  return kinds;
}

std::span<const DocumentKind> zone_effect_kinds() {
  static const std::vector<DocumentKind> kinds = kinds_of<ZoneEffect, ZoneRow>();
  return kinds;
}

}  // namespace lagniappe
