// SPDX-License-Identifier: GPL-3.0-or-later
#include "fields/cut_map.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace lagniappe::app {
namespace {

constexpr double kNearly = 0.999;  // Of the strongest: a pull that is even has no contours of its rounding.

// Where the value passes 0 between two corners of a square.
std::optional<QPointF> crossing(const QPointF& a, const QPointF& b, double at_a, double at_b) {
  if ((at_a < 0.0) == (at_b < 0.0)) return std::nullopt;
  return a + (b - a) * (at_a / (at_a - at_b));
}

// The pieces of the line of value 0 through the square between samples; `corners` clockwise from the upper
// left.
void add_square(const std::array<double, 4>& corners, const QPointF& at, double step,
                std::vector<QLineF>& out) {
  const std::array<QPointF, 4> places = {at, at + QPointF(step, 0), at + QPointF(step, step),
                                         at + QPointF(0, step)};
  std::array<QPointF, 4> found;
  int count = 0;
  for (std::size_t i = 0; i < 4; ++i) {
    const std::size_t next = (i + 1) % 4;
    if (const auto p = crossing(places[i], places[next], corners[i], corners[next]))
      found[std::size_t(count++)] = *p;
  }
  if (count == 2) out.emplace_back(found[0], found[1]);
  if (count != 4) return;
  // A saddle: the middle says which corners belong together.
  const double middle = corners[0] + corners[1] + corners[2] + corners[3];
  const bool with_first = (middle < 0.0) == (corners[0] < 0.0);
  out.emplace_back(found[0], found[with_first ? 1 : 3]);
  out.emplace_back(found[2], found[with_first ? 3 : 1]);
}

template <typename Corner>
void each_square(const Samples& grid, const Corner& corner) {
  for (int row = 0; row + 1 < grid.rows; ++row) {
    for (int column = 0; column + 1 < grid.columns; ++column)
      corner(column, row, QPointF(column * grid.step, row * grid.step));
  }
}

}  // namespace

CutMap map_of(const Cut& cut, const QSize& size, const Pulls& pulls, double time, double step) {
  CutMap map;
  const std::size_t fields = pulls.fields().size();
  map.parts.resize(fields + 1);
  map.distances.resize(fields);
  Pulls::Sample here;
  map.strength = sampled(cut, size, step, [&](const Vec3& p) {
    pulls.sample(p, time, here);
    map.pull_C.push_back(here.pull_C);
    for (std::size_t i = 0; i <= fields; ++i) map.parts[i].values.push_back(float(here.parts[i]));
    for (std::size_t i = 0; i < fields; ++i) map.distances[i].values.push_back(float(here.distances[i]));
    const double strength = length(here.pull_C);
    map.strongest = std::max(map.strongest, strength);
    return strength;
  });
  for (auto* list : {&map.parts, &map.distances}) {
    for (Samples& s : *list) {
      s.columns = map.strength.columns;
      s.rows = map.strength.rows;
      s.step = map.strength.step;
    }
  }
  return map;
}

std::vector<QLineF> contour(const Samples& samples, double level) {
  std::vector<QLineF> lines;
  each_square(samples, [&](int c, int r, const QPointF& at) {
    add_square({samples.at(c, r) - level, samples.at(c + 1, r) - level, samples.at(c + 1, r + 1) - level,
                samples.at(c, r + 1) - level},
               at, samples.step, lines);
  });
  return lines;
}

std::vector<QLineF> alike(const std::vector<Samples>& parts) {
  std::vector<QLineF> lines;
  if (parts.size() < 2) return lines;
  const auto strongest = [&](int c, int r) {
    std::size_t best = 0;
    for (std::size_t i = 1; i < parts.size(); ++i) {
      if (parts[i].at(c, r) > parts[best].at(c, r)) best = i;
    }
    return best;
  };
  each_square(parts.front(), [&](int c, int r, const QPointF& at) {
    const std::array<std::pair<int, int>, 4> places = {{{c, r}, {c + 1, r}, {c + 1, r + 1}, {c, r + 1}}};
    const std::size_t one = strongest(c, r);
    std::size_t other = one;
    for (const auto& [column, row] : places) {
      if (const std::size_t here = strongest(column, row); here != one) other = here;
    }
    if (other == one) return;
    std::array<double, 4> apart;
    for (std::size_t i = 0; i < 4; ++i) {
      const double a = parts[one].at(places[i].first, places[i].second),
                   b = parts[other].at(places[i].first, places[i].second);
      if (a == 0.0 || b == 0.0) return;  // Where one ends nothing is alike.
      apart[i] = a - b;
    }
    add_square(apart, at, parts.front().step, lines);
  });
  return lines;
}

std::vector<double> levels_up_to(double strongest) {
  constexpr std::array<double, 16> kRound = {0.1, 0.2, 0.5, 1,   2,   5,   10,   15,
                                             20,  30,  50,  100, 200, 500, 1000, 5000};
  constexpr std::size_t kMost = 6;
  std::vector<double> levels;
  for (const double level : kRound) {
    if (level < strongest * kNearly) levels.push_back(level);
  }
  if (levels.size() > kMost) levels.erase(levels.begin(), levels.end() - std::ptrdiff_t(kMost));
  return levels;
}

}  // namespace lagniappe::app
