// SPDX-License-Identifier: MIT
#include <algorithm>

#include "lagniappe/input_frame.h"

namespace lagniappe {
namespace {

double way(bool inverted) { return inverted ? -1.0 : 1.0; }

}  // namespace

double stick_push(const Vec2& raw, double dead_zone) {
  const double deflection = glm::length(raw);
  if (!(deflection > dead_zone) || !std::isfinite(deflection)) return 0.0;
  return std::min((deflection - dead_zone) / (1.0 - dead_zone), 1.0);
}

Vec2 shaped_stick(const Vec2& raw, double dead_zone) {
  const double push = stick_push(raw, dead_zone);
  return push > 0.0 ? raw * (push / glm::length(raw)) : Vec2(0.0);
}

Vec2 mouse_look(const Profile::Look& look, const Vec2& counts) {
  return {-counts.x * look.mouse_yaw * way(look.invert_yaw),
          -counts.y * look.mouse_pitch * way(look.invert_pitch)};
}

Vec2 stick_turn_rate(const Profile::Look& look, const Vec2& raw) {
  const Vec2 shaped = shaped_stick(raw, look.dead_zone);
  const double push = glm::length(shaped);
  if (push <= 0.0) return Vec2(0.0);
  const Vec2 stick = shaped * (std::pow(push, look.stick_power) / push);
  return {-stick.x * look.stick_yaw * way(look.invert_yaw),
          stick.y * look.stick_pitch * way(look.invert_pitch)};
}

}  // namespace lagniappe
