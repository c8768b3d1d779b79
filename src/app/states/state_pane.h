// SPDX-License-Identifier: GPL-3.0-or-later
// One state: what moves it, how it stands, what it does on the way in and out, and its values as cards.
#pragma once

#include <QWidget>
#include <functional>
#include <utility>
#include <vector>

#include "cards/drawings.h"
#include "session/state_values.h"
#include "states/base_line.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace lagniappe::app {

class Card;
class LuaEditor;

class StatePane : public QWidget {
  Q_OBJECT
 public:
  StatePane(StatesDesk& desk, HandlingDesk& handling, DriveSession& session, QWidget* parent = nullptr);

  void show_state(StateId state);
  StateId state() const { return values_->state(); }
  void rename();  // The keyboard goes to the name.
  Card* card(const QString& id) const;
  QLineEdit& name_field() { return *name_; }
  QLineEdit& slots_field() { return *slots_; }
  BaseLine& base_line() { return *base_; }
  BaseLine& gone_line() { return *gone_; }

  // Of the shown state; undone like any change.
  void add();
  void duplicate();
  void remove();
  void move(std::size_t from, std::size_t to);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* make_buttons();
  QWidget* make_form();
  QWidget* make_table_form();
  void make_cards();
  void connect_fields();
  void take_line(QLineEdit* line, std::function<void()> commit);
  void commit_lines();
  static void show_line(QLineEdit& line, const QString& text);
  void rename_to(const std::string& name);
  void show_spec();
  void show_fault(const QString& text);
  QString failure() const;
  void show_base();
  void change_state(const std::function<void(StateSpec&)>& change, const QString& what, int gesture = 0);
  const StateSpec& spec() const { return desk_.table().states[std::size_t(state())]; }

  StatesDesk& desk_;
  DriveSession& session_;
  StateValues* values_;
  JumpLocks locks_;
  std::vector<std::pair<QLineEdit*, std::function<void()>>> lines_;
  QLineEdit *name_, *group_, *pose_, *forgets_, *slots_;
  QComboBox *like_, *behaviour_, *stance_, *fallback_;
  LuaEditor *enter_, *exit_, *script_;
  QLabel *script_label_, *overrides_, *fault_;
  QPushButton *add_, *copy_, *remove_;
  BaseLine *base_, *gone_;
  QVBoxLayout* inside_;
  std::vector<Card*> cards_;
  int gesture_ = 0;
  bool showing_ = false;
};

}  // namespace lagniappe::app
