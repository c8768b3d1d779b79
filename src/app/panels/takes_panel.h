// SPDX-License-Identifier: GPL-3.0-or-later
// The takes of the study: a line for each with its way seen from above, to open, name, star and note.
#pragma once

#include <QWidget>

#include "session/take_desk.h"

class QAction;
class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QListWidgetItem;
class QHBoxLayout;
class QPushButton;

namespace lagniappe::app {

class TakesPanel : public QWidget {
  Q_OBJECT
 public:
  TakesPanel(TakeDesk& desk, DriveSession& session, QWidget* parent = nullptr);

  void rename_current();
  void star_current();
  void note_current();
  void begin_note();  // Puts the keyboard into the note of the chosen one.
  void put_aside_current();
  bool has_current() const { return !current_file().isEmpty(); }

 signals:
  void open_asked(const QString& file);
  void overlay_asked(const QString& file);  // Beside the shown take.

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void make_list();
  QHBoxLayout* make_head();
  QHBoxLayout* make_buttons();
  void connect_parts();
  void fill();
  void fill_now();
  bool is_renaming() const;
  void show_unsaved();
  QString current_file() const;
  void fill_open(const QString& wanted);
  void fill_takes(const std::vector<Study::Entry>& entries, const QString& wanted, const QString& current);
  void show_aside();
  void show_note();
  template <typename F>
  void change(const QString& what, F change_about);

  TakeDesk& desk_;
  DriveSession& session_;
  QListWidget* list_;
  QLineEdit *filter_, *note_;
  QLabel* empty_;
  QPushButton *unsaved_, *aside_;
  QComboBox* order_;
  QAction* put_aside_;
  QString noted_;  // The take whose note is shown.
  bool filling_ = false;
  bool stale_ = true;  // Nobody saw what changed.
};

}  // namespace lagniappe::app
