// SPDX-License-Identifier: MIT
// Fields and zones of a course as rows of its document: to be shown, changed and written by an editor.
//
// Thread safety: free functions; any number of threads at once.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>

#include "lagniappe/course.h"
#include "lagniappe/result.h"

namespace lagniappe {

enum class CourseList { Fields, Zones };

std::size_t row_count(const Course& course, CourseList list);

// Returns a row as a JSON object with every key that it has, defaults written out. REQUIRES: index <
// row_count().
std::string row_text(const Course& course, CourseList list, std::size_t index);

// Returns the course with a row put in place of another, or behind the last (index == row_count()). Refused as
// in a file; `row` is a JSON object.
Result<Course> with_row(const Course& course, CourseList list, std::size_t index, std::string_view row);
// REQUIRES: index < row_count().
Course without_row(const Course& course, CourseList list, std::size_t index);

// Returns a course's text with this course's fields and zones: rows that mean the same keep their bytes, and so
// does everything else. Refused where `text` is no course, or not one that these rows fit.
Result<std::string> course_text(const Course& course, std::string_view text, const std::string& file,
                                const std::string& folder);

}  // namespace lagniappe
