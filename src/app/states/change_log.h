// SPDX-License-Identifier: GPL-3.0-or-later
// A line for every change of state: when, from where, to where, and what let it. A click goes there.
#pragma once

#include <QWidget>

#include "session/states_desk.h"

class QLabel;
class QTreeWidget;

namespace lagniappe::app {

class ChangeLog : public QWidget {
  Q_OBJECT
 public:
  explicit ChangeLog(StatesDesk& desk, QWidget* parent = nullptr);
  int lines() const;
  QString line(int n) const;

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void show_firings();
  void show_playhead();
  StatesDesk& desk_;
  QLabel* hint_;
  QTreeWidget* list_;
  std::size_t shown_ = 0;  // Firings that have a line.
};

}  // namespace lagniappe::app
