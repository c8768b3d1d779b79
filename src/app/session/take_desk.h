// SPDX-License-Identifier: GPL-3.0-or-later
// Everything that is done with takes: kept in the study, journalled while driven, changed, and run again under
// other values. No widgets; what people change here can be undone.
#pragma once

#include <QObject>

#include "session/drive_session.h"
#include "session/journal.h"
#include "session/retaker.h"
#include "session/study.h"
#include "session/undo.h"

namespace lagniappe::app {

class TakeDesk : public QObject {
  Q_OBJECT
 public:
  TakeDesk(DriveSession& session, Undo& undo, const QString& study_folder, QObject* parent = nullptr);
  ~TakeDesk() override;  // Saves what is open, and waits for it.

  Study& study() { return study_; }
  const Retaker& retaker() const { return retaker_; }
  void cancel_retake() { retaker_.cancel(); }

  // Lets time pass: journals the open recording at least twice a second. `now` in seconds.
  void pass(double now);

  // Values to drive with; the shown take is run again with them. No step of undo: desks that change values make
  // their own, about values_era().
  void try_profile(const Profile& profile) { take_values(profile, session_.tick_rate(), other_place_); }
  // Another profile altogether: what was done to the one before is no more to be undone.
  void begin_profile(const Profile& profile);
  const Era& values_era() const { return values_era_; }
  void set_tick_rate(int rate);
  // Runs the shown take on another place too, until put_back().
  void retake_on(std::shared_ptr<const Place> place);
  // The same without a step of undo: of who changes the place. One like the shown take's is none.
  void try_place(std::shared_ptr<const Place> place);
  // Runs the shown take as it is, and says whether it is identical.
  void retake_unchanged();

  // The changed run, if anything is changed, then those that are pinned.
  std::vector<std::shared_ptr<const Ghost>> ghosts() const;
  std::shared_ptr<const Ghost> current_ghost() const { return ghost_; }
  std::size_t pinned() const { return pins_.size(); }
  void pin();  // The changed run stays when the values change on.
  void pin_take(std::shared_ptr<const Recording> recording);  // Another take beside the shown one.
  void unpin(std::size_t n);                                  //
  void name_pin(std::size_t n, const QString& name);          //
  void keep_ghost();                                          // The changed run becomes a take, and is shown.
  // The values are again those that there were when the shown take came to be shown.
  void put_back();
  bool can_put_back() const { return moved_ && !session_.live(); }

  // Editing takes.
  void keep_stretch(const Stretch& stretch);  // As a take of its own.
  void split(std::size_t tick);               // Two takes instead of the shown one.
  void change_about(const QString& file, const TakeAbout& about, const QString& what);
  void put_aside(const QString& file);
  void bring_back(const QString& aside);  // One of study().aside().
  // Of what is being driven: with a star it is kept however short it is.
  void star_open();
  void show_recording(Recording recording);

  // The shown recording ends and is saved.
  void close_recording();

 signals:
  void ghosts_changed();
  void retake_progress(double share);
  void problem(const QString& title, const QString& sentence);
  void not_saved(const QString& sentence);  // A take; study().save_again() tries again.
  void shown_changed();                     // Another recording is shown than before.
  void values_changed();
  void rested();  // Driving stopped for now.

 private:
  void save_left(const Recording& recording);
  void update_ghost();
  void watch_values();
  void pin_ghost(const std::shared_ptr<const Ghost>& ghost);
  void change_pins(const QString& what, const std::vector<std::shared_ptr<const Ghost>>& pins);
  void take_values(const Profile& profile, int tick_rate, std::shared_ptr<const Place> place);
  QString save_part(const Stretch& stretch, const QString& suffix);

  DriveSession& session_;
  Undo& undo_;
  Study study_;
  Journal journal_;
  Retaker retaker_;
  std::shared_ptr<const Ghost> ghost_;
  std::vector<std::shared_ptr<const Ghost>> pins_;
  std::shared_ptr<const Place> other_place_;  // To retake on, if it is not the shown take's.
  Profile values_at_showing_;
  double journalled_at_ = -1.0;
  std::uint64_t revision_ = 0;
  Era shown_era_, values_era_;
  bool was_live_ = false;
  bool moved_ = false;  // The values, from those at showing.
};

}  // namespace lagniappe::app
