// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/phase_pane.h"

#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>
#include <QVBoxLayout>

#include "theme/text.h"

namespace lagniappe::app {
namespace {

enum Column { Phase, Moved, Changed, Told, kColumns };

// "(+0.01, 0, -0.07)"; a dash where nothing was changed.
QString vector_text(const Vec3& v, int digits) {
  const double least = 0.5 * std::pow(10.0, -digits);
  if (std::abs(v.x) < least && std::abs(v.y) < least && std::abs(v.z) < least) return "-";
  const auto part = [&](double x) {
    return std::abs(x) < least ? QString("0") : QString::number(x, 'f', digits);
  };
  return QString("%1  %2  %3").arg(part(v.x), part(v.y), part(v.z));
}

}  // namespace

PhasePane::PhasePane(DriveSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      table_(new QTableWidget(int(kTickPhases.size()), kColumns)),
      title_(new QLabel),
      words_(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  title_->setObjectName("caption");
  title_->setContentsMargins(12, 4, 12, 0);
  table_->setHorizontalHeaderLabels({tr("phase"), tr("moved, cm"), tr("velocity, m/s"), tr("told")});
  table_->verticalHeader()->setDefaultSectionSize(22);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setShowGrid(false);
  table_->setMinimumHeight(120);
  table_->setAccessibleName(tr("Phases of the tick"));
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  table_->horizontalHeader()->setSectionResizeMode(Changed, QHeaderView::Stretch);
  for (int row = 0; row < table_->rowCount(); ++row) {
    for (int c = 0; c < kColumns; ++c) table_->setItem(row, c, new QTableWidgetItem);
    table_->item(row, Phase)->setText(qt(kTickPhases[std::size_t(row)]));
  }
  words_->setObjectName("caption");
  words_->setWordWrap(true);
  words_->setContentsMargins(12, 0, 12, 6);
  words_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) { show_words(row); });
  column->addWidget(title_);
  column->addWidget(table_, 1);
  column->addWidget(words_);
  table_->setCurrentCell(6, 0);
}

void PhasePane::refresh() {
  const std::pair now(session_.revision(), session_.playhead());
  if (!session_.has_shown() || shown_ == now) return;
  shown_ = now;
  show_phases();
}

void PhasePane::show_phases() {
  if (session_.playhead() == 0) {
    phases_.clear();
    title_->setText(
        tr("The start: no tick has been yet. Set the playhead to one, on the Drive page or with . and ,"));
  } else {
    ledger_ = session_.last_ledger();
    phases_ = tick_phases(session_.previous(), session_.current(), ledger_);
    title_->setText(tr("Tick %1 at %2")
                        .arg(session_.playhead())
                        .arg(seconds_text(double(session_.playhead()) / session_.shown().run.tick_rate(), 3)));
  }
  for (std::size_t p = 0; p < kTickPhases.size(); ++p) {
    const bool there = p < phases_.size();
    const int row = int(p);
    table_->item(row, Moved)->setText(there ? vector_text(phases_[p].moved_C * 1e2, 2) : QString());
    table_->item(row, Changed)->setText(there ? vector_text(phases_[p].changed_C, 3) : QString());
    table_->item(row, Told)->setText(there ? QString::number(phases_[p].entries.size()) : QString());
  }
  if (!phases_.empty()) {
    const Vec2 turned(wrap_angle(session_.current().yaw - session_.previous().yaw),
                      session_.current().pitch - session_.previous().pitch);
    if (turned != Vec2(0.0))
      table_->item(0, Changed)
          ->setText(
              tr("turned %1° and %2°").arg(degrees(turned.x), 0, 'f', 2).arg(degrees(turned.y), 0, 'f', 2));
  }
  show_words(table_->currentRow());
}

void PhasePane::show_words(int row) {
  QString text;
  if (row >= 0 && std::size_t(row) < phases_.size()) {
    for (const std::size_t i : phases_[std::size_t(row)].entries)
      text += QString::fromStdString(to_sentence(ledger_.entries[i], session_.place()->world)) + "\n";
    if (text.isEmpty()) text = tr("Nothing was to be done.");
  }
  words_->setText(text);
}

QString PhasePane::words() const { return words_->text(); }

}  // namespace lagniappe::app
