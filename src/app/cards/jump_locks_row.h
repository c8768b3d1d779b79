// SPDX-License-Identifier: GPL-3.0-or-later
// Height, time to apex, gravity and take-off speed of a jump: two are locked and stay, the others follow.
#pragma once

#include <QWidget>
#include <array>

#include "cards/drawings.h"
#include "cards/value_row.h"

class QToolButton;

namespace lagniappe::app {

class ValueField;

class JumpLocksRow : public QWidget {
  Q_OBJECT
 public:
  JumpLocksRow(JumpLocks& locks, ValuesDesk& desk, QWidget* parent = nullptr);

  // Height and gravity, which are values of the profile.
  std::vector<ValueRow*> rows() const { return {height_, gravity_}; }
  void show_profiles(const Profile& now, const Profile& reference);

 private:
  QToolButton* lock_button(JumpValue which);
  QWidget* follower(JumpValue which, ValueField* field);
  void lock(JumpValue which);
  void change(JumpValue which, double value, int gesture);

  JumpLocks& locks_;
  ValuesDesk& desk_;
  std::array<QToolButton*, 4> buttons_{};
  ValueRow *height_, *gravity_;
  ValueField *time_, *take_off_;
};

}  // namespace lagniappe::app
