// SPDX-License-Identifier: GPL-3.0-or-later
// A bar over the page that says what went wrong, or what is being done, until it is dismissed or over.
#pragma once

#include <QFrame>
#include <QTimer>
#include <functional>
#include <optional>

class QLabel;
class QPushButton;
class QProgressBar;

namespace lagniappe::app {

class MessageBar : public QFrame {
  Q_OBJECT
 public:
  explicit MessageBar(QWidget* parent = nullptr);

  // `about`: what settles it, see settle(); empty: only who reads it, or what is told next.
  void show_problem(const QString& title, const QString& sentence, const QString& about = {});
  // What a problem was about is right now: it goes.
  void settle(const QString& about);
  bool is_problem() const { return !busy_ && !offered_; }
  // Something can be done about it: a button that says so, and does it.
  void show_offer(const QString& title, const QString& sentence, const QString& accept,
                  std::function<void()> does, std::function<void()> declined = {});
  void show_progress(double share);
  // With a button that cancels, over a widget; without a share nobody knows how long it takes.
  void show_busy(const QString& what, const QWidget& over, std::optional<double> share = {});
  // Nothing went wrong; it stands over a widget and goes by itself. What is being done comes first.
  void show_note(const QString& what, const QWidget& over);
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
  QTimer note_;
  std::function<void()> offered_, declined_;
  QString about_;
};

}  // namespace lagniappe::app
