// SPDX-License-Identifier: MIT
// The fields of a course. Readers throw ReadFailure where something is wrong.
#pragma once

#include "io/json_document.h"
#include "lagniappe/field.h"

namespace lagniappe {

Field read_field(const JsonCursor& cursor);
Json field_json(const Field& field);

}  // namespace lagniappe
