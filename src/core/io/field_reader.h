// SPDX-License-Identifier: MIT
// The fields of a course. Readers throw ReadFailure where something is wrong.
#pragma once

#include "io/json_document.h"
#include "lagniappe/course.h"

namespace lagniappe {

// REQUIRES: the course has its pieces.
void read_fields(const JsonCursor& list, Course& course);
Json field_json(const Field& field);

}  // namespace lagniappe
