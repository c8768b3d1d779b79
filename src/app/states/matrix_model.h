// SPDX-License-Identifier: GPL-3.0-or-later
// The matrix for item views, and how its cells are painted.
#pragma once

#include <QAbstractTableModel>
#include <QStyledItemDelegate>
#include <map>
#include <tuple>

#include "session/states_desk.h"

namespace lagniappe::app {

class MatrixModel : public QAbstractTableModel {
  Q_OBJECT
 public:
  explicit MatrixModel(StatesDesk& desk, QObject* parent = nullptr);

  int rowCount(const QModelIndex& parent = {}) const override;
  int columnCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;
  QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

 private:
  QString tip(std::size_t source, std::size_t column) const;
  StatesDesk& desk_;
};

class MatrixDelegate : public QStyledItemDelegate {
  Q_OBJECT
 public:
  explicit MatrixDelegate(StatesDesk& desk, QObject* parent = nullptr)
      : QStyledItemDelegate(parent), desk_(desk) {}
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;

 private:
  void paint_guards(QPainter& painter, const QRect& area, const StateMatrix::Cell& cell) const;
  void paint_count(QPainter& painter, const QRect& area, const StateMatrix::Cell& cell) const;
  const QStringList& lines(const QString& text, const QFont& font, int width, int most) const;
  StatesDesk& desk_;
  mutable std::map<std::tuple<QString, int, int, bool>, QStringList> laid_out_;
};

}  // namespace lagniappe::app
