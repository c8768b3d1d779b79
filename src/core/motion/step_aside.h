// SPDX-License-Identifier: MIT
// Off a ladder to the side, onto a floor there.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Begins the way from a foot, `side_C` (across up) being m from the ladder's middle to where the body is clear
// of it; told. Returns false if there is no floor, or no way to it.
bool begin_step_aside(const StepContext& context, const Body& body, const Vec3& foot_C, const Vec3& side_C,
                      CharacterState& state);

}  // namespace lagniappe
