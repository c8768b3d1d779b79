// SPDX-License-Identifier: GPL-3.0-or-later
// Shows a key, and takes another one: after a click (or Space) the next key that is pressed, Esc leaves it as
// it was.
#pragma once

#include <QKeyEvent>
#include <QPushButton>
#include <functional>

namespace lagniappe::app {

class KeyButton : public QPushButton {
  Q_OBJECT
 public:
  // `take`: gets the key that was pressed.
  explicit KeyButton(std::function<void(const QKeyEvent&)> take, QWidget* parent = nullptr);

  void show_key(const QString& text);
  bool waits() const { return waits_; }

 protected:
  bool event(QEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  void wait(bool waits);

  std::function<void(const QKeyEvent&)> take_;
  QString key_;
  bool waits_ = false;
};

}  // namespace lagniappe::app
