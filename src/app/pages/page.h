// SPDX-License-Identifier: GPL-3.0-or-later
// What the window shows one of at a time. A page is its class and a place in the window's list.
#pragma once

#include <QWidget>

#include "actions.h"

namespace lagniappe::app {

class ViewWidget;

class Page : public QWidget {
 public:
  using QWidget::QWidget;

  virtual Act act() const = 0;       // Brings it up: with its icon and key, in the rail and the menus.
  virtual QString name() const = 0;  // In the rail.
  // Shown from now on. A page that wants the view puts it among its own widgets.
  virtual void come_up(ViewWidget& view) = 0;
  virtual void go_down() {}  // Another page is shown from now on; the view must be free to go.
  virtual void refresh() {}  // Once a beat, while it is shown.
};

}  // namespace lagniappe::app
