// SPDX-License-Identifier: GPL-3.0-or-later
// The strip above the pages: menus, what is open, and Drive. Where the window is narrow its name and figures
// go, and the last menus are behind an arrow.
#pragma once

#include <QWidget>

#include "actions.h"

class QLabel;
class QMenu;
class QMenuBar;
class QToolButton;

namespace lagniappe::app {

class TopStrip : public QWidget {
  Q_OBJECT
 public:
  explicit TopStrip(const Actions& actions);

  void show_course(const QString& name, const QString& file);
  void show_profile(const QString& name);
  void show_figures(const QString& text);
  void show_driving(bool driving);

  // Filled by the window, whenever they are about to be shown.
  QMenu& recent() { return *recent_menu_; }
  QMenu& marks() { return *marks_menu_; }

 signals:
  void recent_asked(QMenu* menu);
  void marks_asked();

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  QMenuBar* make_menus();
  void make_chips();

  const Actions& actions_;
  QMenu *recent_menu_ = nullptr, *marks_menu_ = nullptr;
  QToolButton *course_, *profile_, *drive_;
  QLabel *figures_, *wordmark_;
};

}  // namespace lagniappe::app
