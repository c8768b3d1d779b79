// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/study.h"

#include <QDateTime>
#include <QDir>
#include <QRegularExpression>
#include <algorithm>

#include "lagniappe/files.h"

namespace lagniappe::app {
namespace {

constexpr int kLongestSlug = 60;

// "Sluice stairs, sprint, 12 s" as part of a file name.
QString slug(const std::string& name) {
  QString text = QString::fromStdString(name).toLower();
  text.replace(QRegularExpression("[^a-z0-9.]+"), "-");
  while (text.endsWith('-') || text.endsWith('.')) text.chop(1);
  return text.left(kLongestSlug);
}

QString free_name(const QDir& folder, const QString& stem) {
  QString name = stem + ".take";
  for (int i = 2; folder.exists(name); ++i) name = QString("%1-%2.take").arg(stem).arg(i);
  return folder.filePath(name);
}

}  // namespace

Study::Study(const QString& folder, QObject* parent) : QObject(parent), folder_(QDir(folder).absolutePath()) {
  thread_.setMaxThreadCount(1);
  for (const char* part : {"courses", "profiles", "takes", "trials"}) QDir(folder_).mkpath(part);
  refresh();
}

Study::~Study() { wait(); }

void Study::wait() { thread_.waitForDone(); }

void Study::refresh() {
  entries_.clear();
  for (const QFileInfo& info : QDir(takes_folder()).entryInfoList({"*.take"}, QDir::Files)) {
    const auto about = read_take_about(info.absoluteFilePath().toStdString());
    Entry entry{info.absoluteFilePath(), {}, {}};
    if (about) {
      entry.about = *about;
    } else {
      entry.trouble = QString::fromStdString(about.error().sentence());
    }
    entries_.push_back(entry);
  }
  for (const auto& [entry, bytes] : unsaved_) {
    if (find(entry.file) == nullptr) entries_.push_back(entry);
  }
  std::stable_sort(entries_.begin(), entries_.end(),
                   [](const Entry& a, const Entry& b) { return a.about.recorded > b.about.recorded; });
  emit changed();
}

const Study::Entry* Study::find(const QString& file) const {
  const auto found =
      std::find_if(entries_.begin(), entries_.end(), [&](const Entry& e) { return e.file == file; });
  return found == entries_.end() ? nullptr : &*found;
}

void Study::write(const QString& file, const Bytes& bytes) {
  ++under_way_;
  thread_.start([this, file, bytes] {
    const Result<std::string> content = bytes();
    const Result<void> done =
        content ? write_file(file.toStdString(), *content) : Result<void>(refuse(content.error()));
    const QString sentence = done ? QString() : QString::fromStdString(done.error().sentence());
    QMetaObject::invokeMethod(
        this, [this, file, bytes, sentence] { written(file, bytes, sentence); }, Qt::QueuedConnection);
  });
}

void Study::written(const QString& file, const Bytes& bytes, const QString& sentence) {
  --under_way_;
  std::erase_if(unsaved_, [&](const auto& u) { return u.first.file == file; });
  if (sentence.isEmpty()) {
    emit saved(file);
  } else {
    const Entry* entry = find(file);
    unsaved_.emplace_back(Entry{file, entry != nullptr ? entry->about : TakeAbout{}, tr("not saved yet")},
                          bytes);
    emit failed(sentence);
  }
  refresh();
}

void Study::save_again() {
  for (const auto& [entry, bytes] : unsaved_) write(entry.file, bytes);
}

QString Study::save(Take take) {
  const QString when = QDateTime::fromString(QString::fromStdString(take.about.recorded), Qt::ISODate)
                           .toLocalTime()
                           .toString("yyyy-MM-dd-HHmmss");
  const QString file = free_name(QDir(takes_folder()), when + "-" + slug(take.about.name));
  entries_.insert(entries_.begin(), Entry{file, take.about, {}});
  write(file, [take = std::move(take)]() -> Result<std::string> { return take_bytes(take); });
  emit changed();
  return file;
}

void Study::set_about(const QString& file, const TakeAbout& about) {
  for (Entry& entry : entries_) {
    if (entry.file == file) entry.about = about;
  }
  write(file, [file, about]() -> Result<std::string> {
    auto take = read_take(file.toStdString());
    if (!take) return refuse(take.error());
    take->about = about;
    return take_bytes(*take);
  });
  emit changed();
}

QString Study::aside(const QString& file) const {
  return takes_folder() + "/put-aside/" + QFileInfo(file).fileName();
}

bool Study::put_aside(const QString& file) {
  wait();
  QDir(takes_folder()).mkpath("put-aside");
  QFile::remove(aside(file));
  const bool moved = QFile::rename(file, aside(file));
  refresh();
  return moved;
}

bool Study::put_back(const QString& file) {
  const bool moved = QFile::rename(aside(file), file);
  refresh();
  return moved;
}

}  // namespace lagniappe::app
