// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/small_world.h"

#include <cmath>

#include "fields/outward.h"

namespace lagniappe::app {
namespace {

std::optional<double> radius_of(const FieldShape& shape) {
  if (const auto* ball = std::get_if<field::Ball>(&shape)) return ball->radius;
  if (const auto* pill = std::get_if<field::Pill>(&shape)) return pill->radius;
  if (const auto* ring = std::get_if<field::Ring>(&shape)) return ring->thickness;
  if (const auto* path = std::get_if<field::Path>(&shape)) return path->radius;
  return std::nullopt;
}

}  // namespace

// The pull is felt at the centre of mass; what goes round is the foot: speed^2 / radius = pull.
std::optional<SmallWorld> small_world(const Field& field, const Profile& profile) {
  const auto radius = radius_of(field.shape);
  if (!radius || field.strength <= 0.0) return std::nullopt;
  const FieldAt at = field_at(field, RigidPose{}, outward(field.shape, profile.capsule.centre_of_mass));
  const double pull = length(at.pull_C) * at.influence * (field.absolute ? 1.0 : profile.gravity);
  return SmallWorld{2.0 * kPi * *radius, std::sqrt(pull * *radius)};
}

}  // namespace lagniappe::app
