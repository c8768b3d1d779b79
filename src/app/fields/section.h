// SPDX-License-Identifier: GPL-3.0-or-later
// What a cut goes through: the pieces' outlines in it.
#pragma once

#include <QLineF>
#include <QSize>
#include <vector>

#include "fields/cut.h"
#include "session/recording.h"

namespace lagniappe::app {

struct Section {
  std::vector<QLineF> outline;  // Pixels.
  // Rows of the picture, every other pixel, that lie in a piece: where its faces close it.
  std::vector<QLineF> inside;
};

Section section_of(const Place& place, const Cut& cut, const QSize& size, double time);

}  // namespace lagniappe::app
