// SPDX-License-Identifier: GPL-3.0-or-later
// What every program with our windows does first, the tests' too.
#pragma once

#include <QApplication>

namespace lagniappe::app {

// Before the application object is made: the display server's plug-in, and the OpenGL to draw with.
void choose_display();

// Right after it: numbers with a point in any locale, the look, the rule for keys, and texts that are texts.
void begin_application(QApplication& application);

}  // namespace lagniappe::app
