// SPDX-License-Identifier: GPL-3.0-or-later
// What every program with our windows does first, the tests' too.
#pragma once

#include <QApplication>

namespace lagniappe::app {

// Before the application object is made: the display server's plug-in, and the OpenGL to draw with.
// A scale of 0: as the desktop has it; the environment's own QT_SCALE_FACTOR goes before.
void choose_display(double scale = 0.0);

// Right after it: numbers with a point in any locale, the look (Lantern, or Daylight), the rule for keys, and
// texts that are texts.
void begin_application(QApplication& application, bool lantern);

}  // namespace lagniappe::app
