// SPDX-License-Identifier: GPL-3.0-or-later
// Everything that is done with the values to drive with: changing, feeling, saving, comparing, going back. No
// widgets.
#pragma once

#include <QDateTime>
#include <QFileSystemWatcher>
#include <QThreadPool>
#include <QTimer>

#include "session/take_desk.h"
#include "session/unsaved_values.h"
#include "session/values_desk.h"

namespace lagniappe::app {

// The values as they were.
struct Snapshot {
  QString name;  // "as it was at 14:20".
  QDateTime at;
  Profile profile;
  QString file;  // Where it is kept.
};

class HandlingDesk : public ValuesDesk {
  Q_OBJECT
 public:
  HandlingDesk(TakeDesk& desk, DriveSession& session, Undo& undo, const QString& folder,
               QObject* parent = nullptr);
  ~HandlingDesk() override;

  const Profile& now() const override { return feeling_ ? before_feeling_ : session_.profile(); }

  bool set(const Profile& profile, const QString& what, int gesture = 0) override;
  int new_gesture() override { return undo_.new_gesture(); }
  void feel(double factor) override;
  void stop_feeling() override;
  bool feeling() const { return feeling_; }

  // The file. What is open follows it when it changes on the disk: what changed there is taken over, other
  // changes of one's own stay.
  // Undo does not go back behind it. The file is only ever written by save().
  void open(const QString& file, const Profile& profile);
  // The values of the shown take become the present ones, without a file: a step that can be taken back.
  void take_over();
  bool differs_from_take() const { return differs_ && !session_.live(); }
  QString file() const { return file_; }
  const Profile& saved() const override { return saved_; }
  QString saved_name() const override { return tr("the saved value"); }
  std::vector<ProfileDifference> unsaved() const { return differences(saved_, now()); }
  bool is_saved() const { return unsaved().empty() && saved_.notes == now().notes; }
  bool save() { return save_as(file_); }
  // What changed in the open file meanwhile is taken in first.
  bool save_as(const QString& file);
  void wait() { writer_.waitForDone(); }  // Until snapshots and unsaved values are on the disk.
  void keep_unsaved();  // What is not saved goes to the disk, to be had back at the next start.
  // Whether a program that ended before had left such values; they are among the snapshots.
  bool left_unsaved() const { return left_unsaved_; }
  void set_note(const QString& path, const QString& note) override;

  // What marks and dashed drawings are against: the saved values, unless another is chosen.
  const Profile& reference() const override { return reference_ ? *reference_ : saved_; }
  QString reference_name() const override { return reference_ ? reference_name_ : tr("as saved"); }
  void set_reference(const Profile& profile, const QString& name);
  void clear_reference();
  bool has_reference() const { return reference_.has_value(); }

  // Newest first. One is kept before the first change after a while, and whenever it is asked for.
  const std::vector<Snapshot>& snapshots() const { return snapshots_; }
  void set_snapshot_every(qint64 seconds) { snapshot_every_ = seconds; }
  void keep_snapshot(const QString& name);
  void go_back_to(std::size_t n);

 signals:
  void snapshots_changed();
  void remark(const QString& title, const QString& sentence);

 private:
  struct Written {
    std::string text;
    Profile profile;
  };
  Result<std::optional<Written>> present() const;
  bool take_in(const Profile& on_disk);
  void rename(const std::string& name);
  void write_later(const QString& file, const Profile& profile);
  std::pair<QString, QDateTime> unused_snapshot(QDateTime at) const;
  void follow(const QString& file, const Profile& saved);
  void add_snapshot(const QString& name, const Profile& profile);
  void read_snapshots();
  void file_changed();
  void watch();
  void snapshot_before_change();
  void values_moved();

  TakeDesk& desk_;
  DriveSession& session_;
  Undo& undo_;
  QString folder_, file_;
  Profile saved_, before_feeling_;
  std::optional<Profile> reference_;
  QString reference_name_;
  std::vector<Snapshot> snapshots_;
  QFileSystemWatcher watcher_;
  QTimer reload_, keep_;
  UnsavedValues unsaved_;  // The writer's.
  QThreadPool writer_;     // Of one thread, so that what comes later is written later.
  bool feeling_ = false, left_unsaved_ = false, saving_ = false, differs_ = false;
  qint64 snapshot_every_ = 5 * 60;  // s between two that are kept before a change.
};

}  // namespace lagniappe::app
