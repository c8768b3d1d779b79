// SPDX-License-Identifier: GPL-3.0-or-later
// Every signal and memory slot, with its value at the playhead, live.
#pragma once

#include <QElapsedTimer>
#include <QWidget>

#include "session/states_desk.h"

class QLineEdit;
class QTreeWidget;

namespace lagniappe::app {

class SignalsPane : public QWidget {
  Q_OBJECT
 public:
  explicit SignalsPane(StatesDesk& desk, QWidget* parent = nullptr);
  QString value_of(const QString& key) const;  // As it is shown.

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void fill();
  void filter();
  void show_values();

  StatesDesk& desk_;
  QLineEdit* search_;
  QTreeWidget* list_;
  QElapsedTimer shown_;
};

}  // namespace lagniappe::app
