// SPDX-License-Identifier: GPL-3.0-or-later
// Says whether something is as the built-in table has it, and puts it back.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "session/table_base.h"

namespace lagniappe::app {

class BaseLine : public QWidget {
  Q_OBJECT
 public:
  explicit BaseLine(QWidget* parent = nullptr);
  // `what`: in the middle of a sentence, as "the state".
  void show_standing(Standing standing, const QString& what);
  void show_text(const QString& text, bool may_put_back);  // Empty: hidden.
  QString text() const { return label_->text(); }
  QPushButton& button() { return *back_; }

 signals:
  void put_back();

 private:
  QLabel* label_;
  QPushButton* back_;
};

}  // namespace lagniappe::app
