// SPDX-License-Identifier: GPL-3.0-or-later
// What is done about takes that could not be saved when all is to end.
#pragma once

#include "doors.h"
#include "session/course_desk.h"
#include "session/take_desk.h"

namespace lagniappe::app {

// Asks until all is saved, here or elsewhere, or given up. Returns whether the window may close.
bool settle_unsaved(TakeDesk& desk, const Doors& doors, QWidget* window);

// Nobody can be asked: what the study does not take goes where temporary files go, and the terminal is told.
void rescue_unsaved(TakeDesk& desk, const CourseDesk& courses);

}  // namespace lagniappe::app
