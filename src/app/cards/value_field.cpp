// SPDX-License-Identifier: GPL-3.0-or-later
#include "cards/value_field.h"

#include <QKeyEvent>
#include <algorithm>
#include <cmath>

#include "cards/plain_number.h"
#include "session/expression.h"

namespace lagniappe::app {

double nudge_of(double value) {
  const double wanted = std::max(std::abs(value) / 20.0, 1e-4),
               power = std::pow(10.0, std::floor(std::log10(wanted)));
  const double part = wanted / power;
  return power * (part < 1.5 ? 1.0 : part < 3.5 ? 2.0 : part < 7.5 ? 5.0 : 10.0);
}

ValueField::ValueField(const QString& name, const QString& unit, QWidget* parent)
    : QLineEdit(parent), unit_(unit) {
  setObjectName(name);
  setAccessibleName(name);
  setProperty("number", true);
  setAlignment(Qt::AlignRight);
  connect(this, &QLineEdit::textEdited, this, [this] { setModified(true); });
}

void ValueField::show_value(double value) {
  value_ = value;
  if (!isModified()) put_text();
}

void ValueField::put_text() {
  const QString now = QString::number(value_, 'g', 6) + (unit_.isEmpty() ? QString() : " " + unit_);
  if (now == text() && !isModified()) return;
  setText(now);
  setModified(false);
  setCursorPosition(0);
}

void ValueField::commit() {
  if (!isModified()) return;
  const Evaluated evaluated = evaluate(text(), unit_, value_);
  setModified(false);
  if (evaluated.value) {
    emit entered(*evaluated.value);
  } else {
    emit refused(tr("\u201c%1\u201d: %2").arg(text(), evaluated.why));
  }
  put_text();
}

void ValueField::keyPressEvent(QKeyEvent* event) {
  const auto modifiers = event->modifiers();
  const double factor = modifiers & Qt::ShiftModifier ? 10.0 : modifiers & Qt::ControlModifier ? 0.1 : 1.0;
  switch (event->key()) {
    case Qt::Key_Up:
    case Qt::Key_Down: {
      commit();
      const double step = nudge_of(value_) * factor * (event->key() == Qt::Key_Up ? 1.0 : -1.0);
      // Kept free of the rounding of sums.
      const double unit = std::pow(10.0, std::floor(std::log10(std::abs(step))) - 1.0);
      return emit nudged(plain_number(value_ + step, unit), !event->isAutoRepeat());
    }
    case Qt::Key_PageUp:
    case Qt::Key_PageDown:
      if (event->isAutoRepeat()) return;
      feeling_ = true;
      return emit felt(event->key() == Qt::Key_PageUp ? 3.0 : 1.0 / 3.0);
    case Qt::Key_Return:
    case Qt::Key_Enter:
      commit();
      return selectAll();
    case Qt::Key_Escape:
      if (isModified()) return put_text();
      break;
    default:
      break;
  }
  QLineEdit::keyPressEvent(event);
}

void ValueField::keyReleaseEvent(QKeyEvent* event) {
  const bool page = event->key() == Qt::Key_PageUp || event->key() == Qt::Key_PageDown;
  if (!page) return QLineEdit::keyReleaseEvent(event);
  if (!event->isAutoRepeat() && std::exchange(feeling_, false)) emit felt(0.0);
}

void ValueField::focusInEvent(QFocusEvent* event) {
  QLineEdit::focusInEvent(event);
  emit touched();
}

void ValueField::focusOutEvent(QFocusEvent* event) {
  if (std::exchange(feeling_, false)) emit felt(0.0);
  QLineEdit::focusOutEvent(event);
  commit();
}

}  // namespace lagniappe::app
