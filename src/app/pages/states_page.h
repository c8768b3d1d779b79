// SPDX-License-Identifier: GPL-3.0-or-later
// The States page: the matrix, the chosen cell or state beside it, the tape and the log of changes below. While
// it is open the view is here too, so that one can drive and watch.
#pragma once

#include "pages/page.h"
#include "session/states_desk.h"

class QLabel;
class QSettings;
class QTabWidget;
class QVBoxLayout;

namespace lagniappe::app {

class KeptSplitter;
class ChangeLog;
class FindingsPane;
class HandlingDesk;
class MatrixView;
class SignalsPane;
class StatePane;
class Tape;
class TransitionPane;
class ViewWidget;
class WhyPane;

class StatesPage : public Page {
  Q_OBJECT
 public:
  StatesPage(StatesDesk& desk, HandlingDesk& handling, DriveSession& session, QSettings& settings,
             QWidget* parent = nullptr);
  ~StatesPage() override;

  Act act() const override { return Act::StatesPage; }
  QString name() const override { return tr("States"); }
  void come_up(ViewWidget& view) override;

  MatrixView& matrix() { return *matrix_; }
  TransitionPane& transition() { return *transition_; }
  StatePane& state() { return *state_; }
  WhyPane& why() { return *why_; }
  FindingsPane& findings() { return *findings_; }
  SignalsPane& signal_list() { return *signals_; }
  ChangeLog& log() { return *log_; }
  Tape& tape() { return *tape_; }

  void show_transition();
  void show_state(StateId state);
  void show_why();
  void show_findings();
  void show_signals();
  void refresh() override;

 private:
  void begin();  // The keyboard goes to the matrix.
  QWidget* make_side();
  bool shows(const QWidget* pane) const;
  void show_pane(const QWidget* pane);
  void connect_parts();
  void mark_firings();
  void show_caption();

  StatesDesk& desk_;
  QSettings& settings_;
  QLabel* caption_;
  MatrixView* matrix_;
  TransitionPane* transition_;
  StatePane* state_;
  WhyPane* why_;
  FindingsPane* findings_;
  SignalsPane* signals_;
  ChangeLog* log_;
  Tape* tape_;
  QTabWidget* side_;
  KeptSplitter *rows_, *columns_, *lower_;
  QVBoxLayout* view_place_;
};

}  // namespace lagniappe::app
