// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/row_choice.h"

#include <QJsonDocument>

#include "theme/state_colours.h"
#include "viewport/zone_lines.h"

namespace lagniappe::app {

QJsonObject row_object(const Course& course, const RowChoice& row) {
  return QJsonDocument::fromJson(QByteArray::fromStdString(row_text(course, row.list, row.index))).object();
}

QString row_name(const Course& course, const RowChoice& row) {
  return QString::fromStdString(row.list == CourseList::Fields ? course.fields[row.index].id
                                                               : course.zones[row.index].id);
}

QColor row_colour(const Course& course, const RowChoice& row) {
  if (row.list == CourseList::Fields) return theme::field_colour(row.index);
  return zone_colour(course.zones[row.index].effect);
}

}  // namespace lagniappe::app
