// SPDX-License-Identifier: GPL-3.0-or-later
// A line to type a number into: arithmetic, a unit, arrow keys that nudge.
#pragma once

#include <QLineEdit>

namespace lagniappe::app {

class ValueField : public QLineEdit {
  Q_OBJECT
 public:
  ValueField(const QString& name, const QString& unit, QWidget* parent = nullptr);
  void show_value(double value);  // Not while it is being typed in.
  double value() const { return value_; }

 signals:
  void entered(double value);
  void refused(const QString& why);
  void nudged(double value, bool begins);  // begins: not by a key that repeats.
  void felt(double factor);                // Held for an extreme; 0: let go.
  void touched();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void keyReleaseEvent(QKeyEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  void commit();
  void put_text();

  QString unit_;
  double value_ = 0.0;
  bool feeling_ = false;
};

// A twentieth of the value, rounded to 1, 2 or 5.
double nudge_of(double value);

}  // namespace lagniappe::app
