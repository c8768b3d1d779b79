// SPDX-License-Identifier: MIT
// What the ledger's entries say that the velocity was changed by, against what it was changed by.
#pragma once

#include <catch2/catch.hpp>

#include "lagniappe/ledger.h"

namespace lagniappe::test {

inline void must_sum_to_the_change(const Ledger& ledger, const CharacterState& before,
                                   const CharacterState& after) {
  constexpr double kUntold = 2e-6;  // m/s: what is too little to tell, some times over.
  Vec3 sum(0.0);
  for (const LedgerEntry& e : ledger.entries) sum += velocity_change(e);
  Vec3 by_cause(0.0);
  for (const VelocityPart& part : velocity_parts(ledger)) by_cause += part.change_C;
  const double off = length(after.velocity_C - before.velocity_C - sum);
  if (off < kUntold && length(by_cause - sum) < 1e-9) return;
  INFO("tick " << after.tick << ", " << off << " m/s untold");
  CHECK(off < kUntold);
  CHECK(length(by_cause - sum) < 1e-9);
}

}  // namespace lagniappe::test
