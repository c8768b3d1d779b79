// SPDX-License-Identifier: GPL-3.0-or-later
#include "pages/opener.h"

#include <QFileInfo>
#include <QMenu>

#include "lagniappe/files.h"
#include "theme/plain_tip.h"

namespace lagniappe::app {
namespace {

constexpr int kMostRecent = 8;
constexpr qint64 kLargestProfile = 1 << 20;
const char* const kRecentKey = "recent";

}  // namespace

QString remark_on(const Course& course) {
  if (course.starts_in_flight)
    return Opener::tr(
        "No place was found where a character can stand, so it begins in free flight above. In glTF "
        "an empty node named \u201cstart\u201d says where to begin.");
  if (course.dropped_triangles == 0) return {};
  return Opener::tr("%n triangles without area or with bad numbers were left out.", nullptr,
                    int(course.dropped_triangles));
}

Opener::Opener(DriveSession& session, HandlingDesk& handling, QSettings& settings, QObject* parent)
    : QObject(parent), session_(session), handling_(handling), settings_(settings) {
  connect(&loader_, &PlaceLoader::loaded, this, &Opener::take_place);
  connect(&loader_, &PlaceLoader::take_loaded, this,
          [this](const std::shared_ptr<Recording>& recording, const QString& verdict, const QString& path) {
            const bool pins = std::exchange(load_for_, LoadFor::Showing) == LoadFor::Pin;
            pins ? emit pin_asked(recording) : emit take_opened(recording, verdict, path);
          });
  connect(&loader_, &PlaceLoader::take_damaged, this, &Opener::damaged);
  connect(&loader_, &PlaceLoader::failed, this, &Opener::fail);
  connect(&loader_, &PlaceLoader::cancelled, this, [this] {
    load_for_ = LoadFor::Showing;
    waiting_inputs_.clear();
    emit settled();
  });
  connect(&watch_, &CourseWatch::changed, this, [this](const QString& path) {
    if (loader_.busy()) return watch_.put_off();  // What is being opened comes first.
    loader_.load(path);
    load_for_ = LoadFor::Changed;
  });
}

void Opener::open(const QString& path) {
  // A profile is told by its heading; anything else goes the way of courses and is explained there.
  const bool small = path.endsWith(".json") && QFileInfo(path).size() < kLargestProfile;
  const std::string kind = small ? document_kind(path.toStdString()) : "";
  if (kind == "inputs" && loader_.busy()) {
    waiting_inputs_ = path;  // For the course that is being opened.
    return;
  }
  load_for_ = LoadFor::Showing;
  if (kind == "profile") {
    emit profile_asked(path);
  } else if (path.endsWith(".scxml")) {
    emit chart_asked(path);
  } else if (kind == "inputs") {
    play_inputs(path);
  } else if (kind == "take" || path.endsWith(".take")) {
    loader_.load_take(path, session_.shared_place());
  } else {
    loader_.load(path);
  }
}

void Opener::pin_take(const QString& path) {
  loader_.load_take(path, session_.shared_place());
  load_for_ = LoadFor::Pin;
}

void Opener::retake_on(const QString& course_path) {
  loader_.load(course_path);
  load_for_ = LoadFor::Retake;
}

void Opener::recover_take(const QString& path) {
  load_for_ = LoadFor::Showing;
  loader_.load_take(path, session_.shared_place(), true);
}

void Opener::take_place(const std::shared_ptr<const Place>& place) {
  const LoadFor what = std::exchange(load_for_, LoadFor::Showing);
  if (what == LoadFor::Retake) return emit retake_asked(place);
  opened_place_ = place;
  watch_.follow(*place);
  if (what == LoadFor::Changed) return emit place_changed(place);
  remember(QString::fromStdString(place->path));
  emit place_opened(place);
  if (const QString inputs = std::exchange(waiting_inputs_, {}); !inputs.isEmpty()) play_inputs(inputs);
}

void Opener::play_inputs(const QString& path) {
  const auto place = session_.shared_place();
  if (place == nullptr) {
    emit problem(tr("%1 was not opened").arg(QFileInfo(path).fileName()),
                 tr("Inputs are played on a course: open one first."));
    return;
  }
  emit inputs_begin();
  loader_.load_inputs(path, place, handling_.now(), handling_.file().toStdString(), session_.tick_rate());
}

void Opener::fail(const QString& path, const QString& sentence) {
  waiting_inputs_.clear();  // The course that they were for is not there.
  const QString kept = session_.place() ? tr("; the course stays as it was") : QString();
  const QString title = std::exchange(load_for_, LoadFor::Showing) == LoadFor::Changed
                            ? tr("%1 changed on the disk and cannot be read%2")
                            : tr("%1 was not opened%2");
  emit problem(title.arg(QFileInfo(path).fileName(), kept), sentence);
  emit settled();
}

void Opener::remember(const QString& path) {
  QStringList recent = settings_.value(kRecentKey).toStringList();
  const QString absolute = QFileInfo(path).absoluteFilePath();
  recent.removeAll(absolute);
  recent.prepend(absolute);
  settings_.setValue(kRecentKey, recent.mid(0, kMostRecent));
}

void Opener::fill_recent(QMenu& menu) {
  menu.clear();
  const QStringList recent = settings_.value(kRecentKey).toStringList();
  for (const QString& path : recent) {
    QAction* action = menu.addAction(QFileInfo(path).fileName());
    action->setToolTip(plain_tip(path));
    connect(action, &QAction::triggered, this, [this, path] { open(path); });
  }
  if (recent.isEmpty()) menu.addAction(tr("Nothing opened yet"))->setEnabled(false);
}

QString Opener::remark_on(const Take& take, const QString& verdict) const {
  const bool other = opened_place_ != nullptr && opened_place_->path == take.course_file &&
                     opened_place_->identity != take.course_identity;
  if (!other) return verdict;
  const QString file = QFileInfo(QString::fromStdString(take.course_file)).fileName();
  const QString another = tr("%1 is another course today").arg(file);
  return verdict.isEmpty() ? another : verdict + "; " + another;
}

}  // namespace lagniappe::app
