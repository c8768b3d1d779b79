// SPDX-License-Identifier: GPL-3.0-or-later
// What pulls in a cut, sampled on a grid of pixels, and the lines of equal values through such samples.
#pragma once

#include <QLineF>
#include <QSize>
#include <vector>

#include "fields/cut.h"
#include "fields/pulls.h"

namespace lagniappe::app {

// Values on a grid over a picture; sample (column, row) lies `step` pixels to the right of and below its
// neighbours, the first one at the upper left corner.
struct Samples {
  int columns = 0, rows = 0;
  double step = 8.0;
  std::vector<float> values;

  float at(int column, int row) const {
    return values[std::size_t(row) * std::size_t(columns) + std::size_t(column)];
  }
};

struct CutMap {
  Samples strength;          // m/s2.
  std::vector<Vec3> pull_C;  // m/s2, likewise.
  // What each field gives, m/s2, and how far its surface is, m; the last of `parts` is what is below all.
  std::vector<Samples> parts, distances;
  double strongest = 0.0;
};

// `step`: pixels between samples.
CutMap map_of(const Cut& cut, const QSize& size, const Pulls& pulls, double time, double step);

// Samples of any function of a point.
template <typename Value>
Samples sampled(const Cut& cut, const QSize& size, double step, const Value& value) {
  Samples s{int(size.width() / step) + 2, int(size.height() / step) + 2, step, {}};
  s.values.reserve(std::size_t(s.columns) * std::size_t(s.rows));
  for (int row = 0; row < s.rows; ++row) {
    for (int column = 0; column < s.columns; ++column)
      s.values.push_back(float(value(cut.point({column * step, row * step}, size))));
  }
  return s;
}

// The lines at which the samples have a value, straight within each square of the grid.
std::vector<QLineF> contour(const Samples& samples, double level);

// The line at which two of the parts are alike, where no third gives more.
std::vector<QLineF> alike(const std::vector<Samples>& parts);

// The values at which contours are drawn: round ones, at most six, up to `strongest`.
std::vector<double> levels_up_to(double strongest);

}  // namespace lagniappe::app
