// SPDX-License-Identifier: GPL-3.0-or-later
// Parts in a row, which goes on in another row where the width ends.
#pragma once

#include <QLayout>
#include <QList>

namespace lagniappe::app {

class FlowLayout : public QLayout {
 public:
  explicit FlowLayout(QWidget* parent, int spacing);
  ~FlowLayout() override;

  void add_gap(int width);  // Between the part before and the one after, if they are in one row.

  void addItem(QLayoutItem* item) override { items_.append(item); }
  int count() const override { return int(items_.size()); }
  QLayoutItem* itemAt(int index) const override { return items_.value(index); }
  QLayoutItem* takeAt(int index) override;
  Qt::Orientations expandingDirections() const override { return {}; }
  bool hasHeightForWidth() const override { return true; }
  int heightForWidth(int width) const override { return placed({0, 0, width, 0}, false); }
  QSize minimumSize() const override;
  QSize sizeHint() const override { return minimumSize(); }
  void setGeometry(const QRect& rect) override;

 private:
  int placed(const QRect& rect, bool really) const;  // Returns the height that it takes.
  QList<QLayoutItem*> items_;
};

}  // namespace lagniappe::app
