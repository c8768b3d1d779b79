// SPDX-License-Identifier: GPL-3.0-or-later
// The signals that ask a program to end (SIGTERM, SIGHUP, SIGINT), heard in the event loop, where all that an
// end needs may be done.
#pragma once

#include <QObject>

namespace lagniappe::app {

class CleanEnd : public QObject {
  Q_OBJECT
 public:
  explicit CleanEnd(QObject* parent = nullptr);  // One for a program.

 signals:
  void asked();
};

}  // namespace lagniappe::app
