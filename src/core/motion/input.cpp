// SPDX-License-Identifier: MIT
#include <algorithm>
#include <vector>

#include "lagniappe/input_frame.h"

namespace lagniappe {
namespace {

double way(bool inverted) { return inverted ? -1.0 : 1.0; }

bool same(const SticksUntil& a, const SticksUntil& b) { return a.move == b.move && a.turn_rate == b.turn_rate; }

// One after another, from the tick's beginning.
using Parts = std::vector<SticksUntil>;

double length_of(const Parts& parts, std::size_t i) {
  return double(parts[i].until) - (i > 0 ? double(parts[i - 1].until) : 0.0);
}

// What a mean of this part and the next would be wrong by: the square of their distances from it, over time.
double cost_of_mean(const Parts& parts, std::size_t i) {
  constexpr double kFullTurn = 4.0;  // rad/s, as much as a full stick.
  const double a = length_of(parts, i), b = length_of(parts, i + 1);
  const Vec2 moved = parts[i + 1].move - parts[i].move,
             turned = (parts[i + 1].turn_rate - parts[i].turn_rate) / kFullTurn;
  return a * b / (a + b) * (dot(moved, moved) + dot(turned, turned));
}

void join(Parts& parts, std::size_t i) {
  const double a = length_of(parts, i), b = length_of(parts, i + 1);
  SticksUntil& mean = parts[i + 1];
  mean.move = (parts[i].move * a + mean.move * b) / (a + b);
  mean.turn_rate = (parts[i].turn_rate * a + mean.turn_rate * b) / (a + b);
  parts.erase(parts.begin() + static_cast<std::ptrdiff_t>(i));
}

}  // namespace

SticksUntil sticks_at(const InputFrame& input, double share) {
  for (const SticksUntil& sticks : input.earlier) {
    if (!(sticks.until > 0.0f && sticks.until < 1.0f)) break;
    if (share < double(sticks.until)) return sticks;
  }
  return {input.move, input.turn_rate, 1.0f};
}

void set_sticks(std::span<const SticksUntil> given, InputFrame& input) {
  // So many in one tick are more than hands can do: the shortest are not looked at one by one.
  constexpr std::size_t kMany = 256;
  Parts parts;
  for (const SticksUntil& part : given) {
    if (!parts.empty() && same(parts.back(), part)) parts.pop_back();
    parts.push_back(part);
    if (given.size() <= kMany || parts.size() < 2) continue;
    const std::size_t before = parts.size() - 2;
    if (length_of(parts, before) < 1.0 / double(kMany)) join(parts, before);
  }
  while (parts.size() > kMostEarlierSticks + 1) {
    std::size_t least = 0;
    for (std::size_t i = 1; i + 1 < parts.size(); ++i)
      if (cost_of_mean(parts, i) < cost_of_mean(parts, least)) least = i;
    join(parts, least);
  }
  input.move = parts.back().move;
  input.turn_rate = parts.back().turn_rate;
  input.earlier = {};
  std::copy(parts.begin(), parts.end() - 1, input.earlier.begin());
}

Vec2 turned_until(const InputFrame& input, double share, double tick_seconds) {
  share = std::min(share, 1.0);
  Vec2 turned = input.look_delta * share;
  for (double from = 0.0; from < share;) {
    const SticksUntil sticks = sticks_at(input, from);
    const double to = std::min(double(sticks.until), share);
    turned += sticks.turn_rate * ((to - from) * tick_seconds);
    from = to;
  }
  return turned;
}

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
