// SPDX-License-Identifier: GPL-3.0-or-later
#include "states/change_log.h"

#include <QHeaderView>
#include <QLabel>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "states/guard_words.h"
#include "theme/plain_tip.h"
#include "theme/state_colours.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr std::size_t kMostLines = 2000;  // Older ones are on the tape.

QIcon dot(const QColor& colour) {
  QPixmap pixmap(10, 10);
  pixmap.fill(colour);
  return QIcon(pixmap);
}

}  // namespace

ChangeLog::ChangeLog(StatesDesk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), hint_(new QLabel), list_(new QTreeWidget) {
  setObjectName("sidePage");
  setAttribute(Qt::WA_StyledBackground);
  hint_->setObjectName("caption");
  hint_->setWordWrap(true);
  list_->setObjectName("changes");
  list_->setAccessibleName(tr("Changes of state"));
  list_->setColumnCount(3);
  list_->setHeaderLabels({tr("at"), tr("change"), tr("what let it")});
  list_->setRootIsDecorated(false);
  list_->setUniformRowHeights(true);
  list_->setIndentation(0);
  list_->setFrameShape(QFrame::NoFrame);
  list_->setFont(theme::number_font(11));
  list_->setIconSize(QSize(9, 9));
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->header()->resizeSection(0, 66);
  list_->header()->resizeSection(1, 118);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 6, 4, 4);
  column->setSpacing(4);
  column->addWidget(hint_);
  column->addWidget(list_, 1);
  connect(list_, &QTreeWidget::itemClicked, this,
          [this](QTreeWidgetItem* item) { desk_.show_tick(item->data(0, Qt::UserRole).toULongLong()); });
  connect(&desk_, &StatesDesk::firings_changed, this, &ChangeLog::show_firings);
  connect(&desk_, &StatesDesk::table_changed, this, [this] {
    shown_ = 0;
    show_firings();
  });
  connect(&desk_, &StatesDesk::moved, this, &ChangeLog::show_playhead);
}

int ChangeLog::lines() const { return list_->topLevelItemCount(); }

QString ChangeLog::line(int n) const {
  const QTreeWidgetItem* item = list_->topLevelItem(n);
  return item->text(0) + "  " + item->text(1) + "  " + item->text(2);
}

void ChangeLog::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  show_firings();
}

void ChangeLog::show_firings() {
  if (!isVisible()) return;
  const auto& firings = desk_.firings();
  // Lines are only added while the same take goes on.
  const bool goes_on =
      shown_ > 0 && shown_ <= firings.size() && lines() > 0 &&
      list_->topLevelItem(lines() - 1)->data(0, Qt::UserRole).toULongLong() == firings[shown_ - 1].tick;
  if (!goes_on) {
    list_->clear();
    shown_ = firings.size() > kMostLines ? firings.size() - kMostLines : 0;
  }
  QList<QTreeWidgetItem*> items;
  for (; shown_ < firings.size(); ++shown_) {
    const Firing& f = firings[shown_];
    auto* item =
        new QTreeWidgetItem({desk_.time_text(f.tick), firing_words(desk_, f), firing_guard_words(desk_, f)});
    item->setData(0, Qt::UserRole, qulonglong(f.tick));
    item->setIcon(1, dot(theme::state_colour(f.to, desk_.chart())));
    for (int c = 0; c < 3; ++c) item->setToolTip(c, plain_tip(item->text(2)));
    items.append(item);
  }
  list_->addTopLevelItems(items);
  list_->scrollToBottom();
  hint_->setText(desk_.subject() == nullptr
                     ? tr("This take was driven by another table; drive on, or look at its retake.")
                 : firings.empty()           ? tr("Nothing has changed its state yet: drive.")
                 : desk_.subject_is_retake() ? tr("Changes of state in the retake under the changed table")
                                             : tr("Changes of state in this take"));
}

void ChangeLog::show_playhead() {
  if (!isVisible() || lines() == 0) return;
  const std::size_t at = desk_.tick();
  for (int i = lines() - 1; i >= 0; --i) {
    if (list_->topLevelItem(i)->data(0, Qt::UserRole).toULongLong() > at) continue;
    list_->setCurrentItem(list_->topLevelItem(i));
    return;
  }
  list_->setCurrentItem(nullptr);
}

}  // namespace lagniappe::app
