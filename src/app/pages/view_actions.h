// SPDX-License-Identifier: GPL-3.0-or-later
// What the actions of driving, of time and of the view do, and the menu of marks.
#pragma once

#include "actions.h"

class QMenu;

namespace lagniappe::app {

class DrivePage;
class DriveSession;
class Preferences;
class Undo;
class ViewWidget;

// All must outlive the actions.
void connect_view_actions(const Actions& actions, DriveSession& session, DrivePage& page,
                          Preferences& preferences);

// Undo and redo, which say what they would take back.
void connect_undo(const Actions& actions, Undo& undo, QObject& owner);

// Each mark of the course begins a drive there.
void fill_marks(QMenu& menu, DriveSession& session, ViewWidget& view);

}  // namespace lagniappe::app
