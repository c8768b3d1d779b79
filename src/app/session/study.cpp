// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/study.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QRegularExpression>
#include <algorithm>

#include "lagniappe/files.h"

namespace lagniappe::app {
namespace {

constexpr int kLongestSlug = 60;
constexpr int kMostNames = 10'000;
const char* const kAside = "put-aside";

// "Sluice stairs, sprint, 12 s" as part of a file name.
QString slug(const std::string& name) {
  QString text = QString::fromStdString(name).toLower();
  text.replace(QRegularExpression("[^a-z0-9.]+"), "-");
  while (text.endsWith('-') || text.endsWith('.')) text.chop(1);
  return text.left(kLongestSlug);
}

QString stem_of(const TakeAbout& about) {
  const QString when = QDateTime::fromString(QString::fromStdString(about.recorded), Qt::ISODate)
                           .toLocalTime()
                           .toString("yyyy-MM-dd-HHmmss");
  return when + "-" + slug(about.name);
}

// Holds a name against every other program by an empty file, which the take then takes the place of. Where that
// fails the folder cannot be written, and saving will say so.
bool is_taken_by_another(const QString& path) {
  QFile file(path);
  return !file.open(QIODevice::WriteOnly | QIODevice::NewOnly) && QFile::exists(path);
}

}  // namespace

Study::Study(const QString& folder, QObject* parent) : QObject(parent), folder_(QDir(folder).absolutePath()) {
  thread_.setMaxThreadCount(1);
  for (const char* part : {"courses", "profiles", "takes", "trials"}) {
    QDir(folder_).mkpath(part);
    remove_left_temporaries((folder_ + "/" + part).toStdString());
  }
  refresh();
}

Study::~Study() { thread_.waitForDone(); }

void Study::wait() {
  thread_.waitForDone();
  QCoreApplication::sendPostedEvents(this);  // What was saved is heard of.
}

Study::Entry Study::entry_of(const QString& file) const {
  for (const auto& [number, job] : waiting_)
    if (job.file == file) return {file, job.about, {}};
  for (const Job& job : unsaved_)
    if (job.file == file) return {file, job.about, tr("not saved yet")};
  const auto about = read_take_about(file.toStdString());
  return about ? Entry{file, *about, {}} : Entry{file, {}, QString::fromStdString(about.error().sentence())};
}

void Study::refresh() {
  entries_.clear();
  for (const QFileInfo& info : QDir(takes_folder()).entryInfoList({"*.take"}, QDir::Files))
    entries_.push_back(entry_of(info.absoluteFilePath()));
  const auto add = [this](const QString& file) {
    if (find(file) == nullptr) entries_.push_back(entry_of(file));
  };
  for (const auto& [number, job] : waiting_) add(job.file);
  for (const Job& job : unsaved_) add(job.file);
  std::stable_sort(entries_.begin(), entries_.end(),
                   [](const Entry& a, const Entry& b) { return a.about.recorded > b.about.recorded; });
  emit changed();
}

const Study::Entry* Study::find(const QString& file) const {
  const auto found =
      std::find_if(entries_.begin(), entries_.end(), [&](const Entry& e) { return e.file == file; });
  return found == entries_.end() ? nullptr : &*found;
}

void Study::write(const Job& job) {
  ++under_way_;
  const int number = ++jobs_;
  waiting_[number] = job;
  thread_.start([this, job, number] {
    const Result<std::string> content = job.bytes();
    const Result<void> done =
        content ? write_file(job.file.toStdString(), *content) : Result<void>(refuse(content.error()));
    const QString sentence = done ? QString() : QString::fromStdString(done.error().sentence());
    QMetaObject::invokeMethod(
        this,
        [this, job, number, sentence] {
          waiting_.erase(number);
          written(job, sentence);
        },
        Qt::QueuedConnection);
  });
}

void Study::written(const Job& job, const QString& sentence) {
  --under_way_;
  if (sentence.isEmpty()) {
    emit saved(job.file);
  } else {
    unsaved_.push_back(job);
    emit failed(sentence);
  }
  put_aside_what_is_due();
  refresh();
}

void Study::save_again() {
  for (const Job& job : std::exchange(unsaved_, {})) write(job);
}

QStringList Study::unsaved_names() const {
  QStringList names;
  for (const Job& job : unsaved_) {
    const QString name = QString::fromStdString(job.about.name);
    if (!names.contains(name)) names.append(name);
  }
  return names;
}

QString Study::save_elsewhere(const QString& folder) {
  std::vector<Job> left;
  QString wrong;
  for (const Job& job : std::exchange(unsaved_, {})) {
    const Result<std::string> content = job.bytes();
    const std::string path = QDir(folder).filePath(QFileInfo(job.file).fileName()).toStdString();
    const Result<void> done = content ? write_file(path, *content) : Result<void>(refuse(content.error()));
    if (done) continue;
    left.push_back(job);
    if (wrong.isEmpty()) wrong = QString::fromStdString(done.error().sentence());
  }
  unsaved_ = std::move(left);
  refresh();
  return wrong;
}

void Study::give_up_unsaved() {
  for (const Job& job : std::exchange(unsaved_, {})) {
    if (QFileInfo(job.file).size() == 0) QFile::remove(job.file);  // The name that was held for it.
  }
}

// One that was put aside may come back: its name is not free.
QString Study::unused_name(const QString& stem) const {
  const QDir folder(takes_folder());
  for (int i = 1; i < kMostNames; ++i) {
    const QString name = i == 1 ? stem + ".take" : QString("%1-%2.take").arg(stem).arg(i);
    const QString path = folder.filePath(name);
    if (folder.exists(QString(kAside) + "/" + name) || find(path) != nullptr) continue;
    if (!is_taken_by_another(path)) return path;
  }
  return folder.filePath(stem + ".take");
}

QString Study::save(Take take) {
  const QString file = unused_name(stem_of(take.about));
  entries_.insert(entries_.begin(), Entry{file, take.about, {}});
  const TakeAbout about = take.about;
  write({file, about, [take = std::move(take)]() -> Result<std::string> { return take_bytes(take); }});
  emit changed();
  return file;
}

void Study::set_about(const QString& file, const TakeAbout& about) {
  for (Entry& entry : entries_) {
    if (entry.file == file) entry.about = about;
  }
  write({file, about, [file, about]() -> Result<std::string> {
           auto take = read_take(file.toStdString());
           if (!take) return refuse(take.error());
           take->about = about;
           return take_bytes(*take);
         }});
  emit changed();
}

bool Study::put_aside(const QString& file) {
  wait();
  std::erase_if(due_aside_, [&](const Aside& aside) { return aside.file == file; });
  QDir folder(takes_folder());
  folder.mkpath(kAside);
  const QFileInfo info(file);
  QString to = folder.filePath(QString(kAside) + "/" + info.fileName());
  for (int i = 2; QFile::exists(to); ++i)
    to = folder.filePath(QString("%1/%2-%3.take").arg(kAside, info.completeBaseName()).arg(i));
  const bool moved = QFile::rename(file, to);
  if (moved) aside_[file] = to;
  if (!moved) emit failed(tr("%1 could not be put aside").arg(info.fileName()));
  refresh();
  return moved;
}

bool Study::put_back(const QString& file) {
  std::erase_if(due_aside_, [&](const Aside& aside) { return aside.file == file; });
  const auto found = aside_.find(file);
  if (found == aside_.end()) return true;  // It is where it was.
  const bool moved = QFile::rename(found->second, file);
  if (moved) aside_.erase(found);
  if (!moved) emit failed(tr("%1 could not be had back").arg(QFileInfo(file).fileName()));
  refresh();
  return moved;
}

std::size_t Study::aside_count() const {
  return std::size_t(QDir(takes_folder() + "/" + kAside).entryList({"*.take"}, QDir::Files).size());
}

std::vector<Study::Entry> Study::aside() const {
  std::vector<Entry> entries;
  for (const QFileInfo& info : QDir(takes_folder() + "/" + kAside).entryInfoList({"*.take"}, QDir::Files))
    entries.push_back(entry_of(info.absoluteFilePath()));
  std::stable_sort(entries.begin(), entries.end(),
                   [](const Entry& a, const Entry& b) { return a.about.recorded > b.about.recorded; });
  return entries;
}

// Where it was, if that is free.
QString Study::bring_back(const QString& aside) {
  for (const auto& [file, lies] : std::map(aside_)) {
    if (lies == aside && !QFile::exists(file)) return put_back(file) ? file : QString();
  }
  const QFileInfo info(aside);
  QString to = takes_folder() + "/" + info.fileName();
  for (int i = 2; QFile::exists(to); ++i)
    to = QString("%1/%2-%3.take").arg(takes_folder(), info.completeBaseName()).arg(i);
  const bool moved = QFile::rename(aside, to);
  if (!moved) emit failed(tr("%1 could not be had back").arg(info.fileName()));
  refresh();
  return moved ? to : QString();
}

void Study::put_aside_once_saved(const QString& file, const QStringList& parts) {
  due_aside_.push_back({file, parts});
  put_aside_what_is_due();
}

bool Study::is_waiting(const QString& file) const {
  return std::any_of(waiting_.begin(), waiting_.end(), [&](const auto& w) { return w.second.file == file; }) ||
         std::any_of(unsaved_.begin(), unsaved_.end(), [&](const Job& job) { return job.file == file; });
}

void Study::put_aside_what_is_due() {
  const auto is_due = [this](const Aside& aside) {
    return std::none_of(aside.parts.begin(), aside.parts.end(),
                        [this](const QString& part) { return is_waiting(part); });
  };
  std::vector<Aside> due;
  std::copy_if(due_aside_.begin(), due_aside_.end(), std::back_inserter(due), is_due);
  std::erase_if(due_aside_, is_due);
  for (const Aside& aside : due) put_aside(aside.file);
}

}  // namespace lagniappe::app
