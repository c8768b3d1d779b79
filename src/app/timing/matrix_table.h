// SPDX-License-Identifier: GPL-3.0-or-later
// One figure at every tick rate (down) and draw rate (across), as numbers on shaded ground. A cell is chosen by
// a click or the arrow keys; A, or a click with Shift, takes it to compare with.
#pragma once

#include <QWidget>

#include "timing/timing_desk.h"

namespace lagniappe::app {

class MatrixTable : public QWidget {
  Q_OBJECT
 public:
  explicit MatrixTable(TimingDesk& desk, QWidget* parent = nullptr);

  std::size_t drawing() const { return drawing_; }
  void set_drawing(std::size_t drawing);

  // For tests and tools.
  QRectF cell_rect(std::size_t tick_rate, std::size_t draw_rate) const;
  QString text_of(std::size_t tick_rate, std::size_t draw_rate) const;
  bool has_bars() const;  // There is room for the steps of frames.
  // Paints it into any size, as for a file.
  void paint(QPainter& painter, const QSizeF& size) const;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void focusInEvent(QFocusEvent* event) override { update(), QWidget::focusInEvent(event); }
  void focusOutEvent(QFocusEvent* event) override { update(), QWidget::focusOutEvent(event); }

 private:
  struct Layout {
    double left, top, wide, high;
    QRectF cell(std::size_t row, std::size_t column) const {
      return {left + wide * double(column), top + high * double(row), wide, high};
    }
  };
  Layout layout_in(const QSizeF& size) const;
  double value(std::size_t row, std::size_t column) const;
  std::pair<double, double> range() const;
  void paint_heads(QPainter& painter, const Layout& at) const;
  void paint_cell(QPainter& painter, const QRectF& rect, std::size_t row, std::size_t column) const;
  void paint_steps(QPainter& painter, const QRectF& rect, const TimingCell& cell) const;
  void paint_mark(QPainter& painter, const QRectF& rect, bool is_b) const;
  void move_by(int rows, int columns);

  TimingDesk& desk_;
  std::size_t drawing_ = 1;
};

}  // namespace lagniappe::app
