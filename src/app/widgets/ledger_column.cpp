// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/ledger_column.h"

#include <QApplication>
#include <QClipboard>
#include <QEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>

#include "theme/text.h"
#include "theme/theme.h"
#include "widgets/velocity_row.h"

namespace lagniappe::app {
namespace {

constexpr int kLeastWidth = 250;
constexpr double kShown = 5e-3;  // m/s of change.

bool changes_next_to_nothing(const LedgerEntry& entry) {
  return std::holds_alternative<entry::Change>(entry) && length(velocity_change(entry)) < kShown;
}

constexpr int kRefused = Qt::UserRole;

// In the colours of the theme in force.
void colour(QListWidgetItem& item) {
  const bool refused = item.data(kRefused).toBool();
  item.setForeground(refused ? theme::brick() : theme::ink());
  item.setIcon(theme::icon(refused ? "x" : "dot", refused ? theme::brick() : theme::ink2()));
}

}  // namespace

LedgerColumn::LedgerColumn(QWidget* parent)
    : QWidget(parent),
      heading_(new QLabel),
      summary_(new QLabel),
      piece_(new QLabel),
      list_(new QListWidget),
      piece_bar_(make_piece_bar()) {
  setObjectName("ledger");
  setAttribute(Qt::WA_StyledBackground);
  setMinimumWidth(kLeastWidth);
  heading_->setObjectName("columnTitle");
  summary_->setObjectName("caption");
  summary_->setWordWrap(true);
  list_->setObjectName("sentences");
  list_->setAccessibleName(tr("Ledger of the tick"));
  list_->setWordWrap(true);
  list_->setItemDelegate(new VelocityRow(list_));
  list_->setSelectionMode(QAbstractItemView::SingleSelection);
  list_->setFocusPolicy(Qt::TabFocus);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  list_->setIconSize({14, 14});
  list_->setMouseTracking(true);
  list_->viewport()->installEventFilter(this);
  list_->installEventFilter(this);
  list_->setContextMenuPolicy(Qt::CustomContextMenu);
  connect(list_, &QWidget::customContextMenuRequested, this, &LedgerColumn::show_menu);
  list_->setToolTip(tr(
      "What the solver did in this tick, in order. A cross marks what was tried and refused: a click "
      "leads to the value that refused. Point at a line to see it in the view; a click in the view finds the "
      "line. Ctrl+C copies the chosen line, or all of them."));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 8, 6, 6);
  column->setSpacing(3);
  column->addWidget(heading_);
  column->addWidget(summary_);
  column->addWidget(list_, 1);
  column->addWidget(piece_bar_);
  heading_->setText(tr("Ledger"));
  show_nothing(tr("What the solver did in a tick, and why, is told here."));
  connect(list_, &QListWidget::itemEntered, this,
          [this](QListWidgetItem* item) { emit pointed_at(std::size_t(list_->row(item))); });
  const auto ask = [this](const QListWidgetItem* item) {
    if (item->data(kRefused).toBool()) emit refusal_asked(std::size_t(list_->row(item)));
  };
  connect(list_, &QListWidget::itemClicked, this, ask);
  connect(list_, &QListWidget::itemActivated, this, ask);
  connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
    if (row >= 0) emit pointed_at(std::size_t(row));
  });
}

QWidget* LedgerColumn::make_piece_bar() {
  auto* bar = new QWidget;
  piece_->setWordWrap(true);
  piece_->setObjectName("caption");
  auto* row = new QHBoxLayout(bar);
  row->setContentsMargins(0, 2, 0, 0);
  row->setSpacing(4);
  row->addWidget(piece_, 1);
  const auto button = [&](const char* icon, const QString& tip, auto does) {
    auto* made = new QToolButton;
    made->setIcon(theme::icon(icon));
    made->setToolTip(tip);
    made->setAccessibleName(tip);
    connect(made, &QToolButton::clicked, this, does);
    row->addWidget(made);
  };
  button("chevron-left", tr("To the touch before"), [this] { emit piece_asked(-1); });
  button("chevron-right", tr("To the next touch"), [this] { emit piece_asked(+1); });
  button("x", tr("Ask about no piece"), [this] { emit piece_left(); });
  bar->hide();
  return bar;
}

void LedgerColumn::show_nothing(const QString& why) {
  list_->clear();
  summary_->setText(why);
}

