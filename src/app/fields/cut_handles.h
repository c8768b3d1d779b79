// SPDX-License-Identifier: GPL-3.0-or-later
// What can be taken hold of in the cut: place, sizes, reach and fade of the chosen row.
#pragma once

#include <QString>
#include <functional>
#include <vector>

#include "fields/cut.h"
#include "fields/pulls.h"
#include "fields/row_choice.h"

namespace lagniappe::app {

struct CutHandle {
  enum class Kind { Place, Size, Reach, Fade } kind;
  QString name;  // "radius 6.0 m".
  Vec3 at_C;
  Vec3 from_C;  // Where its line begins.
  // The row when it is dragged to a point of the cut. `grain`: m, to which values are rounded.
  std::function<QJsonObject(const Vec3& to_C, double grain)> moved;
};

// Those that lie well in the cut: what points at who looks cannot be dragged there.
std::vector<CutHandle> handles_of(const Course& course, const RowChoice& row, const Pulls& pulls,
                                  const Cut& cut, double time);

}  // namespace lagniappe::app
