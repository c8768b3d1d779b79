// SPDX-License-Identifier: GPL-3.0-or-later
// The Drive page: the view, beside it the ledger of the tick that it stands on while paused, and under it the
// transport strip.
#pragma once

#include <QWidget>
#include <utility>

#include "actions.h"
#include "session/drive_session.h"

class QButtonGroup;
class QComboBox;

namespace lagniappe::app {

class LedgerColumn;
class ViewWidget;

class DrivePage : public QWidget {
  Q_OBJECT
 public:
  DrivePage(DriveSession& session, const Actions& actions, QWidget* parent = nullptr);

  ViewWidget& view() { return *view_; }
  const LedgerColumn& ledger() const { return *ledger_; }
  void step_time_scale(int by);  // One notch slower (positive) or faster.
  void choose_tick_rate(int rate);

 signals:
  void time_changed();  // Tick rate or time scale.

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  QWidget* make_transport(const Actions& actions);
  void show_ledger();

  DriveSession& session_;
  ViewWidget* view_;
  LedgerColumn* ledger_;
  std::pair<const Place*, std::uint64_t> ledger_of_{nullptr, 0};  // What the column shows.
  QButtonGroup* scales_;
  QComboBox* rates_;
};

}  // namespace lagniappe::app
