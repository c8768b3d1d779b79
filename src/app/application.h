// SPDX-License-Identifier: GPL-3.0-or-later
// What every program with our windows does first, the tests' too.
#pragma once

#include <QApplication>

namespace lagniappe::app {

// Before the application object is made: the display server's plug-in, and the OpenGL to draw with.
void choose_display();

// Whether the desktop's colours are light on dark. To be asked before they are replaced.
bool desktop_is_dark();

// Right after it: numbers with a point in any locale, the look (Lantern, or Daylight), the rule for keys, and
// texts that are texts.
void begin_application(QApplication& application, bool lantern);

}  // namespace lagniappe::app
