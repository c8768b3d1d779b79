// SPDX-License-Identifier: GPL-3.0-or-later
// The matrix on the screen: a grid that is walked with the arrow keys; states are dragged by their headers.
#pragma once

#include <QHeaderView>
#include <QTableView>

#include "states/matrix_model.h"

namespace lagniappe::app {

// Names in the colours that states have everywhere.
class StateHeader : public QHeaderView {
  Q_OBJECT
 public:
  StateHeader(StatesDesk& desk, Qt::Orientation orientation, QWidget* parent);

 signals:
  void state_moved(std::size_t from, std::size_t to);

 protected:
  void paintSection(QPainter* painter, const QRect& rect, int section) const override;

 private:
  std::optional<StateId> state_of(int section) const;
  void section_moved(int section, int from, int to);
  StatesDesk& desk_;
  bool putting_back_ = false;
};

class MatrixView : public QTableView {
  Q_OBJECT
 public:
  explicit MatrixView(StatesDesk& desk, QWidget* parent = nullptr);

  QRect cell_rect(std::size_t source, std::size_t column) const;  // In the viewport.

 signals:
  void edit_asked();                // The guard of the chosen cell.
  void state_asked(StateId state);  // By its header.
  void remove_asked();
  void state_moved(std::size_t from, std::size_t to);

 protected:
  bool event(QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void currentChanged(const QModelIndex& current, const QModelIndex& previous) override;

 private:
  void fit();
  void show_chosen();
  void show_now();
  StatesDesk& desk_;
  bool showing_ = false;
  std::optional<StateId> shown_now_;  // The state under the playhead, as it is drawn.
};

}  // namespace lagniappe::app
