// SPDX-License-Identifier: GPL-3.0-or-later
// The sheet of all keys (F1): what drives, and every action with a shortcut.
#pragma once

#include <QFrame>
#include <QList>
#include <QPointer>

#include "devices/bindings.h"

class QAction;
class QScrollArea;

namespace lagniappe::app {

class ShortcutSheet : public QFrame {
  Q_OBJECT
 public:
  ShortcutSheet(const Bindings& bindings, const QList<QAction*>& actions, QWidget* parent);

  void toggle();  // Shows it in the middle of its parent, or hides it.

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  void fill();

  const Bindings& bindings_;
  QList<QAction*> actions_;
  QScrollArea* area_;
  QPointer<QWidget> before_;  // That had the focus.
};

}  // namespace lagniappe::app
