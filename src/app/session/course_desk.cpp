// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/course_desk.h"

#include <QFileInfo>

#include "lagniappe/files.h"

namespace lagniappe::app {
namespace {

// What can be changed here, as text.
std::string rows_of(const Course& course) {
  std::string rows;
  for (const CourseList list : {CourseList::Fields, CourseList::Zones}) {
    for (std::size_t i = 0; i < row_count(course, list); ++i) rows += row_text(course, list, i) + "\n";
    rows += "\n";
  }
  return rows;
}

struct CourseFile {
  std::string text, folder;
};
Result<CourseFile> read_file(const std::string& path) {
  QFile file(QString::fromStdString(path));
  if (!file.open(QIODevice::ReadOnly))
    return refuse({path, "the file", file.errorString().toStdString() + ": it cannot be read any more"});
  return CourseFile{file.readAll().toStdString(), QFileInfo(file).path().toStdString()};
}

// Into the file as it is now: what else changed there stays. Where its own rows are not those that were changed
// here (as under a take of another day), it is refused: what somebody made would be gone.
Result<void> write_rows(const Course& course, const std::string& path, const std::string& changed_rows) {
  const auto file = read_file(path);
  if (!file) return refuse(file.error());
  const auto now = parse_course(file->text, path, file->folder);
  if (now && rows_of(*now) != changed_rows)
    return refuse({path, "/fields, /zones",
                   "they are not those that were changed here: open the course first, the changes stay"});
  return course_text(course, file->text, path, file->folder).and_then([&](const std::string& text) {
    return write_file(path, text);
  });
}

// A name in the folder that no file has.
QString free_file(const QString& folder, const std::string& path) {
  const QString name = QFileInfo(QString::fromStdString(path)).fileName();
  QString file = folder + "/unsaved-" + name;
  for (int n = 2; QFileInfo::exists(file); ++n) file = folder + QString("/unsaved-%1-%2").arg(n).arg(name);
  return file;
}

}  // namespace

CourseDesk::CourseDesk(DriveSession& session, Undo& undo, QObject* parent)
    : QObject(parent), session_(session), undo_(undo) {}

void CourseDesk::refresh() {
  const auto place = session_.shared_place();
  if (place == shown_) return;
  begin(place);
}

void CourseDesk::begin(const std::shared_ptr<const Place>& place) {
  const bool same_file = place != nullptr && place->path == path_;
  // What is edited has come to be shown: nothing else changes.
  const bool arrived = same_file && edited_ != nullptr && place->identity == edited_->identity;
  shown_ = place;
  if (arrived) {
    edited_.reset();
    return;
  }
  if (!same_file) {
    if (!path_.empty() && !is_saved()) kept_[path_] = {course_, saved_rows_};
    undo_.end(era_);
    path_ = place ? place->path : std::string();
  }
  const bool goes_on = same_file && !is_saved();
  // Who opens a file has seen it; what comes by itself is not taken for seen.
  if (place && !(goes_on && place == from_watch_)) saved_rows_ = rows_of(place->course);
  if (place && !goes_on) {
    course_ = place->course;
    rows_ = saved_rows_;
  }
  edited_.reset();
  job_.give_up();
  if (const auto kept = kept_.find(path_); kept != kept_.end()) {
    Course was = std::move(kept->second.course);
    kept_.erase(kept);
    set(was);
  } else {
    goes_on ? set(course_) : void(++edition_);
  }
  emit changed();
}

bool CourseDesk::take_file(const std::shared_ptr<const Place>& place) {
  if (!shown_ || place->path != path_) return false;
  // What is changed here was changed from other rows than these now are: Save says so, and writes nothing.
  const bool same = place->identity == (edited_ ? edited_ : shown_)->identity, follows = is_saved();
  const std::string in_file = rows_of(place->course);
  if (!follows) from_watch_ = place;
  if (follows && rows_ != in_file) {
    job_.give_up();
    undo_.end(era_);
    course_ = place->course;
    rows_ = saved_rows_ = in_file;
    edited_ = place->identity != shown_->identity ? place : nullptr;
    ++edition_;
  }
  emit changed();
  return same;
}

// Of the file that is shown now everything else is kept: only rows are edited.
void CourseDesk::set(const Course& course) {
  if (!shown_) return;
  Course next = shown_->course;
  next.fields = course.fields;
  next.zones = course.zones;
  course_ = std::move(next);
  rows_ = rows_of(course_);
  ++edition_;
  make_place_of_it();
  emit changed();
}

void CourseDesk::take(const Course& course, const QString& what, int gesture) {
  const auto set_rows = [this](const Course& to) { set(to); };
  undo_.swap(what, set_rows, course, course_, {&era_, gesture});
}

bool CourseDesk::set_row(CourseList list, std::size_t index, const QByteArray& row, const QString& what,
                         int gesture) {
  if (!shown_) return false;
  const auto changed = with_row(course_, list, index, row.toStdString());
  if (!changed) {
    emit refused(tr("It stays as it was"), QString::fromStdString(changed.error().sentence()));
    return false;
  }
  if (rows_of(*changed) != rows_) take(*changed, what, gesture);
  return true;
}

void CourseDesk::remove_row(CourseList list, std::size_t index) {
  if (!shown_ || index >= row_count(course_, list)) return;
  const QString what = list == CourseList::Fields ? tr("remove a field") : tr("remove a zone");
  take(without_row(course_, list, index), what, 0);
}

QString CourseDesk::free_name(CourseList list, const QString& stem) const {
  const auto taken = [&](const QString& name) {
    const auto has = [&](const auto& rows) {
      return std::any_of(rows.begin(), rows.end(),
                         [&](const auto& row) { return row.id == name.toStdString(); });
    };
    return list == CourseList::Fields ? has(course_.fields) : has(course_.zones);
  };
  QString name = stem;
  for (int n = 2; taken(name); ++n) name = QString("%1 %2").arg(stem).arg(n);
  return name;
}

void CourseDesk::make_place_of_it() {
  edited_.reset();
  job_.start([this, course = course_, path = path_](const NewestJob::Handle& handle) {
    const auto place = make_place(path, course, [&] { return handle.wanted(); });
    if (!place) return;
    handle.finish([this, place] {
      edited_ = shown_ && place->identity != shown_->identity ? place : nullptr;
      emit place_made(place);
    });
  });
}

bool CourseDesk::can_save() const {
  return shown_ != nullptr && QString::fromStdString(path_).endsWith(".json") &&
         QFileInfo::exists(QString::fromStdString(path_));
}

QStringList CourseDesk::unsaved() const {
  QStringList names;
  const auto add = [&](const std::string& path) {
    names += QFileInfo(QString::fromStdString(path)).fileName();
  };
  if (!is_saved()) add(path_);
  for (const auto& [path, kept] : kept_) add(path);
  return names;
}

Result<void> CourseDesk::save() {
  const auto written = write_rows(course_, path_, saved_rows_);
  if (!written) return written;
  saved_rows_ = rows_;
  emit changed();
  return {};
}

Result<void> CourseDesk::save_as(const std::string& path) {
  if (QFileInfo(QString::fromStdString(path)) == QFileInfo(QString::fromStdString(path_))) return save();
  const auto file = read_file(path_);
  if (!file) return refuse(file.error());
  const auto text = course_text(course_, file->text, path_, file->folder);
  if (!text) return refuse(text.error());
  const std::string folder = QFileInfo(QString::fromStdString(path)).path().toStdString();
  if (const auto there = parse_course(*text, path, folder); !there) return refuse(there.error());
  if (const auto written = write_file(path, *text); !written) return written;
  kept_.erase(path);  // What was changed of that file before is written over with it.
  saved_rows_ = rows_;
  emit changed();
  return {};
}

Result<void> CourseDesk::save_all() {
  if (!is_saved()) {
    if (const auto written = save(); !written) return written;
  }
  while (!kept_.empty()) {
    const auto& [path, kept] = *kept_.begin();
    if (const auto written = write_rows(kept.course, path, kept.saved_rows); !written) return written;
    kept_.erase(kept_.begin());
  }
  return {};
}

QStringList CourseDesk::rescue(const QString& folder) const {
  QStringList written;
  const auto keep = [&](const Course& course, const std::string& path) {
    const QString to = free_file(folder, path);
    const auto kept =
        read_file(path)
            .and_then([&](const CourseFile& file) { return course_text(course, file.text, path, file.folder); })
            .and_then([&](const std::string& text) { return write_file(to.toStdString(), text); });
    if (kept) written += to;
  };
  if (!is_saved()) keep(course_, path_);
  for (const auto& [path, kept] : kept_) keep(kept.course, path);
  return written;
}

void CourseDesk::give_up_unsaved() {
  kept_.clear();
  saved_rows_ = rows_;
}

}  // namespace lagniappe::app
