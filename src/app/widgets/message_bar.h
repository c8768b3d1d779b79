// SPDX-License-Identifier: GPL-3.0-or-later
// A bar over the page that says what went wrong, or what is being done, until it is dismissed or over.
#pragma once

#include <QFrame>
#include <functional>

class QLabel;
class QPushButton;
class QProgressBar;

namespace lagniappe::app {

class MessageBar : public QFrame {
  Q_OBJECT
 public:
  explicit MessageBar(QWidget* parent = nullptr);

  void show_problem(const QString& title, const QString& sentence);
  // Something can be done about it: a button that says so, and does it.
  void show_offer(const QString& title, const QString& sentence, const QString& accept,
                  std::function<void()> does);
  void show_progress(double share);
  void show_busy(const QString& what);  // With a button that cancels.
  QString text() const;
  // Stands at the top right of a widget: what is short moves nothing, and stands where nobody works. Both have
  // one parent somewhere above.
  void stand_over(const QWidget& under);

 signals:
  void cancel_clicked();
  void accepted();

 private:
  void show_as(const char* name, bool busy);

  QLabel *title_, *sentence_;
  QProgressBar* progress_;
  QPushButton *button_, *accept_;
  bool busy_ = false;
  std::function<void()> offered_;
};

}  // namespace lagniappe::app
