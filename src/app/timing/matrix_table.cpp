// SPDX-License-Identifier: GPL-3.0-or-later
#include "timing/matrix_table.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "theme/focus_ring.h"
#include "theme/theme.h"
#include "timing/badge.h"

namespace lagniappe::app {
namespace {

constexpr double kHeadWide = 104.0, kAside = 8.0, kHeadHigh = 24.0, kLeastHigh = 20.0;
constexpr double kDarkest = 0.42;  // Share of gold.
// Beside the number: the steps of the frames of a strip, where there is room.
constexpr double kNumberWide = 84.0, kBadgeWide = 26.0, kLeastBars = 26.0, kMostBars = 96.0;

QColor mixed(const QColor& from, const QColor& to, double share) {
  const auto part = [&](double a, double b) { return a + (b - a) * share; };
  return QColor::fromRgbF(float(part(from.redF(), to.redF())), float(part(from.greenF(), to.greenF())),
                          float(part(from.blueF(), to.blueF())));
}

}  // namespace

MatrixTable::MatrixTable(TimingDesk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), drawing_(desk.b().drawing) {
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(420, int(kHeadHigh + 6 * kLeastHigh));
  setAccessibleName(tr("Matrix of tick rates and draw rates"));
  setAccessibleDescription(tr("Arrow keys choose a cell; A takes it to compare with"));
  connect(&desk, &TimingDesk::measured, this, qOverload<>(&QWidget::update));
  connect(&desk, &TimingDesk::chosen, this, qOverload<>(&QWidget::update));
}

void MatrixTable::set_drawing(std::size_t drawing) {
  drawing_ = drawing;
  TimingCell cell = desk_.b();
  cell.drawing = drawing;
  desk_.choose(cell);
}

MatrixTable::Layout MatrixTable::layout_in(const QSizeF& size) const {
  const TimingStudy* study = desk_.study();
  const double columns = study != nullptr ? double(study->ask.draw_rates.size()) : 1.0,
               rows = study != nullptr ? double(study->ask.tick_rates.size()) : 1.0;
  return {kHeadWide, kHeadHigh, (size.width() - kHeadWide) / columns, (size.height() - kHeadHigh) / rows};
}

QRectF MatrixTable::cell_rect(std::size_t tick_rate, std::size_t draw_rate) const {
  return layout_in(size()).cell(tick_rate, draw_rate);
}

double MatrixTable::value(std::size_t row, std::size_t column) const {
  return shown_figures()[desk_.figure()].get(desk_.study()->row({row, column, drawing_}).figures);
}

QString MatrixTable::text_of(std::size_t row, std::size_t column) const {
  const ShownFigure& figure = shown_figures()[desk_.figure()];
  const TimingRow& of = desk_.study()->row({row, column, drawing_});
  if (QString(figure.name) == "input age" && of.figures.age.presses == 0) return tr("no press");
  return QString("%1 %2").arg(value(row, column), 0, 'f', figure.digits).arg(figure.unit);
}

std::pair<double, double> MatrixTable::range() const {
  const TimingAsk& ask = desk_.study()->ask;
  double low = INFINITY, high = 0.0;
  for (std::size_t row = 0; row < ask.tick_rates.size(); ++row) {
    for (std::size_t column = 0; column < ask.draw_rates.size(); ++column) {
      low = std::min(low, std::abs(value(row, column)));
      high = std::max(high, std::abs(value(row, column)));
    }
  }
  return {low, high};
}

void MatrixTable::paint_heads(QPainter& painter, const Layout& at) const {
  const TimingAsk& ask = desk_.study()->ask;
  const auto head = [&](const QRectF& rect, const QString& strong, const QString& weak) {
    painter.setFont(theme::text_font(12, true));
    painter.setPen(theme::ink());
    QRectF taken;
    painter.drawText(rect, Qt::AlignLeft | Qt::AlignVCenter, strong, &taken);
    painter.setFont(theme::number_font(11));
    painter.setPen(theme::ink2());
    painter.drawText(rect.adjusted(taken.width() + 8.0, 0.0, -8.0, 0.0), Qt::AlignRight | Qt::AlignVCenter,
                     weak);
  };
  for (std::size_t c = 0; c < ask.draw_rates.size(); ++c)
    head({at.left + at.wide * double(c) + 8.0, 0.0, at.wide - 8.0, at.top},
         tr("%1 frames/s").arg(ask.draw_rates[c], 0, 'g', 4),
         tr("%1 ms").arg(1e3 / ask.draw_rates[c], 0, 'f', 1));
  for (std::size_t r = 0; r < ask.tick_rates.size(); ++r)
    head({kAside, at.top + at.high * double(r), at.left - kAside, at.high}, QString::number(ask.tick_rates[r]),
         tr("%1 ms").arg(1e3 / ask.tick_rates[r], 0, 'f', 1));
  painter.setFont(theme::text_font(11));
  painter.setPen(theme::ink2());
  painter.drawText(QRectF(kAside, 0.0, at.left - 8.0, at.top), Qt::AlignLeft | Qt::AlignVCenter, tr("ticks/s"));
}

bool MatrixTable::has_bars() const { return layout_in(size()).wide > kNumberWide + kBadgeWide + kLeastBars; }

// Bars: what each frame goes. Line: what it should.
void MatrixTable::paint_steps(QPainter& painter, const QRectF& rect, const TimingCell& cell) const {
  const double left = rect.left() + kNumberWide, room = rect.right() - kBadgeWide - left;
  const double right = left + std::min(room, kMostBars), foot = rect.bottom() - 4.0, high = rect.height() - 9.0;
  if (room < kLeastBars) return;
  const std::vector<FrameStep> steps = desk_.steps(cell);
  double most = 1e-6;
  for (const FrameStep& step : steps) most = std::max({most, step.drawn, step.exact});
  const double wide = (right - left) / std::max(double(steps.size()), 1.0);
  QColor bar = theme::ink2();
  bar.setAlpha(150);
  QPolygonF line;
  for (std::size_t i = 0; i < steps.size(); ++i) {
    const double x = left + wide * double(i), drawn = high * steps[i].drawn / most;
    painter.fillRect(QRectF(x, foot - drawn, wide > 3.0 ? wide - 1.0 : wide * 0.8, drawn), bar);
    line.append({x + 0.5 * wide, foot - high * steps[i].exact / most});
  }
  painter.setPen(QPen(theme::ink(), 1.0));
  painter.setBrush(Qt::NoBrush);
  painter.drawPolyline(line);
}

void MatrixTable::paint_mark(QPainter& painter, const QRectF& rect, bool is_b) const {
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(is_b ? theme::teal() : theme::brick(), 2, is_b ? Qt::SolidLine : Qt::DashLine));
  painter.drawRoundedRect(rect.adjusted(1, 1, -1, -1), 5, 5);
  paint_badge(painter, {rect.right() - 22.0, rect.center().y() - 8.0, 16.0, 16.0}, is_b);
}

