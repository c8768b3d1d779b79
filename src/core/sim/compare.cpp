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

// m between the feet at every tick of the slower run that both have: between its ticks a run is a guess.
std::vector<float> apart_at_common_ticks(const Run& a, const Run& b) {
  const Run& slower = a.tick_rate() <= b.tick_rate() ? a : b;
  const double both = std::min(a.seconds(), b.seconds());
  const auto count =
      std::min(slower.ticks(), static_cast<std::size_t>(std::floor(both * slower.tick_rate() + 1e-6)));
  std::vector<float> apart;
  apart.reserve(count + 1);
  for (std::size_t i = 0; i <= count; ++i) {
    const double seconds = static_cast<double>(i) / slower.tick_rate();
    apart.push_back(static_cast<float>(length(foot_at(a, seconds) - foot_at(b, seconds))));
  }
  return apart;
}

// The same for the ticks of a run that may be faster than that, along straight lines.
std::vector<float> at_ticks_of(const Run& run, const std::vector<float>& common, int common_rate) {
  if (run.tick_rate() == common_rate) return common;
  const double each = static_cast<double>(common_rate) / run.tick_rate();
  const auto last = static_cast<double>(common.size() - 1);
  std::vector<float> apart;
  for (std::size_t i = 0; i <= run.ticks(); ++i) {
    const double at = static_cast<double>(i) * each;
    if (at > last + 1e-9) break;
    const auto low = static_cast<std::size_t>(std::min(at, last));
    const std::size_t high = std::min(low + 1, common.size() - 1);
    apart.push_back(std::lerp(common[low], common[high], static_cast<float>(at - static_cast<double>(low))));
  }
  return apart;
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
  const std::vector<float> common = apart_at_common_ticks(first, second);
  const int common_rate = std::min(first.tick_rate(), second.tick_rate());
  const auto tick_of_first = [&](std::size_t tick) {
    const double at = static_cast<double>(tick) * first.tick_rate() / common_rate;
    return std::min(static_cast<std::size_t>(std::llround(at)), first.ticks());
  };
  for (std::size_t i = 0; i < common.size(); ++i) {
    const double apart = common[i];
    if (!result.parting && apart > options.parting_distance) result.parting = tick_of_first(i);
    if (apart <= result.furthest) continue;
    result.furthest = apart;
    result.furthest_at = tick_of_first(i);
  }
  result.apart = at_ticks_of(first, common, common_rate);
  if (compare_pieces) result.drift = find_drift(first, second, result, options.drift_distance);
  return result;
}

}  // namespace lagniappe
