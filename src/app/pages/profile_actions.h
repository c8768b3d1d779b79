// SPDX-License-Identifier: GPL-3.0-or-later
// What the actions of the menu Profile do: opening, saving, comparing, going back, exporting.
#pragma once

#include <QObject>
#include <QPointer>

#include "actions.h"
#include "pages/take_actions.h"
#include "session/handling_desk.h"

class QMenu;

namespace lagniappe::app {

class ComparePane;
class DrivePage;

class ProfileActions : public QObject {
  Q_OBJECT
 public:
  ProfileActions(HandlingDesk& desk, DrivePage& page, const Actions& actions, Doors doors, QWidget* window);

  void open(const QString& path);
  ComparePane* compare();  // Opens it.
  void show_enabled();

 signals:
  void problem(const QString& title, const QString& sentence);
  void opened(const QString& path);

 private:
  void save();
  void save_as();
  void export_constants();
  void export_curve();
  void choose_reference();
  void keep_snapshot();
  void show_menu(const QPoint& at);
  void fill_snapshots(QMenu& menu);
  std::optional<Profile> read(const QString& path);
  // `text`: in the second of the kind's two formats, if the name ends so.
  void write(const QString& title, const FileKind& kind, const QString& suggested,
             const std::function<std::string(bool second)>& text);

  HandlingDesk& desk_;
  DrivePage& page_;
  const Actions& actions_;
  Doors doors_;
  QWidget* window_;
  QPointer<ComparePane> compare_;
};

}  // namespace lagniappe::app
