// SPDX-License-Identifier: GPL-3.0-or-later
// The fields and zones of the shown place's course while they are edited: undone, checked as in a file, built
// into a place away from the window's thread, and saved into the course's file. No widgets.
#pragma once

#include <QObject>
#include <map>

#include "lagniappe/course_rows.h"
#include "session/drive_session.h"
#include "session/newest_job.h"
#include "session/undo.h"

namespace lagniappe::app {

class CourseDesk : public QObject {
  Q_OBJECT
 public:
  CourseDesk(DriveSession& session, Undo& undo, QObject* parent = nullptr);

  // Takes in that another place is shown. What was changed and not saved is kept, by its file.
  void refresh();

  // Its file was changed on the disk, and is read: what was changed here and not saved stays, else it is
  // followed. Returns whether it comes to what is here already.
  bool take_file(const std::shared_ptr<const Place>& place);

  // As it is edited; null while no place is shown.
  const Course* course() const { return shown_ ? &course_ : nullptr; }
  const std::string& path() const { return path_; }
  std::uint64_t edition() const { return edition_; }  // Another number: other rows.

  // Puts a row in place of another, or behind the last. Refused as in a file: then nothing changes, and
  // refused() says why. Changes of one gesture, unless it is 0, are undone at once.
  bool set_row(CourseList list, std::size_t index, const QByteArray& row, const QString& what, int gesture = 0);
  void remove_row(CourseList list, std::size_t index);
  int new_gesture() { return undo_.new_gesture(); }
  // A name that no row of the list has, beginning with `stem`.
  QString free_name(CourseList list, const QString& stem) const;

  // The place of what is edited, once it is built; null where nothing is changed from the shown one.
  const std::shared_ptr<const Place>& edited_place() const { return edited_; }

  bool is_saved() const { return rows_ == saved_rows_; }
  bool can_save() const;        // A document of its own: models and takes without one cannot.
  QStringList unsaved() const;  // Names of the courses that are changed and not saved.
  Result<void> save();          // The shown one.
  // Into another file, which can be opened then; its own file stays as it is. What was changed is no longer
  // kept for that. Refused, and nothing written, where it would not be a course there: what it names is looked
  // for beside it.
  Result<void> save_as(const std::string& path);
  Result<void> save_all();
  // Writes courses that are changed and not saved into a folder, as others than their files. Returns where they
  // are.
  QStringList rescue(const QString& folder) const;
  void give_up_unsaved();

 signals:
  void changed();  // Rows, or whose they are.
  void place_made(std::shared_ptr<const lagniappe::app::Place> place);
  void refused(const QString& title, const QString& why);

 private:
  void begin(const std::shared_ptr<const Place>& place);
  void set(const Course& course);
  void take(const Course& course, const QString& what, int gesture);
  void make_place_of_it();

  DriveSession& session_;
  Undo& undo_;
  Era era_;
  std::shared_ptr<const Place> shown_, edited_;
  std::shared_ptr<const Place> from_watch_;  // As the file was changed on the disk, over what is changed here.
  std::string path_;
  Course course_;
  std::string rows_, saved_rows_;
  struct Kept {
    Course course;
    std::string saved_rows;
  };
  std::map<std::string, Kept> kept_;  // By file.
  std::uint64_t edition_ = 0;
  NewestJob job_{*this};
};

}  // namespace lagniappe::app
