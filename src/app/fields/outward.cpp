// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/outward.h"

namespace lagniappe::app {

Vec3 outward(const FieldShape& shape, double way) {
  if (const auto* s = std::get_if<field::Uniform>(&shape)) return {0.5 * s->size.x + way, 0.0, 0.0};
  if (const auto* s = std::get_if<field::Ball>(&shape)) return {s->radius + way, 0.0, 0.0};
  if (const auto* s = std::get_if<field::Pill>(&shape)) return {s->radius + way, 0.0, 0.0};
  if (const auto* s = std::get_if<field::Ring>(&shape)) return {s->radius + s->thickness + way, 0.0, 0.0};
  if (const auto* s = std::get_if<field::Slab>(&shape)) return {0.0, 0.5 * s->size.y + way, 0.0};
  const auto& s = std::get<field::Path>(shape);
  const Vec3 first = s.line.points().front(), along = unit_or(s.line.points()[1] - first, Vec3(1, 0, 0));
  const Vec3 out = unit_or(across(Vec3(0, 1, 0), along), Vec3(0, 0, 1));
  return first + out * (s.radius + way);
}

}  // namespace lagniappe::app
