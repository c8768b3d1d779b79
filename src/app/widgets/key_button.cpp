// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/key_button.h"

namespace lagniappe::app {

KeyButton::KeyButton(std::function<void(const QKeyEvent&)> key, QWidget* parent)
    : KeyButton(Takes{std::move(key), {}, {}, tr("press a key")}, parent) {}

KeyButton::KeyButton(Takes takes, QWidget* parent) : QPushButton(parent), takes_(std::move(takes)) {
  setObjectName("keyButton");
  setFocusPolicy(Qt::StrongFocus);
  connect(this, &QPushButton::clicked, this, [this] { wait(true); });
}

void KeyButton::show_key(const QString& text) {
  key_ = text;
  wait(false);
}

void KeyButton::wait(bool waits) {
  waits_ = waits;
  if (waits) setFocus(Qt::OtherFocusReason);
  setText(waits ? takes_.prompt : key_.isEmpty() ? tr("none") : key_);
}

// While it waits everything that is pressed is its own, whatever it is a shortcut of.
bool KeyButton::event(QEvent* event) {
  if (!waits_) return QPushButton::event(event);
  if (event->type() == QEvent::MouseButtonPress && takes_.mouse) {
    wait(false);
    takes_.mouse(static_cast<QMouseEvent*>(event)->button());
    return true;
  }
  if (event->type() != QEvent::ShortcutOverride && event->type() != QEvent::KeyPress)
    return QPushButton::event(event);
  event->accept();
  return event->type() == QEvent::ShortcutOverride || take_key(*static_cast<QKeyEvent*>(event));
}

// Ctrl and Alt come with another one; Shift may come alone.
bool KeyButton::take_key(const QKeyEvent& event) {
  for (const int alone : {Qt::Key_Control, Qt::Key_Alt, Qt::Key_AltGr, Qt::Key_Meta, Qt::Key_unknown}) {
    if (event.key() == alone) return true;
  }
  const bool none = takes_.none && event.key() == Qt::Key_Backspace;
  if (!none && event.key() != Qt::Key_Escape && !takes_.key) return true;
  wait(false);
  if (event.key() == Qt::Key_Escape) return true;
  none ? takes_.none() : takes_.key(event);
  return true;
}

void KeyButton::focusOutEvent(QFocusEvent* event) {
  wait(false);
  QPushButton::focusOutEvent(event);
}

}  // namespace lagniappe::app
