// SPDX-License-Identifier: GPL-3.0-or-later
// What is done with the course that is edited: its actions, its file, and the take that is run on it.
#pragma once

#include <QObject>

#include "actions.h"
#include "doors.h"
#include "session/course_desk.h"
#include "session/take_desk.h"

namespace lagniappe::app {

class FieldsPage;
class ViewWidget;

class CourseActions : public QObject {
  Q_OBJECT
 public:
  CourseActions(CourseDesk& desk, TakeDesk& takes, DriveSession& session, FieldsPage& page, ViewWidget& view,
                const Actions& actions, Doors doors, QWidget* window);

  void show_enabled();  // Once a beat.
  // Asks what becomes of courses that are changed and not saved. Returns whether the window may close.
  bool settle();

 signals:
  void problem(const QString& title, const QString& sentence);
  void page_asked();
  void saved_as(const QString& path);

 private:
  void save();
  void save_as();
  void take_edited(const std::shared_ptr<const Place>& place);
  void drive_on_edited();

  CourseDesk& desk_;
  TakeDesk& takes_;
  DriveSession& session_;
  FieldsPage& page_;
  ViewWidget& view_;
  const Actions& actions_;
  Doors doors_;
  QWidget* window_;
};

}  // namespace lagniappe::app
