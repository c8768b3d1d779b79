// SPDX-License-Identifier: MIT
#include "lagniappe/field_kinds.h"

#include "fields/field_rows.h"
#include "fields/kind_list.h"

namespace lagniappe {

std::span<const FieldKind> field_kinds() {
  static const std::vector<FieldKind> kinds = kinds_of<FieldShape, FieldRow>();
  return kinds;
}

}  // namespace lagniappe
