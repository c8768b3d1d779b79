// SPDX-License-Identifier: GPL-3.0-or-later
// The shown take beside its ghosts: what was changed, where they part and why, and what each came to.
#pragma once

#include <QWidget>

#include "session/take_desk.h"

class QLabel;
class QPushButton;
class QProgressBar;
class QTableWidget;

namespace lagniappe::app {

// Returns in a sentence how a ghost compares with the shown take.
QString verdict_text(const Recording& shown, const Ghost& ghost);

class GhostsPanel : public QWidget {
  Q_OBJECT
 public:
  GhostsPanel(TakeDesk& desk, DriveSession& session, QWidget* parent = nullptr);

  QString verdict() const;
  const QTableWidget& table() const { return *table_; }

 signals:
  void parting_asked();  // Both ledgers of the tick at which they part.

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void show_ghosts();
  void fill_table();
  void rename_pin(int column);
  void show_progress(double share);

  TakeDesk& desk_;
  DriveSession& session_;
  QLabel *verdict_, *drift_;
  QProgressBar* progress_;
  QPushButton *keep_, *put_back_, *pin_, *why_, *unchanged_, *cancel_;
  QTableWidget* table_;
};

}  // namespace lagniappe::app
