// SPDX-License-Identifier: GPL-3.0-or-later
#include "widgets/key_button.h"

namespace lagniappe::app {

KeyButton::KeyButton(std::function<void(const QKeyEvent&)> take, QWidget* parent)
    : QPushButton(parent), take_(std::move(take)) {
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
  setText(waits ? tr("press a key") : key_.isEmpty() ? tr("none") : key_);
}

// While it waits every key is its own, whatever it is a shortcut of. Ctrl and Alt come with another one; Shift
// may come alone.
bool KeyButton::event(QEvent* event) {
  if (!waits_ || (event->type() != QEvent::ShortcutOverride && event->type() != QEvent::KeyPress))
    return QPushButton::event(event);
  event->accept();
  if (event->type() == QEvent::ShortcutOverride) return true;
  const auto* key = static_cast<QKeyEvent*>(event);
  for (const int alone : {Qt::Key_Control, Qt::Key_Alt, Qt::Key_AltGr, Qt::Key_Meta, Qt::Key_unknown}) {
    if (key->key() == alone) return true;
  }
  wait(false);
  if (key->key() != Qt::Key_Escape) take_(*key);
  return true;
}

void KeyButton::focusOutEvent(QFocusEvent* event) {
  wait(false);
  QPushButton::focusOutEvent(event);
}

}  // namespace lagniappe::app
