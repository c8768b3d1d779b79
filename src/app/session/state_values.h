// SPDX-License-Identifier: GPL-3.0-or-later
// The values in force in one state, for cards: what is changed here becomes what the state overrides.
#pragma once

#include "session/states_desk.h"
#include "session/values_desk.h"

namespace lagniappe::app {

class StateValues : public ValuesDesk {
  Q_OBJECT
 public:
  StateValues(StatesDesk& states, HandlingDesk& handling, QObject* parent = nullptr);

  void show_state(StateId state);
  StateId state() const { return state_; }

  const Profile& now() const override { return now_; }
  const Profile& saved() const override { return handling_.now(); }
  QString saved_name() const override { return tr("the profile's value"); }
  const Profile& reference() const override { return handling_.now(); }
  QString reference_name() const override { return tr("in the profile"); }
  bool set(const Profile& profile, const QString& what, int gesture = 0) override;
  void set_note(const QString& path, const QString& note) override { handling_.set_note(path, note); }
  int new_gesture() override { return handling_.new_gesture(); }
  void feel(double factor) override;
  void stop_feeling() override { handling_.stop_feeling(); }

  // Whether a state may have a value of its own.
  static bool may_differ(const std::string& path);

 private:
  void take_values();

  StatesDesk& states_;
  HandlingDesk& handling_;
  StateId state_{};
  Profile now_;
};

}  // namespace lagniappe::app
