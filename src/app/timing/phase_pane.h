// SPDX-License-Identifier: GPL-3.0-or-later
// The order of the tick under the playhead: each phase with what it changed of place and velocity, and below
// the chosen one what the ledger says of it.
#pragma once

#include <QWidget>

#include "session/drive_session.h"

class QLabel;
class QTableWidget;

namespace lagniappe::app {

class PhasePane : public QWidget {
  Q_OBJECT
 public:
  explicit PhasePane(DriveSession& session, QWidget* parent = nullptr);

  void refresh();  // While it is shown.
  QTableWidget& table() { return *table_; }
  QString words() const;

 private:
  void show_phases();
  void show_words(int row);

  DriveSession& session_;
  QTableWidget* table_;
  QLabel *title_, *words_;
  std::pair<std::uint64_t, std::size_t> shown_{};
  std::vector<TickPhase> phases_;
  Ledger ledger_;
};

}  // namespace lagniappe::app
