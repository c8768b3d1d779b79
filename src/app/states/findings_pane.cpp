// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/findings_pane.h"

#include <QLabel>
#include <QListWidget>
#include <QProgressBar>
#include <QPushButton>
#include <QVBoxLayout>

#include "theme/theme.h"

namespace lagniappe::app {

FindingsPane::FindingsPane(StatesDesk& desk, QWidget* parent)
    : QWidget(parent),
      desk_(desk),
      hint_(new QLabel(
          tr("The check runs the takes of the study, and a million ticks with random sticks and buttons "
             "from all marks of this course, and counts what of the table they use."))),
      summary_(new QLabel),
      check_(new QPushButton(theme::icon("route"), tr("Check the table"))),
      cancel_(new QPushButton(theme::icon("x"), tr("Cancel"))),
      progress_(new QProgressBar),
      list_(new QListWidget) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  for (QLabel* label : {hint_, summary_}) label->setWordWrap(true);
  hint_->setObjectName("caption");
  progress_->setTextVisible(false);
  progress_->setRange(0, 1000);
  list_->setObjectName("sentences");
  list_->setWordWrap(true);
  list_->setAccessibleName(tr("Remarks on the table"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 8, 8);
  column->setSpacing(6);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(check_, 1);
  buttons->addWidget(cancel_);
  column->addWidget(hint_);
  column->addLayout(buttons);
  column->addWidget(progress_);
  column->addWidget(summary_);
  column->addWidget(list_, 1);
  connect(check_, &QPushButton::clicked, this, [this] {
    desk_.check();
    show_running();
  });
  connect(cancel_, &QPushButton::clicked, &desk_, &StatesDesk::cancel_check);
  connect(&desk_, &StatesDesk::check_progress, this, [this](double share) {
    progress_->setValue(int(1000 * share));
    show_running();
  });
  connect(&desk_, &StatesDesk::checked, this, &FindingsPane::show_findings);
  connect(&desk_, &StatesDesk::table_changed, this, &FindingsPane::show_findings);
  connect(list_, &QListWidget::currentRowChanged, this, &FindingsPane::go_to);
  show_findings();
}

QStringList FindingsPane::lines() const {
  QStringList all;
  for (int i = 0; i < list_->count(); ++i) all.append(list_->item(i)->text());
  return all;
}

QString FindingsPane::summary() const { return summary_->text(); }

void FindingsPane::show_running() {
  const bool running = desk_.checking();
  check_->setEnabled(!running);
  cancel_->setVisible(running);
  progress_->setVisible(running);
  if (!running) progress_->setValue(0);
}

void FindingsPane::show_findings() {
  show_running();
  findings_ = desk_.findings();
  const QSignalBlocker quiet(list_);
  list_->clear();
  for (const TableFinding& f : findings_) list_->addItem(QString::fromStdString(f.text));
  if (const TableUse* use = desk_.use()) {
    const auto used = std::count_if(use->rows.begin(), use->rows.end(),
                                    [](const TableUse::Row& r) { return r.fired_in_all() > 0; });
    const auto entered =
        std::count_if(use->ticks_in.begin(), use->ticks_in.end(), [](std::size_t n) { return n > 0; });
    summary_->setText(tr("In %L1 ticks: %2 of %3 states entered, %4 of %5 transitions taken.")
                          .arg(use->ticks)
                          .arg(entered)
                          .arg(use->ticks_in.size())
                          .arg(used)
                          .arg(use->rows.size()));
  } else {
    summary_->setText(findings_.empty() ? tr("As it stands there is nothing to remark on the table.")
                                        : tr("As the table stands:"));
  }
}

// The cell, or the state, that the remark is about.
void FindingsPane::go_to(int line) {
  if (line < 0 || std::size_t(line) >= findings_.size()) return;
  const TableFinding& f = findings_[std::size_t(line)];
  if (f.row) {
    const auto [source, column] = desk_.matrix().place_of(*f.row);
    desk_.choose(CellPlace{source, column});
  } else if (f.state && f.other) {
    desk_.choose(CellPlace{desk_.matrix().source_of(*f.state), std::size_t(*f.other)});
  } else if (f.state) {
    emit state_asked(*f.state);
  }
}

}  // namespace lagniappe::app
