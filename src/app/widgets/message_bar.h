// SPDX-License-Identifier: GPL-3.0-or-later
// A bar over the page that says what went wrong, or what is being done, until it is dismissed or over.
#pragma once

#include <QFrame>

class QLabel;
class QPushButton;
class QProgressBar;

namespace lagniappe::app {

class MessageBar : public QFrame {
  Q_OBJECT
 public:
  explicit MessageBar(QWidget* parent);

  void show_problem(const QString& title, const QString& sentence);
  void show_busy(const QString& what);  // With a button that cancels.
  QString text() const;

 signals:
  void cancel_clicked();

 private:
  void show_as(const char* name, bool busy);

  QLabel *title_, *sentence_;
  QProgressBar* progress_;
  QPushButton* button_;
  bool busy_ = false;
};

}  // namespace lagniappe::app
