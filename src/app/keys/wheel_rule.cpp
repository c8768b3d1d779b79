// SPDX-License-Identifier: GPL-3.0-or-later
#include "keys/wheel_rule.h"

#include <QAbstractSpinBox>
#include <QComboBox>
#include <QEvent>

namespace lagniappe::app {
namespace {

// What the wheel would change: a box, or the line inside of one.
QWidget* turned_by_wheel(QObject* watched) {
  for (QObject* at : {watched, watched->parent()}) {
    if (qobject_cast<QComboBox*>(at) != nullptr || qobject_cast<QAbstractSpinBox*>(at) != nullptr)
      return static_cast<QWidget*>(at);
  }
  return nullptr;
}

}  // namespace

WheelRule::WheelRule(QObject* application) : QObject(application) { application->installEventFilter(this); }

bool WheelRule::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Show) {
    QWidget* box = turned_by_wheel(watched);
    if (box == watched && box != nullptr && box->focusPolicy() == Qt::WheelFocus)
      box->setFocusPolicy(Qt::StrongFocus);
  } else if (event->type() == QEvent::Wheel) {
    const QWidget* box = turned_by_wheel(watched);
    if (box != nullptr && !box->hasFocus()) {
      event->ignore();  // It goes on to what scrolls.
      return true;
    }
  }
  return QObject::eventFilter(watched, event);
}

}  // namespace lagniappe::app
