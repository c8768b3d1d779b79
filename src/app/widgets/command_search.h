// SPDX-License-Identifier: GPL-3.0-or-later
// Finds any action by a few letters of its name (Ctrl+K).
#pragma once

#include <QFrame>
#include <QList>
#include <functional>

class QAction;
class QLineEdit;
class QListWidget;

namespace lagniappe::app {

class CommandSearch : public QFrame {
  Q_OBJECT
 public:
  // `actions` is asked whenever the search opens: what can be done may have changed.
  CommandSearch(std::function<QList<QAction*>()> actions, QWidget* parent);

  void open();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void fill(const QString& wanted);
  void run_current();

  std::function<QList<QAction*>()> actions_;
  QList<QAction*> found_;
  QLineEdit* field_;
  QListWidget* list_;
};

}  // namespace lagniappe::app
