// SPDX-License-Identifier: GPL-3.0-or-later
// The keys that drive: one table for the view, which reads them, and the shortcut sheet, which lists them.
#pragma once

#include <QString>
#include <optional>
#include <variant>
#include <vector>

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
  const char* text;
  QString keys_text() const;  // "W / Up".
};

class DriveKeys {
 public:
  DriveKeys();
  const std::vector<DriveKey>& rows() const { return rows_; }

  // Returns what a key does while driving, if anything: by its place on the keyboard.
  std::optional<DriveKeyDoes> of(const QKeyEvent& event) const;

  // Gives a row another key. Returns the text of the row that has that key already, or nothing; then nothing
  // changes.
  QString set(std::size_t row, int key);
  void restore(std::size_t row, int key) {
    rows_[row].key = key;
  }  // All of them together: each was asked about.
  void set_back(std::size_t row);
  bool is_set(std::size_t row) const;

 private:
  std::vector<DriveKey> rows_;
};

}  // namespace lagniappe::app
