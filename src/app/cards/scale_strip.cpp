// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/scale_strip.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "cards/plain_number.h"
#include "theme/theme.h"

namespace lagniappe::app {
namespace {

constexpr double kBeyond = 0.25;   // Of the sane range, on each side.
constexpr double kEdge = 6.0;      // Pixels.
constexpr double kSteps = 1000.0;  // A drag goes by thousandths of the scale, rounded to a plain number.

// Rounded to a number of few digits, by the size of what one pixel is worth.
double plain(double value, double worth) {
  const double unit = std::pow(10.0, std::floor(std::log10(std::max(worth, 1e-12))));
  return plain_number(value, unit);
}

}  // namespace

ScaleStrip::ScaleStrip(const ProfileField& field, QWidget* parent) : QWidget(parent), field_(field) {
  const double beyond = kBeyond * (field.sane_high - field.sane_low);
  low_ = std::max(field.low, field.sane_low - beyond);
  high_ = std::min(field.high, field.sane_high + beyond);
  standard_ = field.typed(Profile{});
  setFixedHeight(12);
  setCursor(Qt::SizeHorCursor);
}

void ScaleStrip::show_values(double now, double reference) {
  if (now == now_ && reference == reference_) return;
  now_ = now;
  reference_ = reference;
  update();
}

double ScaleStrip::x_of(double value) const {
  const double share = std::clamp((value - low_) / (high_ - low_), 0.0, 1.0);
  return kEdge + share * (width() - 2.0 * kEdge);
}

double ScaleStrip::value_at(double x) const {
  const double share = std::clamp((x - kEdge) / (width() - 2.0 * kEdge), 0.0, 1.0);
  const double value = plain(low_ + share * (high_ - low_), (high_ - low_) / kSteps * 4.0);
  return std::clamp(field_.unit == Unit::Count ? std::round(value) : value, field_.low, field_.high);
}

void ScaleStrip::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const double middle = 0.5 * height();
  painter.setPen(QPen(theme::rule(), 1.0));
  painter.drawLine(QPointF(kEdge, middle), QPointF(width() - kEdge, middle));
  painter.setPen(QPen(theme::moss(), 3.0, Qt::SolidLine, Qt::FlatCap));
  painter.drawLine(QPointF(x_of(field_.sane_low), middle), QPointF(x_of(field_.sane_high), middle));
  painter.setPen(QPen(theme::ink2(), 1.0));
  painter.drawLine(QPointF(x_of(standard_), middle - 5.0), QPointF(x_of(standard_), middle + 5.0));
  if (reference_ != now_) {
    painter.setBrush(theme::sheet());
    painter.setPen(QPen(theme::gold().darker(115), 1.5));
    const double x = x_of(reference_);
    painter.drawPolygon(
        QPolygonF({{x, middle - 4.5}, {x + 4.5, middle}, {x, middle + 4.5}, {x - 4.5, middle}}));
  }
  const bool outside = now_ < field_.sane_low || now_ > field_.sane_high;
  const double x = x_of(now_);
  painter.setPen(QPen(theme::sheet(), 1.0));
  painter.setBrush(outside ? theme::brick() : theme::teal());
  if (now_ < low_) {
    painter.drawPolygon(QPolygonF({{x - 5.0, middle}, {x + 4.0, middle - 5.0}, {x + 4.0, middle + 5.0}}));
  } else if (now_ > high_) {
    painter.drawPolygon(QPolygonF({{x + 5.0, middle}, {x - 4.0, middle - 5.0}, {x - 4.0, middle + 5.0}}));
  } else {
    painter.drawEllipse(QPointF(x, middle), 4.5, 4.5);
  }
}

void ScaleStrip::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) emit dragged(value_at(event->position().x()), true);
}

void ScaleStrip::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) emit dragged(value_at(event->position().x()), false);
}

}  // namespace lagniappe::app
