// SPDX-License-Identifier: GPL-3.0-or-later
// Why two runs part: the ledgers of the same moment, side by side.
#pragma once

#include <QDialog>

#include "session/retaker.h"

namespace lagniappe::app {

class LedgerColumn;

class PartingDialog : public QDialog {
  Q_OBJECT
 public:
  PartingDialog(const Recording& shown, const Ghost& ghost, QWidget* parent);
  const LedgerColumn& left() const { return *left_; }
  const LedgerColumn& right() const { return *right_; }

 private:
  void show_tick(std::size_t tick);

  const Recording shown_;
  const Ghost ghost_;
  std::size_t tick_;
  LedgerColumn *left_, *right_;
};

}  // namespace lagniappe::app
