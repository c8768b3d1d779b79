// SPDX-License-Identifier: GPL-3.0-or-later
// What the actions of the menus Tape, Take and Retake do.
#pragma once

#include <QObject>
#include <functional>

#include "actions.h"
#include "doors.h"
#include "pages/moving_picture.h"
#include "session/place_loader.h"
#include "session/take_desk.h"

namespace lagniappe::app {

class DrivePage;

class TakeActions : public QObject {
  Q_OBJECT
 public:
  TakeActions(DriveSession& session, TakeDesk& desk, DrivePage& page, Heart& heart, const Actions& actions,
              Doors doors, QWidget* window);

  // The one place that says which of them can be done now. Cheap where nothing of that has changed.
  void show_enabled();

  void cancel_writing() { moving_.cancel(); }

 signals:
  void problem(const QString& title, const QString& sentence);
  void note(const QString& what);
  void writing(const QString& what, double share);  // A moving picture.
  void writing_ended();
  void open_asked(const QString& file);
  void retake_course_asked(const QString& file);

 private:
  // What it hangs on which of them can be done.
  struct Situation {
    bool some = false, stretch = false, changed = false, parting = false, put_back = false, playing = false,
         loop = false;
    bool operator==(const Situation&) const = default;
  };
  Situation situation() const;
  void connect_tape();
  void connect_takes();
  void connect_exports();
  void play(bool playing);
  void connect_moving();
  void write(const QString& title, const FileKind& kind,
             const std::function<Result<void>(const std::string& path)>& writes);
  Result<void> write_tape(const QString& path);
  Result<void> write_plan(const QString& path);

  DriveSession& session_;
  TakeDesk& desk_;
  DrivePage& page_;
  const Actions& actions_;
  Doors doors_;
  QWidget* window_;
  MovingPicture moving_;
  std::optional<Situation> shown_;
};

}  // namespace lagniappe::app
