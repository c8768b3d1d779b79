// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/flow_layout.h"

#include <QSpacerItem>
#include <QWidget>

namespace lagniappe::app {

FlowLayout::FlowLayout(QWidget* parent, int spacing) : QLayout(parent) { setSpacing(spacing); }

FlowLayout::~FlowLayout() { qDeleteAll(items_); }

void FlowLayout::add_gap(int width) { addItem(new QSpacerItem(width, 1)); }

QLayoutItem* FlowLayout::takeAt(int index) {
  return index >= 0 && index < items_.size() ? items_.takeAt(index) : nullptr;
}

QSize FlowLayout::minimumSize() const {
  QSize least;
  for (const QLayoutItem* item : items_) least = least.expandedTo(item->minimumSize());
  const QMargins m = contentsMargins();
  return least.grownBy(m);
}

void FlowLayout::setGeometry(const QRect& rect) {
  QLayout::setGeometry(rect);
  placed(rect, true);
}

int FlowLayout::placed(const QRect& rect, bool really) const {
  const QRect inside = rect.marginsRemoved(contentsMargins());
  int x = inside.left(), y = inside.top(), row = 0;
  for (QLayoutItem* item : items_) {
    const QSize size = item->sizeHint().boundedTo(QSize(inside.width(), QWIDGETSIZE_MAX));
    const bool gap = item->spacerItem() != nullptr;
    if (item->widget() != nullptr && item->widget()->isHidden()) continue;
    if (x > inside.left() && x + size.width() > inside.right() + 1) {
      x = inside.left();
      y += row + spacing();
      row = 0;
      if (gap) continue;
    }
    if (really) item->setGeometry({QPoint(x, y), size});
    x += size.width() + (gap ? 0 : spacing());
    row = std::max(row, size.height());
  }
  return y + row - rect.top() + contentsMargins().bottom();
}

}  // namespace lagniappe::app
