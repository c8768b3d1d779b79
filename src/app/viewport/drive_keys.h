// SPDX-License-Identifier: GPL-3.0-or-later
// The keys that drive: one table for the view, which reads them, and the shortcut sheet, which lists them.
#pragma once

#include <QString>
#include <optional>
#include <span>
#include <variant>

#include "keys/places.h"
#include "session/drive_session.h"

namespace lagniappe::app {

// Held, the value that was touched last is driven with times this.
struct Feel {
  double factor;
  bool operator==(const Feel&) const = default;
};

using DriveKeyDoes = std::variant<DriveSession::Push, Action, Feel>;

struct DriveKey {
  int key, other_key;  // Qt::Key of the place, see places.h; other_key 0 if there is none.
  DriveKeyDoes does;
  const char* keys_text;
  const char* text;
};

std::span<const DriveKey> drive_keys();

// Returns what a key does while driving, if anything: by its place on the keyboard.
std::optional<DriveKeyDoes> drive_key(const QKeyEvent& event);

}  // namespace lagniappe::app
