// SPDX-License-Identifier: GPL-3.0-or-later
// One rule for keys: they belong to what has the focus. What edits text gets what is typed, and the keys with
// which text is edited; lists, boxes and buttons get those that they are worked with; all else is the window's.
#pragma once

#include <QObject>

#include "keys/places.h"

class QWidget;

namespace lagniappe::app {

// Whether a key belongs to a widget that has the focus, although the window has a shortcut for it.
bool belongs_to(const QWidget& widget, const QKeyEvent& event);

// Holds the rule for a whole application, and marks repeats as what they are. Lives as long as it.
class KeyRule : public QObject {
 public:
  explicit KeyRule(QObject* application);
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  bool passes_as_repeat(QObject* window, const QKeyEvent& event);
  KeysDown down_;
};

}  // namespace lagniappe::app
