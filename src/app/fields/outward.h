// SPDX-License-Identifier: GPL-3.0-or-later
// Places over the surface of a field.
#pragma once

#include "lagniappe/field.h"

namespace lagniappe::app {

// A point `way` m out of the field's surface, in its frame; on the outside of a ring. Over a path another
// stretch of it may be nearer: ask for the distance where it must be exact.
Vec3 outward(const FieldShape& shape, double way);

}  // namespace lagniappe::app
