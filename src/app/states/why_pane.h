// SPDX-License-Identifier: GPL-3.0-or-later
// Why it is in this state, and why not in another: the changes that led here, and each part of the guards that
// would lead there.
#pragma once

#include <QWidget>

#include "session/states_desk.h"

class QComboBox;
class QLabel;

namespace lagniappe::app {

class WhyPane : public QWidget {
  Q_OBJECT
 public:
  explicit WhyPane(StatesDesk& desk, QWidget* parent = nullptr);
  void ask_about(StateId state);
  QString here_text() const;
  QString there_text() const;

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void show_states();
  void explain();
  QString here() const;
  QString there(StateId target) const;

  StatesDesk& desk_;
  QLabel *here_, *there_;
  QComboBox* target_;
};

}  // namespace lagniappe::app
