// SPDX-License-Identifier: GPL-3.0-or-later
// Watches the files that an open course is read from: its own, and the models that it names.
#pragma once

#include <QFileSystemWatcher>
#include <QTimer>

#include "session/recording.h"

namespace lagniappe::app {

class CourseWatch : public QObject {
  Q_OBJECT
 public:
  explicit CourseWatch(QObject* parent = nullptr);

  void follow(const Place& place);
  void put_off();  // What changed is told again a little later.

 signals:
  void changed(const QString& course_file);  // And written to its end, as far as that can be known.

 private:
  void look();

  QFileSystemWatcher watcher_;
  QTimer settled_;
  QString course_file_;
  QStringList files_;
  QList<QDateTime> written_;  // When each was, the last time one looked.
};

}  // namespace lagniappe::app
