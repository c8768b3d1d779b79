// SPDX-License-Identifier: GPL-3.0-or-later
// The Drive page: the view with cards, takes and ghosts beside it; under it the tape and the ledger of the
// tick under the playhead.
#pragma once

#include <utility>

#include "pages/page.h"
#include "panels/takes_panel.h"
#include "session/heart.h"
#include "session/take_desk.h"
#include "viewport/overlay_lines.h"

class QLabel;
class QSettings;
class QTabWidget;

namespace lagniappe::app {

class KeptSplitter;
class CardsPanel;
class GhostsPanel;
class HandlingDesk;
class ChangeLog;
class LedgerColumn;
class StatesDesk;
class TakesPanel;
class Tape;
class Transport;
class ViewWidget;
class WatchView;

class DrivePage : public Page {
  Q_OBJECT
 public:
  DrivePage(DriveSession& session, Heart& heart, TakeDesk& desk, HandlingDesk& handling, StatesDesk& states,
            const Actions& actions, QSettings& settings, QWidget* parent = nullptr);
  ~DrivePage() override;  // Remembers how it was arranged.

  ViewWidget& view() { return *view_; }
  WatchView* second_view() { return second_; }  // Null while there is none.
  void show_second_view(bool shown);
  const LedgerColumn& ledger() const { return *ledger_; }
  Tape& tape() { return *tape_; }
  Transport& transport() { return *transport_; }
  GhostsPanel& ghosts() { return *ghosts_; }
  TakesPanel& takes() { return *takes_; }
  CardsPanel& cards() { return *cards_; }
  ChangeLog& log() { return *log_; }

  Act act() const override { return Act::DrivePage; }
  QString name() const override { return tr("Drive"); }
  void come_up(ViewWidget& view) override;  // The view is this page's own; others borrow it.
  void go_down() override;
  void refresh() override;
  void take_view();
  void show_pane(Act pane, bool shown);
  void find_value();  // Brings the cards up, and the keyboard into their search.
  void show_takes() { show_beside_view(*takes_, tr("Takes")); }
  // A pane more in the column beside the view, which comes up; taken from there it is deleted.
  void show_beside_view(QWidget& pane, const QString& title);
  void take_from_view(QWidget& pane);
  // The same for a pane that one action shows, made each time anew, and takes away. Its name is its title.
  void show_beside_view(const QString& title, bool shown, const std::function<QWidget*()>& make);
  void show_value(const std::string& path);
  // "Why is it here?": the ticks of this take that touched the piece.
  void ask_about(PieceId piece);
  // What is known of the shown take: "identical to the recording in all 630 ticks".
  // Of an opened take; `take_over_key` is what takes over its values where they differ from the present ones.
  void set_remark(const QString& remark, const QString& take_over_key = {});
  // The next tick with the chosen event, or with a finding, or the one before; past the end it begins anew.
  // Nothing: there is none in all of the take.
  std::optional<std::size_t> event_from_here(int direction) const;
  std::optional<std::size_t> finding_from_here(int direction) const;
  void show_parting();
  void play_selection(bool looped);

 signals:
  // What is behind a refusal, where it is no value of the profile: a state of the table, if it is one.
  void refusal_told(const QString& sentence, std::optional<lagniappe::StateId> state);
  void open_asked(const QString& file);
  void overlay_asked(const QString& file);

 private:
  QWidget* make_side();
  void connect_tape();
  void connect_ledger();
  void show_ledger();
  void explain_refusal(std::size_t entry);
  void show_selection();
  void point_at(std::optional<std::size_t> entry);
  void go_to_touch(int direction);
  void show_ghosts();
  void show_legend();
  void restore();

  DriveSession& session_;
  Heart& heart_;
  TakeDesk& desk_;
  QSettings& settings_;
  ViewWidget* view_;
  WatchView* second_ = nullptr;
  LedgerColumn* ledger_;
  Tape* tape_;
  Transport* transport_;
  TakesPanel* takes_;
  GhostsPanel* ghosts_;
  CardsPanel* cards_;
  ChangeLog* log_;
  QTabWidget* side_;
  int ghosts_tab_ = 0;
  KeptSplitter *rows_, *upper_, *lower_;
  QLabel* selection_;
  QWidget* tape_column_;
  QString remark_, take_over_key_;
  PieceId asked_piece_ = kNoPiece;
  QList<int> upper_sizes_;  // As they were when the view was lent.
  std::tuple<std::uint64_t, std::size_t, bool, bool> ledger_of_{~0ull, 0, false,
                                                                false};  // What the column shows.
  double ledger_shown_at_ = -1.0;
};

}  // namespace lagniappe::app
