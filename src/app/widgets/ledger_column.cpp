// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/ledger_column.h"

#include <QLabel>
#include <QListWidget>
#include <QVBoxLayout>

#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr int kWidth = 330;

QString qt(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

}  // namespace

LedgerColumn::LedgerColumn(QWidget* parent)
    : QWidget(parent), heading_(new QLabel), summary_(new QLabel), list_(new QListWidget) {
  setObjectName("ledger");
  setAttribute(Qt::WA_StyledBackground);
  setFixedWidth(kWidth);
  heading_->setObjectName("columnTitle");
  summary_->setObjectName("caption");
  summary_->setWordWrap(true);
  list_->setObjectName("sentences");
  list_->setWordWrap(true);
  list_->setSelectionMode(QAbstractItemView::NoSelection);
  list_->setFocusPolicy(Qt::TabFocus);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  list_->setSpacing(2);
  list_->setIconSize({14, 14});
  list_->setToolTip(
      tr("What the solver did in this tick, in order. A cross marks what was tried and refused."));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(14, 12, 8, 8);
  column->setSpacing(4);
  column->addWidget(heading_);
  column->addWidget(summary_);
  column->addWidget(list_, 1);
}

void LedgerColumn::show_tick(const CharacterState& state, const Ledger& ledger, const World& world) {
  heading_->setText(tr("Ledger of tick %1").arg(state.tick));
  list_->clear();
  if (ledger.entries.empty()) {
    summary_->setText(tr("No tick has passed here yet. Press . to let one pass."));
    return;
  }
  const QString on = qt(world.piece_name(state.ground.piece));
  summary_->setText(tr("%1, %2 s, %3 m/s%4")
                        .arg(qt(name_of(state.state)))
                        .arg(state.time, 0, 'f', 3)
                        .arg(length(state.velocity_C), 0, 'f', 2)
                        .arg(on.isEmpty() ? QString() : tr(", on %1").arg(on)));
  for (const LedgerEntry& entry : ledger.entries) {
    const bool refused = is_refusal(entry);
    auto* item = new QListWidgetItem(QString::fromStdString(to_sentence(entry, world)), list_);
    item->setForeground(refused ? theme::kBrick : theme::kInk);
    item->setIcon(theme::icon(refused ? "x" : "dot", refused ? theme::kBrick : theme::kInk2));
  }
}

QStringList LedgerColumn::sentences() const {
  QStringList all;
  for (int i = 0; i < list_->count(); ++i) all.append(list_->item(i)->text());
  return all;
}

QString LedgerColumn::heading() const { return heading_->text(); }

}  // namespace lagniappe::app
