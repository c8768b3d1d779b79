// SPDX-License-Identifier: GPL-3.0-or-later
// How much of a course a cut must show.
#pragma once

#include <QSize>

#include "fields/cut.h"
#include "lagniappe/course.h"

namespace lagniappe::app {

// The cut moved in its own plane, and scaled, so that all fields with their reaches are in the picture; where
// something pulls besides them, all marks and zones too.
Cut covering(Cut cut, const Course& course, const QSize& size);

}  // namespace lagniappe::app
