// SPDX-License-Identifier: MIT
// The zones of a course. Readers throw ReadFailure where something is wrong.
#pragma once

#include "io/json_document.h"
#include "lagniappe/course.h"

namespace lagniappe {

// REQUIRES: the course has its pieces, surfaces and marks.
void read_zones(const JsonCursor& list, Course& course);
Json zone_json(const Zone& zone);

}  // namespace lagniappe
