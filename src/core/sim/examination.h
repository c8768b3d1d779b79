// SPDX-License-Identifier: MIT
// Looks at one tick after the other: what happened in it, and whether a person should know.
#pragma once

#include "lagniappe/run.h"

namespace lagniappe {

class Examination {
 public:
  Examination(Run& run, const InputFrame& input, const CharacterState& before, const CharacterState& after,
              const Ledger& ledger, const Profile& profile);
  void examine();

 private:
  void read_ledger();
  void find_flicker();
  void find_stuck();
  void find_stuck_in_air();
  void find_pop();
  void find_speed_loss();
  void find_deep_push_out();
  void find_view_jerk();
  void find_missed_jump();
  void add_once(Finding::Kind kind, StateId state, const std::string& note);
  void touch(PieceId piece);
  void close_touches();
  void add(Finding finding);
  std::size_t ticks_of(double seconds) const;
  bool within(std::size_t since, double seconds) const {
    return since > 0 && tick_ - since <= ticks_of(seconds);
  }

  Run& run_;
  Run::Watch& watch_;
  const InputFrame& input_;
  const CharacterState &before_, &after_;
  const Ledger& ledger_;
  const Profile& profile_;
  std::size_t tick_;
  double dt_;
  Events events_;
  Vec3 intent_C_{0.0};
  double landing_loss_ = 0.0, landed_at_ = 0.0;  // m/s.
  bool took_speed_ = false, held_back_ = false;  // Something in the ledger takes speed.
};

}  // namespace lagniappe
