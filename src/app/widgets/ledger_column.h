// SPDX-License-Identifier: GPL-3.0-or-later
// The ledger of one tick as a list of sentences, beside the view.
#pragma once

#include <QWidget>

#include "lagniappe/ledger.h"

class QLabel;
class QListWidget;

namespace lagniappe::app {

class LedgerColumn : public QWidget {
  Q_OBJECT
 public:
  explicit LedgerColumn(QWidget* parent = nullptr);

  // Shows what the tick that ended in `state` did; an empty ledger means that none has passed yet.
  void show_tick(const CharacterState& state, const Ledger& ledger, const World& world);

  QStringList sentences() const;  // As shown, top to bottom.
  QString heading() const;

 private:
  QLabel* heading_;
  QLabel* summary_;
  QListWidget* list_;
};

}  // namespace lagniappe::app
