// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/shortcut_sheet.h"

#include <QAction>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>

#include "devices/bindings.h"
#include "widgets/scrolled.h"

namespace lagniappe::app {
namespace {

constexpr int kLine = 16;  // Pixels; all of it fits 1280 x 800.
constexpr int kColumns = 3;

struct Group {
  QString heading;
  std::vector<std::pair<QString, QString>> rows;  // A key, and what it does.
  int lines() const { return int(rows.size()) + 1; }
};

std::vector<Group> groups_of(const Bindings& bindings, const QList<QAction*>& actions) {
  std::vector<Group> groups(1);
  groups[0].heading = QObject::tr("While driving");
  for (const Binding& row : bindings.rows()) {
    // What has no key is a pad's.
    if (!row.keys_text().isEmpty()) groups[0].rows.emplace_back(row.keys_text(), QObject::tr(row.text));
  }
  groups[0].rows.insert(groups[0].rows.end(),
                        {{QObject::tr("Mouse"), QObject::tr("Look")},
                         {QObject::tr("Wheel"), QObject::tr("Nearer and farther in third person")},
                         {QObject::tr("Esc"), QObject::tr("Give the mouse back")}});
  const auto add = [&](const QString& heading, std::vector<std::pair<QString, QString>> rows) {
    groups.push_back({heading, std::move(rows)});
  };
  add(QObject::tr("While not driving"),
      {{QObject::tr("Drag"), QObject::tr("Look round with the free camera")},
       {QObject::tr("As driving"), QObject::tr("Move the free camera")},
       {QObject::tr("Click"), QObject::tr("Find the ledger's line, the piece")}});
  add(QObject::tr("On the cards"),
      {{QObject::tr("Up Down"), QObject::tr("Nudge a value; Shift: ten times, Ctrl: a tenth")},
       {QObject::tr("PgUp PgDn"), QObject::tr("Held in a value: feel it \u00d73, \u00f73")},
       {QObject::tr("Ctrl+Backspace"), QObject::tr("Back to the saved value")},
       {QObject::tr("Ctrl+Del"), QObject::tr("Back to the default")},
       {QObject::tr("Space, arrows"), QObject::tr("In a drawing: next handle, move it")},
       {QObject::tr("Double click"), QObject::tr("In a curve: a point more")}});
  add(QObject::tr("On the tape"), {{QObject::tr("Drag"), QObject::tr("Move the playhead")},
                                   {QObject::tr("Shift and drag"), QObject::tr("Select a stretch")},
                                   {QObject::tr("Left Right"), QObject::tr("A tick back, on; Shift: select")},
                                   {QObject::tr("Wheel"), QObject::tr("Zoom; with Shift or right drag: pan")}});
  add(QObject::tr("In the ledger"),
      {{QObject::tr("Enter, click"), QObject::tr("A refusal: to the value that refused")},
       {QObject::tr("Ctrl+C"), QObject::tr("Copy the sentence")}});
  add(QObject::tr("In the table of states"),
      {{QObject::tr("Arrows, Space"), QObject::tr("To a cell; edit its guard")},
       {QObject::tr("Del"), QObject::tr("Remove the transition")},
       {QObject::tr("Ctrl+Up Down"), QObject::tr("Move the state")}});
  add(QObject::tr("In the cut"),
      {{QObject::tr("Drag, wheel"), QObject::tr("Move it, a handle; zoom")},
       {QObject::tr("Right drag"), QObject::tr("Turn it; Page Up and Down push it")},
       {QObject::tr("Space, Alt+arrows"), QObject::tr("Choose a field or a zone; move it")}});
  for (const QAction* action : actions) {
    if (action->shortcut().isEmpty()) continue;
    const QString menu = action->data().toString();
    if (groups.back().heading != menu) groups.push_back({menu, {}});
    groups.back().rows.emplace_back(action->shortcut().toString(QKeySequence::NativeText),
                                    action->text().remove("&").remove("..."));
  }
  return groups;
}

// Into how few lines the groups go, whole and in their order, if a column has at most `most`.
bool fits(const std::vector<Group>& groups, int most) {
  int columns = 1, lines = 0;
  for (const Group& group : groups) {
    if (lines + group.lines() > most) {
      ++columns;
      lines = 0;
    }
    lines += group.lines();
    if (columns > kColumns || group.lines() > most) return false;
  }
  return true;
}

}  // namespace

ShortcutSheet::ShortcutSheet(const Bindings& bindings, const QList<QAction*>& actions, QWidget* parent)
    : QFrame(parent), bindings_(bindings), actions_(actions), area_(scrolled(new QWidget)) {
  setObjectName("sheet");
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("All keys"));
  area_->setHorizontalScrollBarPolicy(Qt::ScrollBarAsNeeded);
  area_->setFocusPolicy(Qt::NoFocus);
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->addWidget(area_);
  hide();
}

// Each time anew: keys can be changed. What belongs together stays in one column.
void ShortcutSheet::fill() {
  auto* content = new QWidget;
  auto* grid = new QGridLayout(content);
  grid->setContentsMargins(22, 4, 22, 4);
  grid->setHorizontalSpacing(12);
  grid->setVerticalSpacing(0);
  for (const int gap : {2, 5}) grid->setColumnMinimumWidth(gap, 18);
  auto* title = new QLabel(tr("Keys"));
  title->setObjectName("sheetTitle");
  grid->addWidget(title, 0, 0, 1, 3);
  auto* close = new QLabel(tr("F1 or Esc closes"));
  close->setObjectName("caption");
  grid->addWidget(close, 0, 6, 1, 2, Qt::AlignRight);
  const std::vector<Group> groups = groups_of(bindings_, actions_);
  int most = 1;
  while (!fits(groups, most)) ++most;
  int column = 0, lines = 0;
  for (const Group& group : groups) {
    if (lines + group.lines() > most) {
      column += 3;
      lines = 0;
    }
    auto* heading = new QLabel(group.heading);
    heading->setObjectName("sheetGroup");
    heading->setFixedHeight(kLine);
    grid->addWidget(heading, ++lines, column, 1, 2);
    for (const auto& [keys, text] : group.rows) {
      auto *key = new QLabel(keys), *does = new QLabel(text);
      key->setObjectName("key");
      for (QLabel* label : {key, does}) label->setFixedHeight(kLine);
      grid->addWidget(key, ++lines, column, Qt::AlignRight);
      grid->addWidget(does, lines, column + 1);
    }
  }
  area_->setWidget(content);
}

void ShortcutSheet::toggle() {
  if (isVisible()) return hide();
  fill();
  constexpr QSize kFrame(16, 4);  // And the bar with which it is scrolled.
  resize((area_->widget()->sizeHint() + kFrame).boundedTo(parentWidget()->size()));
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
