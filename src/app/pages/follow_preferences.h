// SPDX-License-Identifier: GPL-3.0-or-later
// Who goes by what a person prefers.
#pragma once

#include "actions.h"
#include "session/handling_desk.h"
#include "session/heart.h"
#include "session/preferences.h"

namespace lagniappe::app {

class DrivePage;

// Now, and whenever it is changed. All must outlive the page.
void follow_preferences(Preferences& preferences, const Actions& actions, Heart& heart, HandlingDesk& handling,
                        DrivePage& page);

// The keys that lines of advice name.
void show_keys(const Actions& actions, DrivePage& page);

}  // namespace lagniappe::app
