// SPDX-License-Identifier: MIT
// The drawn body and the camera, which stay back where steps and snaps move the foot at once, and catch up.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// The foot was moved `by` m along up at once, after a share of the part: so much the eye stays back, and
// catches up from that instant on. REQUIRES: the part's settle_eye is still to come.
void hold_eye_back(const StepContext& context, double by, double share, CharacterState& state);

// At the end of a part. The eye is never further off than a step.
void settle_eye(const StepContext& context, CharacterState& state);

}  // namespace lagniappe
