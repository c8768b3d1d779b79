// SPDX-License-Identifier: GPL-3.0-or-later
// What the actions of the menu States do.
#pragma once

#include <QObject>

#include "actions.h"
#include "pages/take_actions.h"
#include "session/states_desk.h"

namespace lagniappe::app {

class StatesPage;

class StatesActions : public QObject {
  Q_OBJECT
 public:
  StatesActions(StatesDesk& desk, HandlingDesk& handling, StatesPage& page, const Actions& actions, Doors doors,
                QWidget* window);

  void read_chart(const QString& path);

 signals:
  void problem(const QString& title, const QString& sentence);
  void page_asked();  // The States page.

 private:
  void write_chart();

  StatesDesk& desk_;
  HandlingDesk& handling_;
  Doors doors_;
  QWidget* window_;
};

}  // namespace lagniappe::app
