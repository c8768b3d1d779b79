// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/handling_desk.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <algorithm>

#include "lagniappe/files.h"
#include "lagniappe/profile_fields.h"
#include "lagniappe/states.h"

namespace lagniappe::app {
namespace {

constexpr int kSettle = 150;               // ms until a file that changed is read: writers need a moment.
constexpr int kKeepUnsaved = 1500;         // ms after the last change.
constexpr qint64 kSnapshotEvery = 5 * 60;  // s.
constexpr std::size_t kMostSnapshots = 60;
const char* const kUnsavedFile = "unsaved.profile.json";
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

HandlingDesk::HandlingDesk(TakeDesk& desk, DriveSession& session, const QString& folder, QObject* parent)
    : ValuesDesk(parent), desk_(desk), session_(session), folder_(folder + "/snapshots") {
  QDir().mkpath(folder_);
  read_snapshots();
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
    emit changed();
  });
  connect(&desk_, &TakeDesk::shown_changed, this, &HandlingDesk::go_with_take);
}

HandlingDesk::~HandlingDesk() {
  stop_feeling();
  keep_unsaved();
}

bool HandlingDesk::set(const Profile& profile, const QString& what, int gesture) {
  stop_feeling();
  const auto fits = checked(profile);
  if (!fits) {
    if (gesture == 0)
      emit refused(tr("%1 stays as it was").arg(what), QString::fromStdString(fits.error().what));
    emit changed();
    return false;
  }
  snapshot_before_change();
  desk_.set_profile(*fits, what, gesture);
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
  const auto fits = checked(extreme);
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
  const auto follow_it = [this, file, profile, old_file = file_, old = saved_](bool done) {
    done ? follow(file, profile) : follow(old_file, old);
  };
  desk_.set_profile(profile, tr("open profile %1").arg(QString::fromStdString(profile.name)), 0, follow_it);
}

void HandlingDesk::follow(const QString& file, const Profile& profile) {
  file_ = file.isEmpty() ? QString() : QFileInfo(file).absoluteFilePath();
  saved_ = profile;
  session_.set_profile_file(file_.toStdString());
  watch();
  emit changed();
}

bool HandlingDesk::save_as(const QString& file) {
  stop_feeling();
  Profile profile = now();
  // Another file is another profile, called as its file is.
  const bool other = !file_.isEmpty() && QFileInfo(file).absoluteFilePath() != file_;
  if (other && profile.name == saved_.name) profile.name = name_of(file).toStdString();
  // The text of the present file is what is changed, for its own sake or as a copy. One that was broken since
  // is not written over: what somebody is at work on there would be lost.
  QFile present(file_);
  const bool there = !file_.isEmpty() && present.open(QIODevice::ReadOnly);
  auto next = there ? profile_text(profile, present.readAll().toStdString(), file_.toStdString())
                    : profile_text(profile);
  if (!next && other) next = profile_text(profile);
  const auto written = next ? write_file(file.toStdString(), *next) : Result<void>(refuse(next.error()));
  if (!written) {
    emit refused(tr("The profile was not saved"), QString::fromStdString(written.error().sentence()));
    return false;
  }
  QFile::remove(folder_ + "/" + kUnsavedFile);
  if (profile.name != now().name) desk_.set_profile(profile, tr("name"));
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
  const bool recent = !snapshots_.empty() && snapshots_.front().at.secsTo(now_time) < kSnapshotEvery;
  if (!recent) add_snapshot(tr("as it was at %1").arg(now_time.toString("HH:mm")), now());
}

void HandlingDesk::keep_snapshot(const QString& name) {
  add_snapshot(name.isEmpty() ? tr("kept at %1").arg(QDateTime::currentDateTime().toString("HH:mm")) : name,
               now());
}

void HandlingDesk::add_snapshot(const QString& name, const Profile& profile) {
  const QDateTime at = QDateTime::currentDateTime();
  const QString file = folder_ + "/" + at.toString(kTimeFormat) + ".profile.json";
  Profile named = profile;
  named.name = name.toStdString();
  if (const auto text = profile_text(named)) (void)write_file(file.toStdString(), *text);
  snapshots_.insert(snapshots_.begin(), {name, at, profile, file});
  while (snapshots_.size() > kMostSnapshots) {
    QFile::remove(snapshots_.back().file);
    snapshots_.pop_back();
  }
  emit snapshots_changed();
}

void HandlingDesk::read_snapshots() {
  for (const QFileInfo& info : QDir(folder_).entryInfoList({"*.profile.json"}, QDir::Files, QDir::Name)) {
    const auto profile = read_profile(info.filePath().toStdString());
    if (!profile) continue;
    const QDateTime time = QDateTime::fromString(info.fileName().section('.', 0, 0), kTimeFormat);
    const bool unsaved = info.fileName() == kUnsavedFile;
    const QDateTime at = unsaved ? info.lastModified() : time;
    const QString name = unsaved ? tr("not saved when Lagniappe ended, %1").arg(at.toString("d MMM HH:mm"))
                                 : QString::fromStdString(profile->name) + at.toString(", d MMM");
    snapshots_.insert(snapshots_.begin(), {name, at, *profile, info.filePath()});
    if (!unsaved) continue;
    // From now on it is a snapshot like any other.
    const QString kept = folder_ + "/" + at.toString(kTimeFormat) + ".profile.json";
    if (QFile::rename(info.filePath(), kept)) snapshots_.front().file = kept;
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

// A take brings its profile along: saving must not write that over the file of another one.
void HandlingDesk::go_with_take() {
  const Profile& profile = session_.profile();
  if (!feeling_ && session_.has_shown() && profile.name != saved_.name) {
    const std::string& file = session_.shown().take.profile_file;
    const auto own = file.empty() ? Result<Profile>(refuse({})) : read_profile(file);
    const bool is_own = own && own->name == profile.name;
    follow(is_own ? QString::fromStdString(file) : QString(), is_own ? *own : profile);
  }
  emit changed();
}

void HandlingDesk::keep_unsaved() {
  const QString file = folder_ + "/" + kUnsavedFile;
  if (is_saved()) {
    QFile::remove(file);
  } else if (const auto text = profile_text(now())) {
    (void)write_file(file.toStdString(), *text);
  }
}

void HandlingDesk::watch() {
  if (!watcher_.files().isEmpty()) watcher_.removePaths(watcher_.files());
  if (!watcher_.directories().isEmpty()) watcher_.removePaths(watcher_.directories());
  if (file_.isEmpty()) return;
  watcher_.addPath(file_);
  watcher_.addPath(QFileInfo(file_).absolutePath());  // Atomic writers put another file in its place.
}

void HandlingDesk::file_changed() {
  if (file_.isEmpty() || !QFileInfo::exists(file_)) return;
  if (!watcher_.files().contains(file_)) watcher_.addPath(file_);
  const auto profile = read_profile(file_.toStdString());
  const QString name = QFileInfo(file_).fileName();
  if (!profile) {
    emit refused(tr("%1 changed on the disk and cannot be read; the values stay as they are").arg(name),
                 QString::fromStdString(profile.error().sentence()));
    return;
  }
  const auto count = differences(saved_, *profile).size();
  if (count == 0 && profile->notes == saved_.notes && profile->name == saved_.name) return;
  const Profile merged = with_changes(now(), saved_, *profile);
  saved_ = *profile;
  if (set(merged, tr("%1 on the disk").arg(name)))
    emit remark(tr("%1 changed on the disk").arg(name),
                count == 1 ? tr("1 value was taken over.") : tr("%1 values were taken over.").arg(count));
}

}  // namespace lagniappe::app