void LedgerColumn::show_tick(std::size_t tick, double seconds, const CharacterState& before,
                             const CharacterState& after, const Ledger& ledger, const World& world,
                             std::string_view state) {
  heading_->setText(tr("Tick %1").arg(tick));
  const QSignalBlocker quiet(list_);
  if (ledger.entries.empty()) return show_nothing(tr("The start. The next tick has what the solver did."));
  const QString on = qt(world.piece_name(after.ground.piece));
  summary_->setText(tr("%1, %2 s%3, from %4 to %5 m/s in the course")
                        .arg(qt(state))
                        .arg(seconds, 0, 'f', 3)
                        .arg(on.isEmpty() ? QString() : tr(", on %1").arg(on))
                        .arg(length(before.velocity_C), 0, 'f', 2)
                        .arg(length(after.velocity_C), 0, 'f', 2));
  show_entries(ledger, world);
  show_velocity(*list_->item(list_->count() - 1), before.velocity_C, after.velocity_C, ledger, kShown);
}

// Rows are kept where they can be; the last is the table of the velocity.
void LedgerColumn::show_entries(const Ledger& ledger, const World& world) {
  const int count = int(ledger.entries.size());
  if (list_->count() == 0) add_velocity_row();
  while (list_->count() > count + 1) delete list_->takeItem(count);
  while (list_->count() < count + 1) list_->insertItem(list_->count() - 1, new QListWidgetItem);
  list_->setCurrentRow(-1);
  list_->scrollToTop();
  for (int i = 0; i < count; ++i) {
    const LedgerEntry& entry = ledger.entries[std::size_t(i)];
    QListWidgetItem& item = *list_->item(i);
    const QString text = QString::fromStdString(to_sentence(entry, world));
    if (item.text() != text) item.setText(text);
    if (item.data(kRefused) != is_refusal(entry)) {
      item.setData(kRefused, is_refusal(entry));
      colour(item);
    }
    // Rows stay those of the ledger, so what is too little to matter is hidden, not left out.
    item.setHidden(changes_next_to_nothing(entry));
  }
}

// Under the sentences, where it has as much room as they have.
void LedgerColumn::add_velocity_row() {
  auto* item = new QListWidgetItem(list_);
  item->setFlags(Qt::NoItemFlags);
  item->setToolTip(
      tr("Where this tick's change of velocity comes from: along x, y and z of the course, in m/s. Less than "
         "5 mm/s is left out."));
}

void LedgerColumn::choose(std::optional<std::size_t> entry) {
  const QSignalBlocker quiet(list_);
  list_->setCurrentRow(entry ? int(*entry) : -1);
  if (entry) list_->scrollToItem(list_->currentItem());
}

std::optional<std::size_t> LedgerColumn::chosen() const {
  return list_->currentRow() < 0 ? std::nullopt : std::optional(std::size_t(list_->currentRow()));
}

void LedgerColumn::show_piece(const QString& text) {
  piece_->setText(text);
  piece_bar_->setVisible(!text.isEmpty());
}

void LedgerColumn::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  if (event->type() != QEvent::PaletteChange) return;
  for (int i = 0; i < list_->count(); ++i) {
    if (list_->item(i)->data(kRefused).isValid()) colour(*list_->item(i));
  }
}

// The chosen line, or where there is none all of the tick, with what it is of.
QString LedgerColumn::text_to_copy(bool all) const {
  const QListWidgetItem* line = list_->currentItem();
  if (!all && line != nullptr && !line->text().isEmpty()) return line->text();
  QStringList lines{heading() + ": " + summary_->text(), sentences().join("\n")};
  if (list_->count() > 0) lines += velocity_text(*list_->item(list_->count() - 1));
  return lines.join("\n");
}

void LedgerColumn::show_menu(const QPoint& at) {
  QMenu menu;
  const auto offer = [&](const QString& text, bool all) {
    connect(menu.addAction(text), &QAction::triggered, this,
            [this, all] { QApplication::clipboard()->setText(text_to_copy(all)); });
  };
  if (chosen()) offer(tr("Copy this sentence"), false);
  offer(tr("Copy all of this tick"), true);
  menu.exec(list_->viewport()->mapToGlobal(at));
}

bool LedgerColumn::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Leave && watched != list_) emit pointed_at(chosen());
  if (event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->matches(QKeySequence::Copy)) {
    QApplication::clipboard()->setText(text_to_copy(false));
    return true;
  }
  return QWidget::eventFilter(watched, event);
}

QStringList LedgerColumn::sentences() const {
  QStringList all;
  for (int i = 0; i < list_->count(); ++i) {
    if (!list_->item(i)->text().isEmpty()) all.append(list_->item(i)->text());
  }
  return all;
}

QString LedgerColumn::heading() const { return heading_->text(); }
QString LedgerColumn::piece_text() const { return piece_->text(); }

}  // namespace lagniappe::app
