// SPDX-License-Identifier: MIT
// One sweep of a sliding motion.
#pragma once

#include "motion/context.h"

namespace lagniappe {

// Sweeps by `rest`, moves to the contact, and leaves in `rest` what is still to be moved. The ledger is told.
std::optional<WorldHit> sweep_ahead(const StepContext& context, const Body& body, Vec3& foot, Vec3& rest);

}  // namespace lagniappe
