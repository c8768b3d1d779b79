// SPDX-License-Identifier: MIT
// Where a velocity comes from: what each phase changed, told so that a tick's entries sum to its change.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Tells what changed the velocity by itself, if there is anything to tell.
inline void tell_change(const StepContext& context, entry::Change::Why why, const Vec3& change_C) {
  constexpr double kNothing = 1e-7;  // m/s.
  if (context.ledger != nullptr && length_squared(change_C) > kNothing * kNothing)
    context.note(entry::Change{why, change_C});
}

// While a tick is under way: what a state's velocity has become since the last telling, less what entries since
// then have told already. Costs nothing without a ledger.
class VelocityLog {
 public:
  VelocityLog(const StepContext& context, const CharacterState& state) : context_(context), state_(state) {
    if (context_.ledger != nullptr) remember();
  }

  void rest_is(entry::Change::Why why) {
    if (context_.ledger == nullptr) return;
    Vec3 rest = against_course() - was_C_;
    const auto& entries = context_.ledger->entries;
    for (std::size_t i = told_; i < entries.size(); ++i) rest -= velocity_change(entries[i]);
    tell_change(context_, why, rest);
    remember();
  }

 private:
  Vec3 against_course() const { return state_.velocity_C + state_.ground_velocity_C; }
  void remember() {
    was_C_ = against_course();
    told_ = context_.ledger->entries.size();
  }

  const StepContext& context_;
  const CharacterState& state_;
  Vec3 was_C_ = Vec3(0.0);
  std::size_t told_ = 0;
};

}  // namespace lagniappe
