// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/handling_desk.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <algorithm>

#include "lagniappe/files.h"
#include "lagniappe/profile_fields.h"
#include "lagniappe/states.h"
#include "session/patiently.h"

namespace lagniappe::app {
namespace {

constexpr int kSettle = 150;        // ms until a file that changed is read: writers need a moment.
constexpr int kKeepUnsaved = 1500;  // ms after the last change.
constexpr std::size_t kMostSnapshots = 60;
const char* const kTimeFormat = "yyyy-MM-dd'T'HH-mm-ss-zzz";

// "sluice_keeper.profile.json" is called "Sluice keeper".
QString name_of(const QString& file) {
  QString name = QFileInfo(file).fileName().section('.', 0, 0).replace('_', ' ');
  if (name.isEmpty()) return file;
  name[0] = name[0].toUpper();
  return name;
}

// The values of `onto` that differ between two profiles become those of the second.
Profile with_changes(Profile onto, const Profile& from, const Profile& to) {
  for (const ProfileField& f : profile_fields()) {
    if (f.get(from) != f.get(to)) f.set(onto, f.get(to));
  }
  for (const ProfileCurve& f : profile_curves()) {
    if (value_text(from, path_of(f.section, f.key)) != value_text(to, path_of(f.section, f.key)))
      f.curve(onto) = f.get(to);
  }
  for (const ProfileChoice& f : profile_choices()) {
    if (f.get(from) != f.get(to)) f.set(onto, f.get(to));
  }
  if (chart_of(from).table() != chart_of(to).table()) onto.states = to.states;
  if (from.notes != to.notes) onto.notes = to.notes;
  if (from.name != to.name) onto.name = to.name;
  return onto;
}

}  // namespace

HandlingDesk::HandlingDesk(TakeDesk& desk, DriveSession& session, Undo& undo, const QString& folder,
                           QObject* parent)
    : ValuesDesk(parent),
      desk_(desk),
      session_(session),
      undo_(undo),
      folder_(folder + "/snapshots"),
      unsaved_(folder_) {
  QDir().mkpath(folder_);
  remove_left_temporaries(folder_.toStdString());
  read_snapshots();
  writer_.setMaxThreadCount(1);
  reload_.setSingleShot(true);
  reload_.setInterval(kSettle);
  keep_.setSingleShot(true);
  keep_.setInterval(kKeepUnsaved);
  connect(&reload_, &QTimer::timeout, this, &HandlingDesk::file_changed);
  connect(&keep_, &QTimer::timeout, this, &HandlingDesk::keep_unsaved);
  connect(&watcher_, &QFileSystemWatcher::fileChanged, &reload_, qOverload<>(&QTimer::start));
  connect(&watcher_, &QFileSystemWatcher::directoryChanged, &reload_, qOverload<>(&QTimer::start));
  connect(&desk_, &TakeDesk::values_changed, this, [this] {
    keep_.start();
    values_moved();
  });
  connect(&desk_, &TakeDesk::shown_changed, this, &HandlingDesk::values_moved);
}

HandlingDesk::~HandlingDesk() {
  stop_feeling();
  keep_unsaved();
  writer_.waitForDone();
}

bool HandlingDesk::set(const Profile& profile, const QString& what, int gesture) {
  stop_feeling();
  const auto fits = checked(profile, now().states.get());
  if (!fits) {
    if (gesture == 0)
      emit refused(tr("%1 stays as it was").arg(what), QString::fromStdString(fits.error().what));
    emit changed();
    return false;
  }
  snapshot_before_change();
  // What a profile is called belongs to its file, not to its values: saving as another is not taken back.
  const auto take = [this](Profile values) {
    values.name = session_.profile().name;
    desk_.try_profile(values);
  };
  undo_.swap(what, take, *fits, session_.profile(), {&desk_.values_era(), gesture});
  return true;
}

void HandlingDesk::feel(double factor) {
  const ProfileField* field = find_field(attended().toStdString());
  if (feeling_) return;
  if (field == nullptr)
    return emit refused(tr("There is no value to feel"),
                        tr("The keys act on the value in the cards that was touched last."));
  before_feeling_ = session_.profile();
  Profile extreme = before_feeling_;
  field->set_typed(extreme, std::clamp(field->typed(extreme) * factor, field->low, field->high));
  const auto fits = checked(extreme, extreme.states.get());
  if (!fits)
    return emit refused(tr("%1 cannot be felt that far").arg(attended()),
                        QString::fromStdString(fits.error().what));
  feeling_ = true;
  desk_.try_profile(*fits);
}

void HandlingDesk::stop_feeling() {
  if (!std::exchange(feeling_, false)) return;
  desk_.try_profile(before_feeling_);
}

void HandlingDesk::open(const QString& file, const Profile& profile) {
  stop_feeling();
  desk_.begin_profile(profile);
  follow(file, profile);
}

void HandlingDesk::take_over() {
  if (!session_.has_shown()) return;
  stop_feeling();
  snapshot_before_change();
  const Profile& profile = session_.shown().take.profile;
  struct Opened {
    Profile values;
    QString file;
    Profile saved;
  };
  const auto take = [this](const Opened& opened) {
    follow(opened.file, opened.saved);
    desk_.try_profile(opened.values);
  };
  undo_.swap(tr("take over the values of a take"), take, Opened{profile, {}, profile},
             Opened{session_.profile(), file_, saved_}, {&desk_.values_era()});
}

void HandlingDesk::values_moved() {
  differs_ = session_.has_shown() && identity_of(session_.shown().take.profile) != identity_of(now());
  emit changed();
}

void HandlingDesk::follow(const QString& file, const Profile& profile) {
  file_ = file.isEmpty() ? QString() : QFileInfo(file).absoluteFilePath();
  saved_ = profile;
  session_.set_profile_file(file_.toStdString());
  watch();
  emit changed();
}

// What stands in the open file now: nothing where there is none. One that is there and cannot be read, or is no
// profile any more, is not written over: what somebody is at work on there would be lost.
Result<std::optional<HandlingDesk::Written>> HandlingDesk::present() const {
  if (file_.isEmpty() || !QFileInfo::exists(file_)) return std::optional<Written>();
  const std::string path = file_.toStdString();
  QFile file(file_);
  if (!file.open(QIODevice::ReadOnly))
    return refuse(
        {path, "the file", "it cannot be read, and is not written over: " + file.errorString().toStdString()});
  std::string text = file.readAll().toStdString();
  const auto profile = parse_profile(text, path);
  if (!profile) return refuse(profile.error());
  return std::optional(Written{std::move(text), *profile});
}

// What was changed there and what was changed here come together; where both changed one value, ours stands.
bool HandlingDesk::take_in(const Profile& on_disk) {
  const QString name = QFileInfo(file_).fileName();
  const auto count = differences(saved_, on_disk).size();
  const Profile merged = with_changes(on_disk, saved_, now());
  const bool other = count > 0 || on_disk.notes != saved_.notes;
  if (other && !set(merged, tr("%1 on the disk").arg(name))) return false;
  rename(merged.name);
  saved_ = on_disk;
  emit changed();
  if (count > 0)
    emit remark(tr("%1 changed on the disk").arg(name),
                (count == 1 ? tr("1 value was taken over") : tr("%1 values were taken over").arg(count)) +
                    tr("; where you had changed one too, yours stays."));
  return true;
}

// What a profile is called is no value: no step of undo.
void HandlingDesk::rename(const std::string& name) {
  if (name == now().name) return;
  Profile profile = now();
  profile.name = name;
  desk_.try_profile(profile);
}

bool HandlingDesk::save_as(const QString& file) {
  stop_feeling();
  const bool other = QFileInfo(file).absoluteFilePath() != file_;
  const auto there = present();
  if (!other && there && *there && !take_in((*there)->profile)) return false;
  Profile profile = now();
  // Another file is another profile, called as its file is.
  if (other && !file_.isEmpty() && profile.name == saved_.name) profile.name = name_of(file).toStdString();
  // The text of the present file is what is changed, for its own sake or as a copy.
  Result<std::string> next = there && *there  ? profile_text(profile, (*there)->text, file_.toStdString())
                             : there || other ? profile_text(profile)
                                              : Result<std::string>(refuse(there.error()));
  saving_ = true;
  const auto written =
      next ? patiently([path = file.toStdString(), text = *next] { return write_file(path, text); })
           : Result<void>(refuse(next.error()));
  saving_ = false;
  if (!written) {
    emit remark(tr("The profile was not saved"), QString::fromStdString(written.error().sentence()));
    return false;
  }
  writer_.start([this] { unsaved_.clear(); });
  rename(profile.name);
  follow(file, profile);
  return true;
}

void HandlingDesk::set_note(const QString& path, const QString& note) {
  Profile profile = now();
  if (note.trimmed().isEmpty()) {
    profile.notes.erase(path.toStdString());
  } else {
    profile.notes[path.toStdString()] = note.trimmed().toStdString();
  }
  set(profile, tr("note on %1").arg(path));
}

void HandlingDesk::set_reference(const Profile& profile, const QString& name) {
  reference_ = profile;
  reference_name_ = name;
  emit changed();
}

void HandlingDesk::clear_reference() {
  reference_.reset();
  emit changed();
}

void HandlingDesk::snapshot_before_change() {
  const QDateTime now_time = QDateTime::currentDateTime();
  const bool recent = !snapshots_.empty() && snapshots_.front().at.secsTo(now_time) < snapshot_every_;
  if (!recent) add_snapshot(tr("as it was at %1").arg(now_time.toString("HH:mm")), now());
}

void HandlingDesk::keep_snapshot(const QString& name) {
  add_snapshot(name.isEmpty() ? tr("kept at %1").arg(QDateTime::currentDateTime().toString("HH:mm")) : name,
               now());
}

void HandlingDesk::add_snapshot(const QString& name, const Profile& profile) {
  const auto [file, at] = unused_snapshot(QDateTime::currentDateTime());
  Profile named = profile;
  named.name = name.toStdString();
  write_later(file, named);
  snapshots_.insert(snapshots_.begin(), {name, at, profile, file});
  while (snapshots_.size() > kMostSnapshots) {
    QFile::remove(snapshots_.back().file);
    snapshots_.pop_back();
  }
  emit snapshots_changed();
}

// Held by an empty file, so that two windows on one study never mean the same.
std::pair<QString, QDateTime> HandlingDesk::unused_snapshot(QDateTime at) const {
  for (;; at = at.addMSecs(1)) {
    const QString path = folder_ + "/" + at.toString(kTimeFormat) + ".profile.json";
    QFile file(path);
    if (file.open(QIODevice::WriteOnly | QIODevice::NewOnly) || !QFile::exists(path)) return {path, at};
  }
}

void HandlingDesk::read_snapshots() {
  for (const QString& left : UnsavedValues::left_behind(folder_)) {
    // From now on it is a snapshot like any other.
    const auto [kept, at] = unused_snapshot(QFileInfo(left).lastModified());
    auto profile = read_profile(left.toStdString());
    if (profile) {
      profile->name = tr("not saved when Lagniappe ended, %1").arg(at.toString("d MMM HH:mm")).toStdString();
      if (const auto text = profile_text(*profile)) (void)write_file(kept.toStdString(), *text);
      left_unsaved_ = true;
    } else {
      QFile::remove(kept);
    }
    UnsavedValues::remove(left);
  }
  for (const QFileInfo& info : QDir(folder_).entryInfoList({"*.profile.json"}, QDir::Files, QDir::Name)) {
    const QDateTime at = QDateTime::fromString(info.fileName().section('.', 0, 0), kTimeFormat);
    const auto profile =
        at.isValid() ? read_profile(info.filePath().toStdString()) : Result<Profile>(refuse({}));
    if (!profile) continue;
    const QString name = QString::fromStdString(profile->name);
    snapshots_.insert(
        snapshots_.begin(),
        {name.startsWith(tr("not saved when Lagniappe ended")) ? name : name + at.toString(", d MMM"), at,
         *profile, info.filePath()});
  }
  std::stable_sort(snapshots_.begin(), snapshots_.end(),
                   [](const Snapshot& a, const Snapshot& b) { return a.at > b.at; });
}

void HandlingDesk::go_back_to(std::size_t n) {
  if (n >= snapshots_.size()) return;
  Profile profile = snapshots_[n].profile;
  profile.name = now().name;
  set(profile, snapshots_[n].name);
}

void HandlingDesk::keep_unsaved() {
  if (is_saved()) return writer_.start([this] { unsaved_.clear(); });
  if (const auto text = profile_text(now())) writer_.start([this, text = *text] { unsaved_.keep(text); });
}

// What nobody waits for is written on a thread: a slow disk is felt as hitches else.
void HandlingDesk::write_later(const QString& file, const Profile& profile) {
  const auto text = profile_text(profile);
  if (text) writer_.start([path = file.toStdString(), text = *text] { (void)write_file(path, text); });
}

void HandlingDesk::watch() {
  if (!watcher_.files().isEmpty()) watcher_.removePaths(watcher_.files());
  if (!watcher_.directories().isEmpty()) watcher_.removePaths(watcher_.directories());
  if (file_.isEmpty()) return;
  watcher_.addPath(file_);
  watcher_.addPath(QFileInfo(file_).absolutePath());  // Atomic writers put another file in its place.
}

void HandlingDesk::file_changed() {
  if (saving_) return reload_.start();  // That is us.
  if (file_.isEmpty() || !QFileInfo::exists(file_)) return;
  if (!watcher_.files().contains(file_)) watcher_.addPath(file_);
  const auto profile = read_profile(file_.toStdString());
  const QString name = QFileInfo(file_).fileName();
  if (!profile) {
    emit remark(tr("%1 changed on the disk and cannot be read; the values stay as they are").arg(name),
                QString::fromStdString(profile.error().sentence()));
    return;
  }
  const bool same =
      differences(saved_, *profile).empty() && profile->notes == saved_.notes && profile->name == saved_.name;
  if (!same) (void)take_in(*profile);
}

}  // namespace lagniappe::app
