// SPDX-License-Identifier: GPL-3.0-or-later
// The heights of the jumps in the air, one by one.
#pragma once

#include <QWidget>
#include <array>

#include "session/values_desk.h"

class QLabel;

namespace lagniappe::app {

class ValueField;

class AirJumpsRow : public QWidget {
  Q_OBJECT
 public:
  static constexpr int kMost = 4;  // Later ones are as high as the last.

  explicit AirJumpsRow(ValuesDesk& desk, QWidget* parent = nullptr);
  void show_profile(const Profile& now);

 private:
  void change(int jump, double height, int gesture);

  ValuesDesk& desk_;
  std::array<QWidget*, kMost> lines_;
  std::array<ValueField*, kMost> fields_;
};

}  // namespace lagniappe::app
