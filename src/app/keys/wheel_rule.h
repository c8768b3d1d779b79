// SPDX-License-Identifier: GPL-3.0-or-later
// One rule for the wheel: it scrolls what one looks at, and turns a list or a number only after one has clicked
// into it.
#pragma once

#include <QObject>

namespace lagniappe::app {

// Holds the rule for a whole application, and lives as long as it.
class WheelRule : public QObject {
 public:
  explicit WheelRule(QObject* application);
  bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace lagniappe::app
