// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/pulls.h"

#include <algorithm>

namespace lagniappe::app {
namespace {

// Pieces that carry fields or zones move as they do; what they are made of pulls nothing.
TriangleWorld without_pieces(const Course& course) {
  Course bare;
  bare.surfaces = course.surfaces;
  bare.gravity = course.gravity;
  bare.fields = course.fields;
  bare.zones = course.zones;
  bare.marks = course.marks;
  bare.wind_C = course.wind_C;
  for (const Piece& piece : course.pieces) {
    const auto on_it = [&](const auto& row) { return row.on == piece.id; };
    if (std::none_of(bare.fields.begin(), bare.fields.end(), on_it) &&
        std::none_of(bare.zones.begin(), bare.zones.end(), on_it))
      continue;
    bare.pieces.push_back({piece.id, piece.at_C, piece.turn, {}, shape::Block{Vec3(1.0)}, piece.motion});
  }
  return build_world(bare);
}

}  // namespace

Pulls::Pulls(const Course& course, double gravity) : world_(without_pieces(course)), gravity_(gravity) {}

std::span<const Field> Pulls::fields() const {
  if (world_.fields() == nullptr) return {};
  return world_.fields()->fields();
}

const std::vector<RigidPose>& Pulls::frames(double time) const {
  if (time == frames_time_) return frames_;
  frames_.resize(fields().size());
  if (world_.fields() != nullptr) world_.place_fields(time, frames_);
  frames_time_ = time;
  return frames_;
}

RigidPose Pulls::frame(std::size_t field, double time) const { return frames(time)[field]; }

Vec3 Pulls::at(const Vec3& point_C, double time) const {
  if (world_.fields() == nullptr) return {0.0, -gravity_, 0.0};
  return world_.fields()->at(point_C, frames(time)).of(gravity_);
}

void Pulls::sample(const Vec3& point_C, double time, Sample& out) const {
  const std::size_t count = fields().size();
  out.parts.assign(count + 1, 0.0);
  out.distances.resize(count);
  if (world_.fields() == nullptr) {
    out.parts[0] = gravity_;
    out.pull_C = {0.0, -gravity_, 0.0};
    return;
  }
  const FieldSum& sum = *world_.fields();
  const double below = sum.shares(point_C, {out.parts.data(), count}, frames(time));
  out.pull_C = sum.below() * (below * gravity_);
  out.parts[count] = length(out.pull_C);
  for (std::size_t i = 0; i < count; ++i) {
    const FieldAt one = field_at(fields()[i], frames(time)[i], point_C);
    out.distances[i] = one.distance;
    const Vec3 part = one.pull_C * (out.parts[i] * strength_of(fields()[i]));
    out.parts[i] = length(part);
    out.pull_C += part;
  }
}

double Pulls::alone(std::size_t field, const Vec3& point_C, double time) const {
  const FieldAt one = field_at(fields()[field], frames(time)[field], point_C);
  return one.influence * length(one.pull_C) * strength_of(fields()[field]);
}

double Pulls::distance(std::size_t field, const Vec3& point_C, double time) const {
  return field_at(fields()[field], frames(time)[field], point_C).distance;
}

}  // namespace lagniappe::app
