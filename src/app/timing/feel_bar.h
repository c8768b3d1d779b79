// SPDX-License-Identifier: GPL-3.0-or-later
// Driving at a tick rate, a draw rate, a way to draw and with hitches of one's own choice, and how far what is
// drawn is from where the body is.
#pragma once

#include <QWidget>

#include "actions.h"
#include "session/drive_session.h"
#include "session/heart.h"

class QComboBox;
class QDoubleSpinBox;
class QLabel;

namespace lagniappe::app {

class FeelBar : public QWidget {
  Q_OBJECT
 public:
  enum class Hitches { None, Random, Measured };

  FeelBar(DriveSession& session, Heart& heart, const Actions& actions, QWidget* parent = nullptr);

  void refresh();                                  // Once a beat.
  void hitch();                                    // One, as long as is set.
  void set_measured(std::vector<double> lengths);  // s of one frame after the other.
  Hitches hitches() const;
  double gap() const { return gap_; }  // m, as of the last beat.
  QComboBox& method() { return *method_; }
  QComboBox& kinds() { return *kinds_; }
  QLabel& words() { return *words_; }
  void show_drawing();  // After it was chosen elsewhere.

 signals:
  void frames_asked();  // A file of measured frames.

 private:
  void choose_method(int row);
  void delay_next();

  DriveSession& session_;
  Heart& heart_;
  QComboBox *method_, *kinds_;
  QDoubleSpinBox* length_;
  QLabel *rates_, *words_;
  std::vector<double> measured_;
  std::size_t frame_ = 0;
  std::uint64_t seed_ = 1;
  double next_random_ = 0.0, gap_ = 0.0;
};

}  // namespace lagniappe::app
