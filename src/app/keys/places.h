// SPDX-License-Identifier: GPL-3.0-or-later
// Keys by their place on the keyboard: where a hand finds them, whatever letter the layout puts there.
//
// Places are told by the scan codes of X and Wayland (the kernel's codes, 8 higher). Events without one, as
// on-screen keyboards and tests send them, are told by their symbol.
#pragma once

#include <QKeyEvent>
#include <QKeySequence>
#include <QList>
#include <cstdint>
#include <set>

class QAction;

namespace lagniappe::app {

// Returns the Qt::Key that the layout of the keycaps "qwerty" has at the place of an event's key: letters,
// digits, the marks beside them, space, shift and arrows. 0 elsewhere.
int key_at_place(const QKeyEvent& event);

// What tells one key from all others, held down or let go, in any layout.
std::uint32_t code_of(const QKeyEvent& event);

// What the event would be as a shortcut if the layout were "qwerty"; empty where the layout's own symbol should
// decide: with Ctrl, every layout of Latin letters.
QKeySequence shortcut_by_place(const QKeyEvent& event);
// The one of `actions` that has that for a shortcut; null if none has.
QAction* action_by_place(const QKeyEvent& event, const QList<QAction*>& actions);

// The keys that are down. A press of one that is down already is a repeat.
class KeysDown {
 public:
  bool press(std::uint32_t code) { return down_.insert(code).second; }  // Returns whether it was up.
  void release(std::uint32_t code) { down_.erase(code); }
  void clear() { down_.clear(); }

 private:
  std::set<std::uint32_t> down_;
};

// Asks the X server to send a held key's repeats as presses alone. Else they come as a release and a press, and
// now and then the first is taken for a real one. Elsewhere than under X nothing needs to be asked.
void ask_for_plain_repeats();

}  // namespace lagniappe::app
