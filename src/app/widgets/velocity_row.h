// SPDX-License-Identifier: GPL-3.0-or-later
// A row of a list that is a small table of numbers: where a tick's change of velocity comes from.
#pragma once

#include <QStyledItemDelegate>

#include "lagniappe/ledger.h"

class QListWidgetItem;

namespace lagniappe::app {

// Paints the rows that `show_velocity` wrote; others as any list does.
class VelocityRow : public QStyledItemDelegate {
  Q_OBJECT
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
};

// One row for each cause, so that the eye can add them up: before, what was added, after; m/s along the
// course's axes. What is less than `least` is left out.
void show_velocity(QListWidgetItem& item, const Vec3& before_C, const Vec3& after_C, const Ledger& ledger,
                   double least);
// The same as text, a line for each row.
QString velocity_text(const QListWidgetItem& item);

}  // namespace lagniappe::app
