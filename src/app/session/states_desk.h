// SPDX-License-Identifier: GPL-3.0-or-later
// Everything that is done with the table of states: read against the shown take, changed, explained, checked.
// No widgets.
#pragma once

#include <QObject>
#include <memory>

#include "lagniappe/guard.h"
#include "session/handling_desk.h"
#include "session/newest_job.h"
#include "session/state_matrix.h"

namespace lagniappe::app {

// A cell of the matrix.
struct CellPlace {
  std::size_t source, column;
  bool operator==(const CellPlace&) const = default;
};

// A guard at a tick, and since when each part of it is as it is.
struct GuardStory {
  std::size_t row;
  GuardVerdict verdict;
  std::vector<double> since;   // s that each part has been as it is.
  std::vector<bool> for_ever;  // As far as was looked back.
};

class StatesDesk : public QObject {
  Q_OBJECT
 public:
  StatesDesk(HandlingDesk& handling, TakeDesk& takes, DriveSession& session, QObject* parent = nullptr);

  // The table that is being worked on: the profile's.
  const StateTable& table() const { return matrix_->chart().table(); }
  const StateChart& chart() const { return matrix_->chart(); }
  const StateMatrix& matrix() const { return *matrix_; }

  // Changes the table; what is no table is refused with a sentence. Changes of one gesture are undone at once.
  bool change(const StateTable& table, const QString& what, int gesture = 0);
  int new_gesture() { return handling_.new_gesture(); }

  // The run that is read: the shown take, or its retake under the changed table. Null while neither is by this
  // table.
  const Recording* subject() const;
  bool subject_is_retake() const;
  std::size_t tick() const;  // The playhead, in the subject.
  StateId state_now() const;
  const std::vector<Firing>& firings() const { return firings_; }
  QString time_text(std::size_t tick) const;
  void show_tick(std::size_t tick);  // Moves the playhead.

  // Called for every drawn frame: takes in what was recorded since.
  void refresh();

  const std::optional<CellPlace>& chosen() const { return chosen_; }
  void choose(std::optional<CellPlace> cell);
  std::vector<Firing> chosen_firings() const;

  // What a transition's guard comes to at a tick of the subject, and where `with_story` since when. As the tick
  // saw it before its motion where `before_motion`, else as it is at its end. REQUIRES: subject().
  GuardStory story(const StateChart::Transition& transition, std::size_t tick, bool with_story,
                   bool before_motion = false) const;

  // Every signal's value at the playhead, then the memory slots'; empty without a subject.
  std::vector<double> signal_values() const;
  bool is_live() const { return session_.live(); }

  // Runs the takes of the study and a random drive through the table, on another thread.
  void check(std::size_t random_ticks = 1'000'000);
  void cancel_check();
  ~StatesDesk() override;
  bool checking() const { return job_.busy(); }
  // What the table is remarked on: as it stands, and by the last check of it.
  std::vector<TableFinding> findings() const;
  // When and how a script failed in what is counted, told for people; empty if it did not. `script`: as
  // failures name it, "Walk to Glide, on the way".
  QString failure_of(const QString& script) const;
  const TableUse* use() const { return use_.get(); }  // Of the last check; null where the table changed since.

 signals:
  void table_changed();
  void firings_changed();
  void chosen_changed();
  void moved();  // The playhead.
  void check_progress(double share);
  void checked();  // Or given up.

 private:
  void take_table();
  bool is_by_table(const Recording& recording) const;
  SignalView view_of(const Recording& recording, const Values& values, std::size_t tick,
                     bool before_motion) const;

  HandlingDesk& handling_;
  TakeDesk& takes_;
  DriveSession& session_;
  std::unique_ptr<StateMatrix> matrix_;
  std::vector<Firing> firings_;
  std::size_t read_ = 0;  // Ticks of the subject.
  const Recording* read_of_ = nullptr;
  std::uint64_t revision_ = 0;
  std::shared_ptr<const Ghost> ghost_;  // Read of.
  std::size_t tick_ = 0;
  // The last table that was compared with this one, which painting asks about many times a frame.
  mutable std::shared_ptr<const StateChart> compared_;
  mutable bool compared_equal_ = false;
  std::optional<CellPlace> chosen_;
  std::shared_ptr<const TableUse> use_;
  NewestJob job_{*this};
};

}  // namespace lagniappe::app
