// SPDX-License-Identifier: MIT
// The kinds of fields as rows, as those of pieces are: see piece_kinds.h.
#pragma once

#include <span>

#include "lagniappe/document_key.h"
#include "lagniappe/field.h"

namespace lagniappe {

using FieldKind = DocumentKind;

// In the order of the alternatives of FieldShape.
std::span<const FieldKind> field_kinds();

}  // namespace lagniappe
