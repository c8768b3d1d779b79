// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/command_search.h"

#include <QAction>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QPointer>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

#include "theme/plain_tip.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kWidth = 520, kHeight = 380;
constexpr std::size_t kMostFound = 200;  // More is not read.

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

SearchEntry entry_of(QAction& action) {
  SearchEntry entry;
  entry.name = name_of(action);
  entry.about = action.toolTip();
  entry.where = action.data().toString();
  const QString keys = action.shortcut().toString(QKeySequence::NativeText);
  const QString on = action.isChecked() ? QAction::tr("(on)") : QAction::tr("(off)");
  entry.beside = (action.isCheckable() ? on + "  " : QString()) + keys;
  entry.icon = action.icon();
  entry.enabled = action.isEnabled();
  entry.go = [action = QPointer(&action)] {
    if (action != nullptr) action->trigger();
  };
  return entry;
}

CommandSearch::CommandSearch(std::function<std::vector<SearchEntry>()> entries, QWidget* parent)
    : QFrame(parent), entries_of_(std::move(entries)), field_(new QLineEdit), list_(new QListWidget) {
  setObjectName("sheet");
  setFixedSize(kWidth, kHeight);
  field_->setPlaceholderText(tr("What do you want to do, or where to go?"));
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
  entries_ = entries_of_();
  const QSignalBlocker quiet(field_);
  field_->clear();
  fill({});
  move((parentWidget()->width() - width()) / 2, std::max(0, parentWidget()->height() / 8));
  show();
  raise();
  field_->setFocus(Qt::PopupFocusReason);
}

// Without a word only what can be done is listed: all that has a name would be too much to read.
void CommandSearch::fill(const QString& wanted) {
  std::vector<std::pair<int, const SearchEntry*>> ranked;
  for (const SearchEntry& entry : entries_) {
    if (wanted.trimmed().isEmpty() && !entry.kind.isEmpty()) continue;
    const int by_name = rank(entry.name, wanted),
              r = rank(entry.kind + " " + entry.name + " " + entry.about, wanted);
    if (r >= 0) ranked.emplace_back(by_name >= 0 ? by_name : 1000 + r, &entry);
  }
  std::stable_sort(ranked.begin(), ranked.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  if (ranked.size() > kMostFound) ranked.resize(kMostFound);
  found_.clear();
  list_->clear();
  for (const auto& [r, entry] : ranked) {
    found_.push_back(entry);
    add(*entry);
  }
  list_->setCurrentRow(found_.empty() ? -1 : 0);
  if (!found_.empty()) return;
  auto* nothing = new QListWidgetItem(tr("Nothing here is called \u201c%1\u201d").arg(wanted.trimmed()), list_);
  nothing->setFlags(Qt::NoItemFlags);
}

void CommandSearch::add(const SearchEntry& entry) {
  QPixmap nothing(16, 16);
  nothing.fill(Qt::transparent);  // So that the names stand under each other.
  const QString kind = entry.kind.isEmpty() || entry.where.isEmpty() ? entry.kind + entry.where
                                                                     : entry.kind + ": " + entry.where;
  QStringList said = {entry.name, kind, entry.beside};
  said.removeAll(QString());
  auto* item = new QListWidgetItem(said.join("    "), list_);
  item->setIcon(entry.icon.isNull() ? QIcon(nothing) : entry.icon);
  item->setToolTip(plain_tip(entry.about));
  if (entry.enabled) return;
  item->setFlags(Qt::NoItemFlags);
  item->setForeground(theme::ink2());
}

void CommandSearch::run_current() {
  const int row = list_->currentRow();
  hide();
  parentWidget()->setFocus();
  if (row < 0 || std::size_t(row) >= found_.size() || !found_[std::size_t(row)]->enabled) return;
  // After this event: it may open a dialog.
  QTimer::singleShot(0, this, found_[std::size_t(row)]->go);
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
