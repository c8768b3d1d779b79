// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/signals_pane.h"

#include <QHeaderView>
#include <QLineEdit>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "theme/text.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr qint64 kEvery = 100;  // ms between two looks while driving: numbers must be readable.

}  // namespace

SignalsPane::SignalsPane(StatesDesk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), search_(new QLineEdit), list_(new QTreeWidget) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  search_->setPlaceholderText(tr("Find a signal"));
  search_->setClearButtonEnabled(true);
  list_->setObjectName("changes");
  list_->setAccessibleName(tr("Signals"));
  list_->setColumnCount(3);
  list_->setHeaderLabels({tr("signal"), tr("value"), tr("unit")});
  list_->setRootIsDecorated(false);
  list_->setUniformRowHeights(true);
  list_->setIndentation(0);
  list_->setFrameShape(QFrame::NoFrame);
  list_->setFont(theme::number_font(11));
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->header()->resizeSection(0, 158);
  list_->header()->resizeSection(1, 78);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(10, 8, 4, 4);
  column->setSpacing(6);
  column->addWidget(search_);
  column->addWidget(list_, 1);
  connect(search_, &QLineEdit::textChanged, this, &SignalsPane::filter);
  connect(&desk_, &StatesDesk::table_changed, this, &SignalsPane::fill);
  connect(&desk_, &StatesDesk::moved, this, &SignalsPane::show_values);
  connect(&desk_, &StatesDesk::firings_changed, this, &SignalsPane::show_values);
  shown_.start();
  fill();
}

void SignalsPane::fill() {
  list_->clear();
  const auto add = [this](const QString& key, const QString& unit, const QString& help) {
    auto* item = new QTreeWidgetItem(list_, {key, QString(), unit});
    item->setTextAlignment(1, Qt::AlignRight);
    for (int c = 0; c < 3; ++c) item->setToolTip(c, help);
  };
  for (const Signal& s : all_signals()) add(qt(s.key), qt(s.unit), qt(s.name) + ": " + qt(s.help));
  for (const std::string& slot : desk_.table().memory)
    add("memory." + QString::fromStdString(slot), {}, tr("A slot of this table."));
  filter();
  show_values();
}

void SignalsPane::filter() {
  for (int i = 0; i < list_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* item = list_->topLevelItem(i);
    const QString all = item->text(0) + " " + item->toolTip(0);
    item->setHidden(!all.contains(search_->text().trimmed(), Qt::CaseInsensitive));
  }
}

void SignalsPane::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  shown_.invalidate();
  show_values();
}

void SignalsPane::show_values() {
  if (!isVisible() || (desk_.is_live() && shown_.isValid() && shown_.elapsed() < kEvery)) return;
  shown_.start();
  const auto& all = all_signals();
  const std::vector<double> values = desk_.signal_values();
  for (int i = 0; i < list_->topLevelItemCount(); ++i) {
    const auto at = std::size_t(i);
    const bool yes_no = at < all.size() && all[at].yes_no;
    const QString text = at >= values.size() ? QString("\u2013")
                         : yes_no            ? (values[at] != 0.0 ? tr("true") : tr("false"))
                                             : QString::number(values[at], 'f', 3);
    list_->topLevelItem(i)->setText(1, text);
  }
}

QString SignalsPane::value_of(const QString& key) const {
  const auto found = list_->findItems(key, Qt::MatchExactly, 0);
  return found.isEmpty() ? QString() : found.front()->text(1);
}

}  // namespace lagniappe::app
