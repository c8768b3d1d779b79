// SPDX-License-Identifier: MIT
#include "motion/footing_change.h"

#include "motion/wall_contact.h"

namespace lagniappe {
namespace {

// m of a way that a change of slope may cost or give before it is an event, and of it when the event is found.
constexpr double kSlopeMatters = 5e-4, kSlopeFound = 5e-5;

// Cosine below which a wall has come to its end: 1.1 degrees round it.
constexpr double kEndsBelow = 0.9998;

}  // namespace

FootingChange footing_change(const World& world, const CharacterState& from, const CharacterState& now,
                             const Stop& stop) {
  constexpr FootingChange kAtOnce{true, kEventTime};
  const Ground &was = from.ground, &is = now.ground;
  if (was.verdict != is.verdict || was.surface.friction != is.surface.friction) return kAtOnce;
  const auto velocity_of = [&](PieceId piece) {
    const Vec3 own = world.moves(piece) ? world.piece_velocity(piece, now.time).at(now.foot_C) : Vec3(0.0);
    return own + world.surface_drift(piece, now.time);
  };
  const bool other_piece = was.piece != is.piece;
  if (other_piece && length(velocity_of(was.piece) - velocity_of(is.piece)) > kLeavingSpeed) return kAtOnce;
  // The wall that was slid along has come to its end, or turns round it.
  if (!stop.rolls && from.wall_normal_C != Vec3(0.0) && dot(from.wall_normal_C, now.wall_normal_C) < kEndsBelow)
    return kAtOnce;
  // Over a crest that was come up to within the part.
  if (stop.turned && now.snapped > from.snapped + kGroundTouch) return kAtOnce;
  if (was.normal_C == is.normal_C) return {};
  const Vec3 up = now.up_C(), way = across(stop.way_C, up);
  const double share_was = std::cos(slope_along(way, was.normal_C, up));
  const double share_is = std::cos(slope_along(way, is.normal_C, up));
  const double lost = length(way) * std::abs(share_was - share_is);
  if (lost < kSlopeMatters) return {};
  return {true, (now.time - from.time) * kSlopeFound / lost};
}

}  // namespace lagniappe
