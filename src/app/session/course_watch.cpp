// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/course_watch.h"

#include <QDateTime>
#include <QFileInfo>

namespace lagniappe::app {
namespace {

constexpr int kSettled = 200;  // ms without a change: who writes in pieces has come to the end.

QStringList files_of(const Place& place) {
  const QFileInfo course(QString::fromStdString(place.path));
  QStringList files = {course.absoluteFilePath()};
  for (const Piece& piece : place.course.pieces) {
    const auto* model = std::get_if<shape::Model>(&piece.shape);
    if (model != nullptr) files.append(course.absolutePath() + "/" + QString::fromStdString(model->file));
  }
  files.removeDuplicates();
  return files;
}

QList<QDateTime> times_of(const QStringList& files) {
  QList<QDateTime> times;
  for (const QString& file : files) times.append(QFileInfo(file).lastModified());
  return times;
}

}  // namespace

CourseWatch::CourseWatch(QObject* parent) : QObject(parent) {
  settled_.setSingleShot(true);
  settled_.setInterval(kSettled);
  connect(&settled_, &QTimer::timeout, this, &CourseWatch::look);
  connect(&watcher_, &QFileSystemWatcher::fileChanged, &settled_, qOverload<>(&QTimer::start));
  connect(&watcher_, &QFileSystemWatcher::directoryChanged, &settled_, qOverload<>(&QTimer::start));
}

void CourseWatch::follow(const Place& place) {
  const QStringList watched = watcher_.files() + watcher_.directories();
  if (!watched.isEmpty()) watcher_.removePaths(watched);
  course_file_ = QString::fromStdString(place.path);
  files_ = files_of(place);
  written_ = times_of(files_);
  QStringList all = files_;
  for (const QString& file : files_) all.append(QFileInfo(file).absolutePath());  // For atomic writers.
  all.removeDuplicates();
  watcher_.addPaths(all);
}

void CourseWatch::put_off() {
  written_.clear();
  settled_.start();
}

// In the folder there are other files too.
void CourseWatch::look() {
  for (const QString& file : files_) {
    if (!QFileInfo::exists(file)) return;  // It may be just being put in its place.
    if (!watcher_.files().contains(file)) watcher_.addPath(file);
  }
  const QList<QDateTime> now = times_of(files_);
  if (std::exchange(written_, now) != now) emit changed(course_file_);
}

}  // namespace lagniappe::app