void MatrixTable::paint_cell(QPainter& painter, const QRectF& rect, std::size_t row, std::size_t column) const {
  const auto [low, high] = range();
  // By its order of magnitude; what is less than a three hundredth of the worst is all alike.
  constexpr double kRange = 300.0;
  const double least = std::max({low, high / kRange, 1e-9}), v = std::max(std::abs(value(row, column)), least);
  const double share = high > 1.02 * least ? std::log(v / least) / std::log(high / least) : 0.0;
  painter.setPen(theme::rule());
  painter.setBrush(mixed(theme::sheet(), theme::gold(), kDarkest * std::clamp(share, 0.0, 1.0)));
  painter.drawRoundedRect(rect, 4, 4);
  painter.setPen(theme::ink());
  painter.setFont(theme::number_font(12));
  painter.drawText(rect.adjusted(9, 0, -24, 0), Qt::AlignLeft | Qt::AlignVCenter, text_of(row, column));
}

void MatrixTable::paint(QPainter& painter, const QSizeF& size) const {
  if (desk_.study() == nullptr) return;
  painter.setRenderHint(QPainter::Antialiasing);
  const Layout at = layout_in(size);
  paint_heads(painter, at);
  const TimingAsk& ask = desk_.study()->ask;
  for (std::size_t row = 0; row < ask.tick_rates.size(); ++row) {
    for (std::size_t column = 0; column < ask.draw_rates.size(); ++column) {
      const QRectF rect = at.cell(row, column).adjusted(3, 2, -1, -2);
      paint_cell(painter, rect, row, column);
      const TimingCell cell{row, column, drawing_};
      paint_steps(painter, rect, cell);
      const TimingCell a = desk_.a();
      if (a.tick_rate == row && a.draw_rate == column && cell != desk_.b()) paint_mark(painter, rect, false);
      if (cell == desk_.b()) paint_mark(painter, rect, true);
    }
  }
}

void MatrixTable::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  paint(painter, size());
  theme::paint_focus(painter, *this);
}

void MatrixTable::mousePressEvent(QMouseEvent* event) {
  setFocus(Qt::MouseFocusReason);
  if (desk_.study() == nullptr) return;
  const TimingAsk& ask = desk_.study()->ask;
  for (std::size_t row = 0; row < ask.tick_rates.size(); ++row) {
    for (std::size_t column = 0; column < ask.draw_rates.size(); ++column) {
      if (!cell_rect(row, column).contains(event->position())) continue;
      const TimingCell cell{row, column, drawing_};
      const bool compares = event->modifiers() & Qt::ShiftModifier || event->button() == Qt::RightButton;
      return compares ? desk_.compare_with(cell) : desk_.choose(cell);
    }
  }
}

void MatrixTable::move_by(int rows, int columns) {
  TimingCell cell = desk_.b();
  const TimingAsk& ask = desk_.study()->ask;
  const auto moved = [](std::size_t at, int by, std::size_t count) {
    return std::size_t(std::clamp(int(at) + by, 0, int(count) - 1));
  };
  cell.tick_rate = moved(cell.tick_rate, rows, ask.tick_rates.size());
  cell.draw_rate = moved(cell.draw_rate, columns, ask.draw_rates.size());
  desk_.choose(cell);
}

void MatrixTable::keyPressEvent(QKeyEvent* event) {
  if (desk_.study() == nullptr || (event->modifiers() & ~Qt::KeypadModifier) != 0)
    return QWidget::keyPressEvent(event);
  switch (event->key()) {
    case Qt::Key_Left:
      return move_by(0, -1);
    case Qt::Key_Right:
      return move_by(0, 1);
    case Qt::Key_Up:
      return move_by(-1, 0);
    case Qt::Key_Down:
      return move_by(1, 0);
    case Qt::Key_A:
      return desk_.compare_with(desk_.b());
    default:
      QWidget::keyPressEvent(event);
  }
}

}  // namespace lagniappe::app
