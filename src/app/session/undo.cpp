// SPDX-License-Identifier: GPL-3.0-or-later
#include "session/undo.h"

namespace lagniappe::app {
namespace {

constexpr int kMostSteps = 500;  // Each may keep a profile, a table or a run.

class Change : public QUndoCommand {
 public:
  Change(const QString& text, std::function<void()> redo, std::function<void()> undo, int gesture,
         std::function<bool()> stale)
      : QUndoCommand(text),
        redo_(std::move(redo)),
        undo_(std::move(undo)),
        stale_(std::move(stale)),
        gesture_(gesture) {}

  bool is_stale() const { return stale_(); }
  void redo() override { is_stale() ? setObsolete(true) : redo_(); }
  void undo() override { is_stale() ? setObsolete(true) : undo_(); }
  int id() const override { return gesture_ == 0 ? -1 : 1; }
  bool mergeWith(const QUndoCommand* other) override {
    if (static_cast<const Change*>(other)->gesture_ != gesture_) return false;
    redo_ = static_cast<const Change*>(other)->redo_;
    return true;
  }

 private:
  std::function<void()> redo_, undo_;
  std::function<bool()> stale_;
  int gesture_;
};

}  // namespace

Undo::Undo(QObject* parent) : QObject(parent) {
  stack_.setUndoLimit(kMostSteps);
  connect(&stack_, &QUndoStack::indexChanged, this, &Undo::changed);
}

void Undo::push(const QString& text, std::function<void()> redo, std::function<void()> undo, const Of& of) {
  const auto stale = [era = of.era, made_in = of.era ? of.era->number_ : 0] {
    return era != nullptr && era->number_ != made_in;
  };
  stack_.push(new Change(text, std::move(redo), std::move(undo), of.gesture, stale));
}

void Undo::end(Era& era) {
  era.end();
  drop_stale();
}

// Those at either end of what can be undone; one between others goes when it gets there.
void Undo::drop_stale() {
  const auto stale = [this](int i) { return static_cast<const Change*>(stack_.command(i))->is_stale(); };
  while (stack_.canUndo() && stale(stack_.index() - 1)) stack_.undo();
  while (stack_.canRedo() && stale(stack_.index())) stack_.redo();
}

void Undo::undo_once() {
  stack_.undo();
  drop_stale();
}

void Undo::redo_once() {
  stack_.redo();
  drop_stale();
}

}  // namespace lagniappe::app
