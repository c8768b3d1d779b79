// SPDX-License-Identifier: MIT
// The shapes and effects of zones as rows, as the kinds of pieces are: see piece_kinds.h.
#pragma once

#include <span>

#include "lagniappe/document_key.h"
#include "lagniappe/zone.h"

namespace lagniappe {

// In the order of the alternatives of ZoneShape, and of ZoneEffect.
std::span<const DocumentKind> zone_shape_kinds();
std::span<const DocumentKind> zone_effect_kinds();

}  // namespace lagniappe
