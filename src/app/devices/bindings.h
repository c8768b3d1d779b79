// SPDX-License-Identifier: GPL-3.0-or-later
// What drives: one table of what can be done and of the keys, mouse buttons and pad controls that do it, for
// whoever reads a device and for the sheets that list them.
#pragma once

#include <QString>
#include <array>
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

// What a pad asks of the window; keys have shortcuts for it.
enum class Command { Drive, ChangeCamera };

using Does = std::variant<DriveSession::Push, Action, Feel, Command>;

// Controls of a pad by their place on it. Sticks are not bound: the left one moves, the right one looks.
enum class PadControl {
  None,
  FaceLow,
  FaceRight,
  FaceLeft,
  FaceHigh,
  LeftShoulder,
  RightShoulder,
  LeftTrigger,
  RightTrigger,
  LeftStickIn,
  RightStickIn,
  CrossUp,
  CrossDown,
  CrossLeft,
  CrossRight,
  Back,
  Start,
};
inline constexpr int kPadControlCount = 17;
QString name_of(PadControl control);

// Where something can be bound: two keys, a mouse button, a control of any pad.
enum class Slot { Key, OtherKey, Mouse, Pad };
inline constexpr int kSlotCount = 4;

struct Binding {
  // By slot: the Qt::Key of a place (see places.h), again, a Qt::MouseButton, a PadControl; 0: none.
  std::array<int, kSlotCount> codes;
  Does does;
  const char* text;

  int code(Slot slot) const { return codes[static_cast<std::size_t>(slot)]; }
  bool takes(Slot slot) const { return slot == Slot::Pad || !std::holds_alternative<Command>(does); }
  QString keys_text() const;  // "W / Up".
};

// As sheets show what is bound; empty for none.
QString code_text(Slot slot, int code);

class Bindings {
 public:
  Bindings();
  const std::vector<Binding>& rows() const { return rows_; }

  // Returns what a control does while driving, if anything. Of two rows that have it, the first one.
  std::optional<Does> of(const QKeyEvent& event) const;  // By its place on the keyboard.
  std::optional<Does> of(Qt::MouseButton button) const;
  std::optional<Does> of(PadControl control) const;

  void set(std::size_t row, Slot slot, int code);
  void set_back();
  bool is_set(std::size_t row, Slot slot) const;  // Is another than at first.
  // Returns the other rows that have what this one has there.
  std::vector<std::size_t> conflicts(std::size_t row, Slot slot) const;

 private:
  std::vector<Binding> rows_;
};

}  // namespace lagniappe::app
