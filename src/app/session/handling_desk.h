// SPDX-License-Identifier: GPL-3.0-or-later
// Everything that is done with the values to drive with: changing, feeling, saving, comparing, going back. No
// widgets.
#pragma once

#include <QDateTime>
#include <QFileSystemWatcher>
#include <QTimer>

#include "session/take_desk.h"

namespace lagniappe::app {

// The values as they were.
struct Snapshot {
  QString name;  // "as it was at 14:20".
  QDateTime at;
  Profile profile;
  QString file;  // Where it is kept.
};

class HandlingDesk : public QObject {
  Q_OBJECT
 public:
  HandlingDesk(TakeDesk& desk, DriveSession& session, const QString& folder, QObject* parent = nullptr);
  ~HandlingDesk() override;

  const Profile& now() const { return feeling_ ? before_feeling_ : session_.profile(); }

  // Changes values; what does not fit together is refused as in a file. Changes of one gesture, such as a drag,
  // are undone at once; each call with gesture 0 is undone by itself.
  bool set(const Profile& profile, const QString& what, int gesture = 0);
  bool assign(const QString& path, const QString& text, int gesture = 0);
  int new_gesture() { return ++gesture_; }

  // The value that was touched last: what is felt.
  void attend(const QString& path) { attended_ = path; }
  QString attended() const { return attended_; }
  // Drives with the attended value times `factor`, within its range, until stop_feeling(). No change for undo.
  void feel(double factor);
  void stop_feeling();
  bool feeling() const { return feeling_; }

  // The file. What is open follows it when it changes on the disk: what changed there is taken over, other
  // changes of one's own stay.
  void open(const QString& file, const Profile& profile);  // Undone, the file from before is open again.
  QString file() const { return file_; }
  const Profile& saved() const { return saved_; }
  std::vector<ProfileDifference> unsaved() const { return differences(saved_, now()); }
  bool is_saved() const { return unsaved().empty() && saved_.notes == now().notes; }
  bool save() { return save_as(file_); }
  bool save_as(const QString& file);
  void set_note(const QString& path, const QString& note);

  // What marks and dashed drawings are against: the saved values, unless another is chosen.
  const Profile& reference() const { return reference_ ? *reference_ : saved_; }
  QString reference_name() const { return reference_ ? reference_name_ : tr("as saved"); }
  void set_reference(const Profile& profile, const QString& name);
  void clear_reference();
  bool has_reference() const { return reference_.has_value(); }

  // Newest first. One is kept before the first change after a while, and whenever it is asked for.
  const std::vector<Snapshot>& snapshots() const { return snapshots_; }
  void keep_snapshot(const QString& name);
  void go_back_to(std::size_t n);

 signals:
  void changed();  // Values, saved values or reference.
  void snapshots_changed();
  void remark(const QString& title, const QString& sentence);
  void refused(const QString& title, const QString& why);

 private:
  void follow(const QString& file, const Profile& saved);
  void add_snapshot(const QString& name, const Profile& profile);
  void read_snapshots();
  void keep_unsaved();
  void file_changed();
  void watch();
  void snapshot_before_change();
  void go_with_take();

  TakeDesk& desk_;
  DriveSession& session_;
  QString folder_, file_;
  Profile saved_, before_feeling_;
  std::optional<Profile> reference_;
  QString reference_name_, attended_;
  std::vector<Snapshot> snapshots_;
  QFileSystemWatcher watcher_;
  QTimer reload_, keep_;
  bool feeling_ = false;
  int gesture_ = 0;
};

}  // namespace lagniappe::app
