// SPDX-License-Identifier: GPL-3.0-or-later
// The chosen cell: its transitions, their guards and what these come to at the playhead.
#pragma once

#include <QWidget>

#include "session/states_desk.h"
#include "states/base_line.h"

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QPushButton;
class QSpinBox;

namespace lagniappe::app {

class LuaEditor;

class TransitionPane : public QWidget {
  Q_OBJECT
 public:
  explicit TransitionPane(StatesDesk& desk, QWidget* parent = nullptr);

  void edit_guard();  // The keyboard goes there; where there is no transition one is added.
  void add_transition();
  void remove_transition();
  void go_to_firing(int direction);
  LuaEditor& guard() { return *guard_; }
  BaseLine& base_line() { return *base_; }
  QString parts_text() const;

 signals:
  void left();  // The keyboard goes back to the matrix.

 private:
  void lay_out();
  void connect_parts();
  QWidget* make_firings();
  QWidget* make_numbers();
  std::optional<std::size_t> row() const;
  void show_cell();
  void show_base();
  std::pair<std::string, std::string> ends() const;  // Of the chosen cell.
  void show_row();
  void show_now();
  void show_fault();
  QString failure() const;
  void show_firings();
  void change_row(const std::function<void(TransitionSpec&)>& change, const QString& what, bool typed = false);

  StatesDesk& desk_;
  QLabel *title_, *whose_, *fault_, *parts_, *fired_, *remark_;
  QComboBox* which_;
  LuaEditor *guard_, *action_;
  QSpinBox* priority_;
  QDoubleSpinBox* stay_;
  QPushButton *add_, *remove_, *before_, *after_;
  BaseLine* base_;
  QWidget *editing_, *firing_row_;
  int gesture_ = 0;
  bool showing_ = false;
};

}  // namespace lagniappe::app
