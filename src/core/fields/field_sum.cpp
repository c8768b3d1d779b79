// SPDX-License-Identifier: MIT
#include <algorithm>
#include <limits>
#include <numeric>
#include <utility>

#include "fields/cores.h"

namespace lagniappe {
namespace {

double share_at(const Field& field, double surface, double radius) {
  const double solid = std::max(1.0 + std::min(surface, 0.0) / radius, 0.0);
  const double falls = radius / (radius + std::max(surface, 0.0));
  switch (field.falloff) {
    case Field::Falloff::Constant:
      return 1.0;
    case Field::Falloff::Linear:
      return std::clamp(1.0 - surface / reach_of(field), 0.0, 1.0);
    case Field::Falloff::Inverse:
      return solid * falls;
    case Field::Falloff::InverseSquare:
      return solid * falls * falls;
    case Field::Falloff::Curve:
      return field.curve.at(surface);
  }
  return 1.0;
}

// Smooth at both ends, so that not even the gradient jumps.
double influence_at(const Field& field, double surface) {
  const double left = reach_of(field) - surface;
  if (!(left > 0.0)) return 0.0;
  if (left >= field.fade) return 1.0;
  const double s = left / field.fade;
  return s * s * (3.0 - 2.0 * s);
}

}  // namespace

double reach_of(const Field& field) {
  if (field.reach) return *field.reach;
  return std::holds_alternative<field::Uniform>(field.shape) ? 0.0 : std::numeric_limits<double>::infinity();
}

FieldAt field_at(const Field& field, const RigidPose& frame, const Vec3& point_C) {
  const Vec3 point_F = frame.back(point_C);
  const auto seen = std::visit([&](const auto& s) { return core_of_field::seen(s, point_F); }, field.shape);
  FieldAt at;
  at.distance = seen.surface;
  at.influence = influence_at(field, seen.surface);
  if (at.influence > 0.0)
    at.pull_C =
        frame.rotation_CP * (seen.towards_F * (field.strength * share_at(field, seen.surface, seen.radius)));
  return at;
}

RigidPose frame_of(const Field& field) { return {field.at_C, rotation_of(field.turn)}; }

FieldSum::FieldSum(std::vector<Field> fields, const Vec3& below_C)
    : fields_(std::move(fields)), order_(fields_.size()), below_C_(below_C) {
  for (const Field& field : fields_) {
    const double extent = std::visit([](const auto& s) { return core_of_field::extent(s); }, field.shape);
    const double far = (extent + reach_of(field)) * (1.0 + 1e-9);
    rest_.push_back(frame_of(field));
    far_square_.push_back(far * far);
  }
  std::iota(order_.begin(), order_.end(), 0u);
  std::stable_sort(order_.begin(), order_.end(), [&](std::uint32_t a, std::uint32_t b) {
    return std::pair(fields_[a].priority, fields_[a].adds) < std::pair(fields_[b].priority, fields_[b].adds);
  });
}

Gravity FieldSum::at(const Vec3& point_C, std::span<const RigidPose> frames) const {
  Gravity sum{below_C_, Vec3(0.0)};
  for (const std::uint32_t i : order_) {
    const Field& field = fields_[i];
    const RigidPose& placed = frame(i, frames);
    if (length_squared(point_C - placed.position_C) > far_square_[i]) continue;  // Nothing there.
    const FieldAt here = field_at(field, placed, point_C);
    if (here.influence == 0.0) continue;
    if (!field.adds) {
      sum.share_C *= 1.0 - here.influence;
      sum.acceleration_C *= 1.0 - here.influence;
    }
    (field.absolute ? sum.acceleration_C : sum.share_C) += here.pull_C * here.influence;
  }
  return sum;
}

double FieldSum::shares(const Vec3& point_C, std::span<double> out, std::span<const RigidPose> frames) const {
  double left = 1.0;  // Of what is under those that were seen so far: the last one comes first.
  for (auto i = order_.rbegin(); i != order_.rend(); ++i) {
    const double influence = field_at(fields_[*i], frame(*i, frames), point_C).influence;
    out[*i] = left * influence;
    if (!fields_[*i].adds) left *= 1.0 - influence;
  }
  return left;
}

}  // namespace lagniappe
