// SPDX-License-Identifier: GPL-3.0-or-later
// A few lines of Lua: coloured, completed from the signals, with what is wrong underlined and told.
#pragma once

#include <Qsci/qsciscintilla.h>

#include "lagniappe/guard.h"

namespace lagniappe::app {

class LuaEditor : public QsciScintilla {
  Q_OBJECT
 public:
  enum class Kind { Guard, Action, Script };  // A script has lines with numbers.
  explicit LuaEditor(Kind kind, QWidget* parent = nullptr);

  void set_memory(const std::vector<std::string>& slots_of_table);
  // Shows a text without telling that it changed; what is being typed is left alone where it comes to the same.
  void show_text(const QString& text);
  QString fault() const { return fault_; }  // Empty: it is fine.
  // Marks which parts hold.
  void show_parts(const std::vector<GuardPart>& parts);

 signals:
  void edited(const QString& text);  // It is fine, and another than before.
  void fault_changed();
  void left();  // Esc, or Ctrl+Enter.

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void changeEvent(QEvent* event) override;

 private:
  void colour_all();
  bool list_would_be_on_a_screen() const;
  void complete_from(const std::vector<std::string>& slots_of_table);
  void look();
  void mark(unsigned long indicator, std::size_t begin, std::size_t end);

  Kind kind_;
  std::vector<std::string> memory_;
  QString fault_, told_;
  bool showing_ = false;
};

}  // namespace lagniappe::app
