// SPDX-License-Identifier: GPL-3.0-or-later
// Shows a key, a mouse button or a pad's control, and takes another one: after a click (or Space) the next one
// that is pressed. Esc leaves it as it was.
#pragma once

#include <QKeyEvent>
#include <QPushButton>
#include <functional>

namespace lagniappe::app {

class KeyButton : public QPushButton {
  Q_OBJECT
 public:
  // `key` gets the key that was pressed; else `mouse` the mouse button. Where none of them is there, who knows
  // the device tells by taken(). `none`: is called for Backspace.
  struct Takes {
    std::function<void(const QKeyEvent&)> key;
    std::function<void(Qt::MouseButton)> mouse;
    std::function<void()> none;
    QString prompt;
  };
  explicit KeyButton(std::function<void(const QKeyEvent&)> key, QWidget* parent = nullptr);
  explicit KeyButton(Takes takes, QWidget* parent = nullptr);

  void show_key(const QString& text);
  bool waits() const { return waits_; }
  void taken() { wait(false); }

 protected:
  bool event(QEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  void wait(bool waits);
  bool take_key(const QKeyEvent& event);

  Takes takes_;
  QString key_;
  bool waits_ = false;
};

}  // namespace lagniappe::app
