// SPDX-License-Identifier: MIT
#include "motion/sweep_ahead.h"

namespace lagniappe {

std::optional<WorldHit> sweep_ahead(const StepContext& context, const Body& body, Vec3& foot, Vec3& rest) {
  const auto hit = body.sweep(foot, rest);
  if (context.ledger != nullptr) {
    entry::Sweep sweep{foot, rest,         hit ? hit->hit.fraction : 1.0, hit.has_value(), kNoPiece, {},
                       {},   Feature::Face};
    if (hit) {
      sweep.piece = hit->piece;
      sweep.point_C = hit->hit.point_C;
      sweep.normal_C = hit->hit.normal_C;
      sweep.feature = hit->hit.feature;
    }
    context.note(sweep);
  }
  const double fraction = hit ? hit->hit.fraction : 1.0;
  foot += rest * fraction;
  rest *= 1.0 - fraction;
  return hit;
}

}  // namespace lagniappe
