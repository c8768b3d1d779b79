// SPDX-License-Identifier: GPL-3.0-or-later
#include "panels/parting_dialog.h"

#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "lagniappe/states.h"
#include "panels/ghosts_panel.h"
#include "widgets/ledger_column.h"

namespace lagniappe::app {
namespace {

void fill(LedgerColumn& column, const Recording& recording, std::size_t tick) {
  const Run& run = recording.run;
  column.show_tick(tick, double(tick) / run.tick_rate(), run.state(tick > 0 ? tick - 1 : 0), run.state(tick),
                   ledger_at(recording, tick), recording.place->world,
                   name_of(run.state(tick).state, recording.take.profile));
}

}  // namespace

PartingDialog::PartingDialog(const Recording& shown, const Ghost& ghost, QWidget* parent)
    : QDialog(parent),
      shown_(shown),
      ghost_(ghost),
      tick_(ghost.against.parting.value_or(0)),
      left_(new LedgerColumn),
      right_(new LedgerColumn) {
  setWindowTitle(tr("Why they part"));
  resize(860, 460);
  auto* text = new QLabel(verdict_text(shown, ghost));
  text->setWordWrap(true);
  auto* names = new QHBoxLayout;
  for (const QString& name : {tr("<b>Take</b>"), tr("<b>Retake</b>: %1").arg(ghost.name.toHtmlEscaped())}) {
    auto* label = new QLabel(name);
    label->setTextFormat(Qt::RichText);
    names->addWidget(label, 1);
  }
  auto* columns = new QHBoxLayout;
  columns->addWidget(left_, 1);
  columns->addWidget(right_, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  const auto step_button = [&](const QString& name, int by) {
    auto* made = buttons->addButton(name, QDialogButtonBox::ActionRole);
    connect(made, &QPushButton::clicked, this, [this, by] {
      if (by < 0 && tick_ == 0) return;
      show_tick(std::min(tick_ + std::size_t(by), shown_.run.ticks()));
    });
  };
  step_button(tr("Tick before"), -1);
  step_button(tr("Tick after"), +1);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  auto* column = new QVBoxLayout(this);
  column->addWidget(text);
  column->addLayout(names);
  column->addLayout(columns, 1);
  column->addWidget(buttons);
  show_tick(tick_);
}

void PartingDialog::show_tick(std::size_t tick) {
  tick_ = tick;
  fill(*left_, shown_, tick);
  fill(*right_, *ghost_.recording, tick_at(shown_.run, tick, ghost_.recording->run));
}

}  // namespace lagniappe::app
