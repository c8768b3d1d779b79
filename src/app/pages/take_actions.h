// SPDX-License-Identifier: GPL-3.0-or-later
// What the actions of the menus Tape, Take and Retake do.
#pragma once

#include <QObject>
#include <functional>

#include "actions.h"
#include "doors.h"
#include "session/place_loader.h"
#include "session/take_desk.h"

namespace lagniappe::app {

class DrivePage;

class TakeActions : public QObject {
  Q_OBJECT
 public:
  TakeActions(DriveSession& session, TakeDesk& desk, DrivePage& page, const Actions& actions, Doors doors,
              QWidget* window);

  // The one place that says which of them can be done now.
  void show_enabled();

 signals:
  void problem(const QString& title, const QString& sentence);
  void open_asked(const QString& file);
  void retake_course_asked(const QString& file);

 private:
  void connect_tape();
  void connect_takes();
  void connect_exports();
  void play(bool playing);
  void write(const QString& title, const QString& filter, const QString& ending,
             const std::function<Result<void>(const QString&)>& writes);
  Result<void> write_tape(const QString& path);
  Result<void> write_plan(const QString& path);

  DriveSession& session_;
  TakeDesk& desk_;
  DrivePage& page_;
  const Actions& actions_;
  Doors doors_;
  QWidget* window_;
};

}  // namespace lagniappe::app
