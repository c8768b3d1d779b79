// SPDX-License-Identifier: GPL-3.0-or-later
// What there is to remark about the table, and the check that drives it at random.
#pragma once

#include <QWidget>

#include "session/states_desk.h"

class QLabel;
class QListWidget;
class QProgressBar;
class QPushButton;

namespace lagniappe::app {

class FindingsPane : public QWidget {
  Q_OBJECT
 public:
  explicit FindingsPane(StatesDesk& desk, QWidget* parent = nullptr);
  QStringList lines() const;
  QString summary() const;

 signals:
  void state_asked(StateId state);

 private:
  void show_findings();
  void show_running();
  void go_to(int line);

  StatesDesk& desk_;
  QLabel *hint_, *summary_;
  QPushButton *check_, *cancel_;
  QProgressBar* progress_;
  QListWidget* list_;
  std::vector<TableFinding> findings_;
};

}  // namespace lagniappe::app
