// SPDX-License-Identifier: GPL-3.0-or-later
// One row of the course, and how rows are told apart by colour.
#pragma once

#include <QColor>
#include <QJsonObject>
#include <optional>

#include "lagniappe/course_rows.h"

namespace lagniappe::app {

struct RowChoice {
  CourseList list = CourseList::Fields;
  std::size_t index = 0;
  bool operator==(const RowChoice&) const = default;
};

// REQUIRES: the row is there.
QJsonObject row_object(const Course& course, const RowChoice& row);
QString row_name(const Course& course, const RowChoice& row);

// Of lines and names; fields go through the colours in their order.
QColor row_colour(const Course& course, const RowChoice& row);

}  // namespace lagniappe::app
