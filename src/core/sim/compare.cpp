// SPDX-License-Identifier: MIT
#include "lagniappe/compare.h"

#include <algorithm>
#include <cmath>

namespace lagniappe {
namespace {

constexpr double kAround = 0.5;  // s within which another run must have touched a piece too.

Vec3 foot_at(const Run& run, double seconds) {
  const double at = std::clamp(seconds * run.tick_rate(), 0.0, static_cast<double>(run.ticks()));
  const auto tick = static_cast<std::size_t>(at);
  const double share = at - static_cast<double>(tick);
  if (share < 1e-9 || tick == run.ticks()) return run.state(tick).foot_C;
  const CharacterState &a = run.state(tick), &b = run.state(tick + 1);
  return a.times_put_home == b.times_put_home ? a.foot_C + (b.foot_C - a.foot_C) * share : a.foot_C;
}

bool touches_around(const Run& run, PieceId piece, double seconds) {
  const double low = (seconds - kAround) * run.tick_rate(), high = (seconds + kAround) * run.tick_rate();
  return std::any_of(run.touches().begin(), run.touches().end(), [&](const Touch& t) {
    return t.piece == piece && static_cast<double>(t.last) >= low && static_cast<double>(t.first) <= high;
  });
}

std::optional<std::size_t> first_difference_of(const Run& a, const Run& b) {
  const std::size_t count = std::min(a.ticks(), b.ticks());
  for (std::size_t i = 0; i <= count; ++i) {
    if (hash_of(a.state(i)) != hash_of(b.state(i))) return i;
  }
  return std::nullopt;
}

std::optional<Comparison::Drift> find_drift(const Run& a, const Run& b, const Comparison& comparison,
                                            double distance) {
  for (std::size_t i = comparison.parting.value_or(comparison.apart.size()); i < comparison.apart.size(); ++i) {
    if (comparison.apart[i] < distance) continue;
    const std::size_t j = tick_at(a, i, b);
    const PieceId mine = a.state(i).ground.piece, other = b.state(j).ground.piece;
    if (other == kNoPiece || other == mine) continue;
    if (!touches_around(a, other, static_cast<double>(i) / a.tick_rate()))
      return Comparison::Drift{i, mine, other};
  }
  return std::nullopt;
}

}  // namespace

std::size_t tick_at(const Run& first, std::size_t tick, const Run& second) {
  const double at = static_cast<double>(tick) * second.tick_rate() / first.tick_rate();
  return std::min(static_cast<std::size_t>(std::llround(at)), second.ticks());
}

Comparison compare(const Run& first, const Run& second, bool compare_pieces, const CompareOptions& options) {
  Comparison result;
  const bool same_rate = first.tick_rate() == second.tick_rate();
  if (same_rate) result.first_difference = first_difference_of(first, second);
  result.identical = same_rate && !result.first_difference && first.ticks() == second.ticks();
  const double both = std::min(first.seconds(), second.seconds());
  const auto count =
      std::min(first.ticks(), static_cast<std::size_t>(std::floor(both * first.tick_rate() + 1e-6)));
  result.apart.reserve(count + 1);
  for (std::size_t i = 0; i <= count; ++i) {
    const double apart =
        length(first.state(i).foot_C - foot_at(second, static_cast<double>(i) / first.tick_rate()));
    result.apart.push_back(static_cast<float>(apart));
    if (!result.parting && apart > options.parting_distance) result.parting = i;
    if (apart <= result.furthest) continue;
    result.furthest = apart;
    result.furthest_at = i;
  }
  if (compare_pieces) result.drift = find_drift(first, second, result, options.drift_distance);
  return result;
}

}  // namespace lagniappe
