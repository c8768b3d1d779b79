// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/shortcut_sheet.h"

#include <QAction>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QVBoxLayout>

#include "viewport/drive_keys.h"
#include "widgets/scrolled.h"

namespace lagniappe::app {
namespace {

constexpr int kMostLines = 43;  // Of a column.

// Rows of one column: a heading, or a key and what it does.
class Column {
 public:
  Column(QGridLayout* grid, int column) : grid_(grid), column_(column) {}
  void heading(const QString& text) {
    auto* label = new QLabel(text);
    label->setObjectName("sheetGroup");
    grid_->addWidget(label, row_++, column_, 1, 2);
  }
  int lines() const { return row_ - 1; }
  void row(const QString& keys, const QString& text) {
    auto* key = new QLabel(keys);
    key->setObjectName("key");
    grid_->addWidget(key, row_, column_, Qt::AlignRight);
    grid_->addWidget(new QLabel(text), row_++, column_ + 1);
  }

 private:
  QGridLayout* grid_;
  int column_, row_ = 1;
};

}  // namespace

ShortcutSheet::ShortcutSheet(const QList<QAction*>& actions, QWidget* parent)
    : QFrame(parent), content_(new QWidget) {
  setObjectName("sheet");
  setFocusPolicy(Qt::StrongFocus);
  auto* area = scrolled(content_);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAsNeeded);
  area->setFocusPolicy(Qt::NoFocus);
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(area);
  auto* grid = new QGridLayout(content_);
  grid->setContentsMargins(22, 8, 22, 8);
  grid->setHorizontalSpacing(12);
  grid->setVerticalSpacing(0);
  for (const int gap : {2, 5}) grid->setColumnMinimumWidth(gap, 18);
  auto* title = new QLabel(tr("Keys"));
  title->setObjectName("sheetTitle");
  grid->addWidget(title, 0, 0, 1, 3);
  auto* close = new QLabel(tr("F1 or Esc closes"));
  close->setObjectName("caption");
  grid->addWidget(close, 0, 6, 1, 2, Qt::AlignRight);

  Column left(grid, 0), middle(grid, 3), right(grid, 6);
  left.heading(tr("While driving"));
  for (const DriveKey& key : drive_keys()) left.row(key.keys_text, key.text);
  left.row(tr("Mouse"), tr("Look"));
  left.row(tr("Wheel"), tr("Nearer and farther in third person"));
  left.row(tr("Esc"), tr("Give the mouse back"));
  left.heading(tr("While not driving"));
  left.row(tr("Drag"), tr("Look round with the free camera"));
  left.row(tr("W A S D, Wheel"), tr("Move the free camera; Shift: faster"));
  left.row(tr("Click"), tr("Find the ledger's line, and the piece"));
  left.heading(tr("On the cards"));
  left.row(tr("Up Down"), tr("Nudge a value; Shift: ten times, Ctrl: a tenth"));
  left.row(tr("PgUp PgDn"), tr("Held in a value: feel it ×3, ÷3"));
  left.row(tr("Space, arrows"), tr("In a drawing: next handle, move it"));
  left.heading(tr("On the tape"));
  left.row(tr("Drag"), tr("Move the playhead"));
  left.row(tr("Shift and drag"), tr("Select a stretch"));
  left.row(tr("Wheel"), tr("Zoom; with Shift or right drag: pan"));
  left.heading(tr("In the table of states"));
  left.row(tr("Arrows, Space"), tr("To another cell; edit its guard"));
  left.row(tr("Del"), tr("Remove the transition"));
  left.row(tr("Ctrl+Up Down"), tr("Move the state"));
  QString group;
  Column* columns[] = {&left, &middle, &right};
  std::size_t at = 0;
  for (const QAction* action : actions) {
    if (action->shortcut().isEmpty()) continue;
    const QString menu = action->data().toString();
    const bool full = at < 2 && columns[at]->lines() >= kMostLines - (menu != group ? 1 : 0);
    if (full) ++at;
    if (menu != group || full) columns[at]->heading(tr(qPrintable(menu)));
    group = menu;
    columns[at]->row(action->shortcut().toString(QKeySequence::NativeText),
                     action->text().remove("&").remove("..."));
  }
  hide();
}

void ShortcutSheet::toggle() {
  if (isVisible()) return hide();
  constexpr QSize kFrame(16, 4);  // And the bar with which it is scrolled.
  resize((content_->sizeHint() + kFrame).boundedTo(parentWidget()->size()));
  move((parentWidget()->width() - width()) / 2, std::max(0, (parentWidget()->height() - height()) / 2));
  before_ = window()->focusWidget();
  show();
  raise();
  setFocus(Qt::PopupFocusReason);
}

// Who closes it goes on where they were.
void ShortcutSheet::hideEvent(QHideEvent* event) {
  QFrame::hideEvent(event);
  if (before_ != nullptr) before_->setFocus(Qt::PopupFocusReason);
  before_ = nullptr;
}

void ShortcutSheet::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return hide();
  QFrame::keyPressEvent(event);
}

void ShortcutSheet::mousePressEvent(QMouseEvent*) { hide(); }

}  // namespace lagniappe::app
