// SPDX-License-Identifier: GPL-3.0-or-later
// A body that moves in the frame itself, driven by the same hands as the ticks: stepped at each drawn frame, by
// that frame's own time. It begins where the ticks are, and is recorded nowhere.
#pragma once

#include <optional>
#include <utility>

#include "lagniappe/camera.h"
#include "lagniappe/step.h"
#include "session/held_input.h"

namespace lagniappe::app {

class InFrameBody {
 public:
  // Which recording the ticks are of, and how often they were put home: where that changes one begins anew.
  using Of = std::pair<std::uint64_t, std::uint32_t>;

  bool is_of(const Of& of) const { return state_ && of_ == of; }
  // Begins where the last tick ended, with what waits for the next.
  void begin(const CharacterState& ticked, Of of, const HeldInput& hands);
  // What the hands do; times are s of the run after the last frame.
  HeldInput& hands() { return hands_; }
  // Goes on to that time of the run, s, with the look of what is ticked; `seen_by`: sticks are as it sees them.
  void go_on(double until, const Vec2& look, const std::optional<Eye>& seen_by, const Profile& profile,
             const World& world);
  void end() { state_.reset(); }  // Time stands still: the ticks alone count.
  const std::optional<CharacterState>& state() const { return state_; }

 private:
  HeldInput hands_;
  std::optional<CharacterState> state_;
  Of of_ = {};
};

}  // namespace lagniappe::app
