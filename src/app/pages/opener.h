// SPDX-License-Identifier: GPL-3.0-or-later
// Opens files: tells by what a file is where it goes, loads it away from the window's thread, and follows the
// opened course on the disk.
#pragma once

#include <QSettings>

#include "session/course_watch.h"
#include "session/drive_session.h"
#include "session/handling_desk.h"
#include "session/place_loader.h"

class QMenu;

namespace lagniappe::app {

// What is to be told of a course that could be opened; empty: nothing.
QString remark_on(const Course& course);

class Opener : public QObject {
  Q_OBJECT
 public:
  Opener(DriveSession& session, HandlingDesk& handling, QSettings& settings, QObject* parent);

  // By what the file is: a course, model, profile, chart, inputs or take.
  void open(const QString& path);
  void pin_take(const QString& path);          // Shown beside the one that is shown.
  void retake_on(const QString& course_path);  // The shown take, on another course.
  void recover_take(const QString& path);      // What can be read of it.
  void remember(const QString& path);          // Among the recent files.
  void fill_recent(QMenu& menu);
  PlaceLoader& loader() { return loader_; }
  // What is to be told of a take beside its `verdict`: how it differs from what is open. No file that the take
  // names is opened for it.
  QString remark_on(const Take& take, const QString& verdict) const;

 signals:
  void place_opened(std::shared_ptr<const lagniappe::app::Place> place);
  void place_changed(std::shared_ptr<const lagniappe::app::Place> place);  // On the disk.
  void retake_asked(std::shared_ptr<const lagniappe::app::Place> place);
  void take_opened(std::shared_ptr<lagniappe::app::Recording> recording, const QString& verdict,
                   const QString& path);
  void pin_asked(std::shared_ptr<lagniappe::app::Recording> recording);
  void damaged(const QString& path, const QString& sentence);
  void profile_asked(const QString& path);
  void chart_asked(const QString& path);
  void inputs_begin();  // A script is going to be shown as a take.
  void problem(const QString& title, const QString& sentence);
  void settled();  // A load ended without anything.

 private:
  void take_place(const std::shared_ptr<const Place>& place);
  void play_inputs(const QString& path);
  void fail(const QString& path, const QString& sentence);

  // What is being loaded is for: to be shown, a course to retake on, a take to pin, a course that was changed.
  enum class LoadFor { Showing, Retake, Pin, Changed };

  DriveSession& session_;
  HandlingDesk& handling_;
  QSettings& settings_;
  PlaceLoader loader_;
  CourseWatch watch_;
  LoadFor load_for_ = LoadFor::Showing;
  QString waiting_inputs_;
  std::shared_ptr<const Place> opened_place_;
};

}  // namespace lagniappe::app
