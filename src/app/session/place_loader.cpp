// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/place_loader.h"

#include <QThreadPool>

#include "lagniappe/files.h"

namespace lagniappe::app {

PlaceLoader::PlaceLoader(QObject* parent) : QObject(parent) {}

PlaceLoader::~PlaceLoader() {
  ++*newest_;
  QThreadPool::globalInstance()->waitForDone();
}

void PlaceLoader::cancel() {
  if (!busy_) return;
  ++*newest_;
  busy_ = false;
  emit cancelled();
}

void PlaceLoader::load(const QString& path) {
  const int number = ++*newest_;
  busy_ = true;
  emit stage(tr("Reading %1").arg(path));
  // The job owns what it works on and looks between its stages whether it is still wanted.
  QThreadPool::globalInstance()->start([this, number, newest = newest_, path] {
    auto course = read_course(path.toStdString());
    if (*newest != number) return;
    if (!course) {
      const QString sentence = QString::fromStdString(course.error().sentence());
      QMetaObject::invokeMethod(
          this, [=, this] { finish(number, nullptr, path, sentence); }, Qt::QueuedConnection);
      return;
    }
    QMetaObject::invokeMethod(
        this,
        [=, this] {
          if (*newest == number) emit stage(tr("Building the world of %1").arg(path));
        },
        Qt::QueuedConnection);
    TriangleWorld world = build_world(*course);
    if (*newest != number) return;
    SceneMesh drawn = scene_mesh(*course, world);
    if (*newest != number) return;
    auto place = std::make_shared<const Place>(
        Place{path.toStdString(), std::move(*course), std::move(world), std::move(drawn)});
    QMetaObject::invokeMethod(
        this, [=, this] { finish(number, place, path, {}); }, Qt::QueuedConnection);
  });
}

void PlaceLoader::finish(int number, const std::shared_ptr<const Place>& place, const QString& path,
                         const QString& sentence) {
  if (*newest_ != number) return;
  busy_ = false;
  if (place) {
    emit loaded(place);
  } else {
    emit failed(path, sentence);
  }
}

}  // namespace lagniappe::app
