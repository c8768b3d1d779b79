// SPDX-License-Identifier: GPL-3.0-or-later
// The ledger of one tick as a list of sentences, beside the view.
#pragma once

#include <QWidget>

#include "session/drive_session.h"

class QLabel;
class QListWidget;

namespace lagniappe::app {

class LedgerColumn : public QWidget {
  Q_OBJECT
 public:
  explicit LedgerColumn(QWidget* parent = nullptr);

  // Shows the session's last tick; does nothing if it shows that already.
  void show_tick(const DriveSession& session);

  QStringList sentences() const;  // As shown, top to bottom.
  QString heading() const;

 private:
  QLabel* heading_;
  QLabel* summary_;
  QListWidget* list_;
  std::uint64_t tick_ = 0;
  const Place* place_ = nullptr;
  bool shown_ = false;
};

}  // namespace lagniappe::app
