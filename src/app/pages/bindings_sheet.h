// SPDX-License-Identifier: GPL-3.0-or-later
// The sheet on which keys, mouse buttons and pad controls are bound anew. What two rows have is taken, and both
// rows say so: the upper one has it.
#pragma once

#include <QWidget>
#include <array>
#include <vector>

#include "actions.h"
#include "devices/bindings.h"
#include "session/preferences.h"

class QGridLayout;
class QLabel;

namespace lagniappe::app {

class KeyButton;

class BindingsSheet : public QWidget {
  Q_OBJECT
 public:
  BindingsSheet(Preferences& preferences, const Actions& actions, Bindings& bindings,
                QWidget* parent = nullptr);

  void refresh();
  void filter(const QString& wanted);  // Rows that have it in what they do, or in what is bound.
  // A pad's control was pressed: for the button that waits for one.
  void take_pad(PadControl control);
  QStringList conflicts() const;  // As they are shown, row by row; empty ones left out.

 signals:
  void changed();
  void refused(const QString& why);

 private:
  struct Row {
    QLabel *does, *conflict;
    std::array<KeyButton*, kSlotCount> buttons{};  // Null where the slot takes nothing.
  };
  void add_row(QGridLayout& grid, std::size_t row);
  KeyButton* make_button(std::size_t row, Slot slot);
  void take_key(std::size_t row, Slot slot, const QKeyEvent& event);
  void bind(std::size_t row, Slot slot, int code);
  QString conflict_of(std::size_t row) const;

  Preferences& preferences_;
  const Actions& actions_;
  Bindings& bindings_;
  std::vector<Row> rows_;
};

// Brings back what was bound.
void restore_bindings(Preferences& preferences, Bindings& bindings);

}  // namespace lagniappe::app
