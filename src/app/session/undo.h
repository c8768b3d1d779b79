// SPDX-License-Identifier: GPL-3.0-or-later
// What people change, to be taken back: one stack for all desks.
#pragma once

#include <QUndoStack>
#include <cstdint>
#include <functional>

namespace lagniappe::app {

// What a change is about, as long as it is there. A change of an era that is over is no more to be undone.
class Era {
 public:
  void end() { ++number_; }

 private:
  friend class Undo;
  std::uint64_t number_ = 0;
};

class Undo : public QObject {
  Q_OBJECT
 public:
  explicit Undo(QObject* parent = nullptr);

  struct Of {
    const Era* era = nullptr;  // Outlives the stack. Null: it can always be undone.
    int gesture = 0;           // Changes of one gesture, unless it is 0, are undone at once.
  };
  // Of all desks: no two share one.
  int new_gesture() { return ++gesture_; }
  // Does it, and keeps how to undo it.
  void push(const QString& text, std::function<void()> redo, std::function<void()> undo, const Of& of);
  void push(const QString& text, std::function<void()> redo, std::function<void()> undo) {
    push(text, std::move(redo), std::move(undo), Of{});
  }
  // Sets this, or what was before.
  template <typename Set, typename Value>
  void swap(const QString& text, const Set& set, const Value& next, const Value& before, const Of& of = Of()) {
    push(
        text, [set, next] { set(next); }, [set, before] { set(before); }, of);
  }

  // An era that is over takes its changes with it.
  void end(Era& era);

  bool can_undo() const { return stack_.canUndo(); }
  bool can_redo() const { return stack_.canRedo(); }
  QString undo_text() const { return stack_.undoText(); }
  QString redo_text() const { return stack_.redoText(); }
  int count() const { return stack_.count(); }
  void undo_once();
  void redo_once();

 signals:
  void changed();

 private:
  void drop_stale();

  QUndoStack stack_;
  int gesture_ = 0;
};

}  // namespace lagniappe::app
