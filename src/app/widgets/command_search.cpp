// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/command_search.h"

#include <QAction>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kWidth = 520, kHeight = 380;

QString name_of(const QAction& action) { return QString(action.text()).remove('&').remove("..."); }

// Every word must begin a word of the name, or else stand somewhere in it. Less is better; negative: not found.
int rank(const QString& name, const QString& wanted) {
  int total = 0;
  for (const QString& word : wanted.split(' ', Qt::SkipEmptyParts)) {
    const auto at = name.indexOf(word, 0, Qt::CaseInsensitive);
    if (at < 0) return -1;
    const bool begins = at == 0 || !name[at - 1].isLetterOrNumber();
    total += int(at) + (begins ? 0 : 100);
  }
  return total;
}

}  // namespace

CommandSearch::CommandSearch(std::function<QList<QAction*>()> actions, QWidget* parent)
    : QFrame(parent), actions_(std::move(actions)), field_(new QLineEdit), list_(new QListWidget) {
  setObjectName("sheet");
  setFixedSize(kWidth, kHeight);
  field_->setPlaceholderText(tr("What do you want to do?"));
  field_->setObjectName("commandField");
  field_->installEventFilter(this);
  list_->setObjectName("commands");
  list_->setFocusPolicy(Qt::NoFocus);
  list_->setIconSize({16, 16});
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(14, 14, 14, 14);
  column->addWidget(field_);
  column->addWidget(list_, 1);
  connect(field_, &QLineEdit::textChanged, this, &CommandSearch::fill);
  connect(list_, &QListWidget::itemClicked, this, &CommandSearch::run_current);
  hide();
}

void CommandSearch::open() {
  field_->clear();
  fill({});
  move((parentWidget()->width() - width()) / 2, std::max(0, parentWidget()->height() / 8));
  show();
  raise();
  field_->setFocus(Qt::PopupFocusReason);
}

void CommandSearch::fill(const QString& wanted) {
  std::vector<std::pair<int, QAction*>> ranked;
  for (QAction* action : actions_()) {
    const int r = rank(name_of(*action) + " " + action->toolTip(), wanted),
              by_name = rank(name_of(*action), wanted);
    if (r >= 0) ranked.emplace_back(by_name >= 0 ? by_name : 1000 + r, action);
  }
  std::stable_sort(ranked.begin(), ranked.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  QPixmap nothing(16, 16);
  nothing.fill(Qt::transparent);
  const QIcon blank(nothing);  // So that the names stand under each other.
  found_.clear();
  list_->clear();
  for (const auto& [r, action] : ranked) {
    found_.append(action);
    const QString keys = action->shortcut().toString(QKeySequence::NativeText);
    const QString on = action->isCheckable() ? (action->isChecked() ? tr("  (on)") : tr("  (off)")) : QString();
    auto* item = new QListWidgetItem(name_of(*action) + on + (keys.isEmpty() ? "" : "    " + keys), list_);
    item->setIcon(action->icon().isNull() ? blank : action->icon());
    if (action->isEnabled()) continue;
    item->setFlags(Qt::NoItemFlags);
    item->setForeground(theme::kInk2);
  }
  list_->setCurrentRow(found_.isEmpty() ? -1 : 0);
}

void CommandSearch::run_current() {
  const int row = list_->currentRow();
  hide();
  parentWidget()->setFocus();
  if (row < 0 || row >= found_.size() || !found_[row]->isEnabled()) return;
  // After this event: the action may open a dialog.
  QTimer::singleShot(0, found_[row], &QAction::trigger);
}

bool CommandSearch::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::FocusOut) hide();
  if (event->type() != QEvent::KeyPress) return QFrame::eventFilter(watched, event);
  switch (static_cast<QKeyEvent*>(event)->key()) {
    case Qt::Key_Escape:
      hide();
      parentWidget()->setFocus();
      return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      run_current();
      return true;
    case Qt::Key_Down:
      list_->setCurrentRow(std::min(list_->currentRow() + 1, list_->count() - 1));
      return true;
    case Qt::Key_Up:
      list_->setCurrentRow(std::max(list_->currentRow() - 1, 0));
      return true;
    default:
      return false;
  }
}

}  // namespace lagniappe::app
