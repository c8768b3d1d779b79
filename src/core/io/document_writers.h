// SPDX-License-Identifier: MIT
// Documents as JSON values, as their readers read them: what is read back is the same to the bit.
#pragma once

#include "io/json_document.h"
#include "lagniappe/course.h"
#include "lagniappe/profile.h"

namespace lagniappe {

// Models become triangles, so that the course stands alone.
Json course_json(const Course& course);
Json profile_json(const Profile& profile);

// The readers' other side, from a value that is already parsed. Throw ReadFailure. Models are looked for below
// `folder`; without one they are refused.
Course read_course_document(const JsonCursor& document, const std::optional<std::string>& folder);
Profile read_profile_document(const JsonCursor& document);
// Throws where values that are in their ranges do not fit together.
void must_fit_together(const Values& values);

}  // namespace lagniappe
