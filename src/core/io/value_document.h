// SPDX-License-Identifier: MIT
// One value of a profile in a document, by its row: as files have it, in the file's unit. Readers throw
// ReadFailure.
#pragma once

#include "io/json_document.h"
#include "lagniappe/profile_fields.h"

namespace lagniappe {

double read_number(const JsonCursor& cursor, const ProfileField& field);  // As typed: degrees.
Curve read_curve(const JsonCursor& cursor, const ProfileCurve& field);    // A list of [x, y].
int read_choice(const JsonCursor& cursor, const ProfileChoice& field);

Json number_json(const ProfileField& field, const Values& values);
Json curve_json(const ProfileCurve& field, const Values& values);
Json choice_json(const ProfileChoice& field, const Values& values);

// Reads the value that a path such as "ground.speed" names into `values`. Returns whether it names one.
bool read_value(const JsonCursor& cursor, std::string_view path, Values& values);

}  // namespace lagniappe
