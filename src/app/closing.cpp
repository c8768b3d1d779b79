// SPDX-License-Identifier: GPL-3.0-or-later
#include "closing.h"

#include <QDir>
#include <QTemporaryDir>
#include <QTextStream>

namespace lagniappe::app {

bool settle_unsaved(TakeDesk& desk, const Doors& doors, QWidget* window) {
  using Unsaved = Doors::Unsaved;
  Study& study = desk.study();
  while (!study.all_saved()) {
    const Unsaved answer =
        doors.ask_about_unsaved ? doors.ask_about_unsaved(window, study.unsaved_names()) : Unsaved::Stay;
    if (answer == Unsaved::Stay) return false;
    if (answer == Unsaved::TryAgain) {
      study.save_again();
      desk.close_recording();
    } else if (answer == Unsaved::Elsewhere) {
      const QString folder =
          doors.ask_for_folder ? doors.ask_for_folder(window, QObject::tr("Save the takes in")) : QString();
      if (!folder.isEmpty()) (void)study.save_elsewhere(folder);
    } else {
      study.give_up_unsaved();
    }
  }
  return true;
}

void rescue_unsaved(TakeDesk& desk, const CourseDesk& courses) {
  for (const QString& file : courses.rescue(desk.study().folder()))
    QTextStream(stderr) << QObject::tr("A changed course that was not saved is in %1").arg(file) << "\n";
  Study& study = desk.study();
  if (study.all_saved()) return;
  study.save_again();
  desk.close_recording();
  if (study.all_saved()) return;
  QTemporaryDir folder(QDir::temp().filePath("lagniappe-takes-XXXXXX"));
  folder.setAutoRemove(false);
  // Without such a folder nothing is written: the working directory is nobody's choice.
  const QString wrong = folder.isValid() ? study.save_elsewhere(folder.path()) : folder.errorString();
  QTextStream(stderr)
      << (wrong.isEmpty() ? QObject::tr("The study cannot be written; the takes are in %1").arg(folder.path())
                          : wrong)
      << "\n";
}

}  // namespace lagniappe::app
